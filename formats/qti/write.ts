import { exact, type Fraction } from '../../core/kit/exact'
import type { Shape } from '../../core/kit/shapes'
import { kindOf, type Question } from '../../core/question'
import { element, type XmlElement } from '../xml'
import { mapElements, parseHtml } from './html'
import { namespaces, templates, toVersion3, type QtiVersion } from './names'
import { withTemplate } from './template-write'

type Node = XmlElement | string
/** What an item's kind puts into it. */
interface Parts {
  declarations: XmlElement[]
  body: Node[]
  processing: XmlElement | null
  most?: string
}

const value = (text: string | number) => element('value', {}, String(text))
const decimal = (number: number | string | Fraction) => String(Math.round(exact(number).valueOf() * 1e6) / 1e6)

function declaration(
  identifier: string,
  cardinality: string,
  baseType: string,
  correct: string[],
  mapping: XmlElement | null = null,
): XmlElement {
  return element(
    'responseDeclaration',
    { identifier, cardinality, baseType },
    correct.length > 0 && element('correctResponse', {}, correct.map(value)),
    mapping,
  )
}
const mapping = (
  entries: [key: string, value: number | string][],
  bounds: { lower?: number | null; upper?: number | null; wrong?: number | string; caseSensitive?: boolean } = {},
) =>
  element(
    'mapping',
    { lowerBound: bounds.lower, upperBound: bounds.upper, defaultValue: bounds.wrong ?? 0 },
    entries.map(([mapKey, mappedValue]) =>
      element('mapEntry', { mapKey, mappedValue, caseSensitive: bounds.caseSensitive }),
    ),
  )

const variable = (identifier: string) => element('variable', { identifier })
const base = (baseType: string, text: string | number) => element('baseValue', { baseType }, String(text))
const outcome = (expression: XmlElement) => element('setOutcomeValue', { identifier: 'SCORE' }, expression)
/** The first condition that holds sets the score. */
const firstOf = (cases: { condition: XmlElement; score: number }[]) =>
  element(
    'responseProcessing',
    {},
    element(
      'responseCondition',
      {},
      cases.map(({ condition, score }, i) =>
        element(i ? 'responseElseIf' : 'responseIf', {}, condition, outcome(base('float', score))),
      ),
    ),
  )

const options = (question: Extract<Question, { body: { options: unknown } }>) => question.body.options
const simpleChoices = (question: Extract<Question, { body: { options: unknown } }>) =>
  options(question).map((option) =>
    element(
      'simpleChoice',
      { identifier: option.id, fixed: option.fixed || question.body.inOrder || null },
      parseHtml(option.html),
      option.comment
        ? element(
            'feedbackInline',
            { identifier: option.id, outcomeIdentifier: 'FEEDBACK', showHide: 'show' },
            parseHtml(option.comment),
          )
        : null,
    ),
  )
const prompt = (question: Question) => (question.stem ? [element('prompt', {}, parseHtml(question.stem))] : [])
const stem = (question: Question): Node[] => (question.stem ? [element('div', {}, parseHtml(question.stem))] : [])

function choice(question: Extract<Question, { kind: 'choice' | 'trueFalse' | 'yesNo' }>): Parts {
  const right = options(question)
    .filter((option) => option.credit === 1)
    .slice(0, 1)
    .map((option) => option.id)
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'single',
        'identifier',
        right,
        mapping(options(question).map((option) => [option.id, option.credit])),
      ),
    ],
    body: [
      element(
        'choiceInteraction',
        { responseIdentifier: 'RESPONSE', shuffle: !question.body.inOrder, maxChoices: 1 },
        prompt(question),
        simpleChoices(question),
      ),
    ],
    processing: element('responseProcessing', { template: 'map_response' }),
  }
}

function choices(question: Extract<Question, { kind: 'choices' }>): Parts {
  const right = question.body.options.filter((option) => option.right)
  const wrong = question.body.options.length - right.length
  const share = (option: { right: boolean }) =>
    option.right ? decimal(`1/${right.length}`) : decimal(`-1/${Math.max(1, wrong)}`)
  const entries = question.body.options.map((option): [string, number | string] => [
    option.id,
    question.body.rule === 'credits' ? option.credit : share(option),
  ])
  const bounds =
    question.body.rule === 'credits'
      ? { lower: question.body.lower, upper: question.body.upper }
      : { lower: 0, upper: 1 }
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'multiple',
        'identifier',
        right.map((option) => option.id),
        question.body.rule === 'all' ? null : mapping(entries, bounds),
      ),
    ],
    body: [
      element(
        'choiceInteraction',
        {
          responseIdentifier: 'RESPONSE',
          shuffle: !question.body.inOrder,
          maxChoices: question.body.tellHowMany ? right.length : 0,
        },
        prompt(question),
        simpleChoices(question),
      ),
    ],
    processing: element('responseProcessing', {
      template: question.body.rule === 'all' ? 'match_correct' : 'map_response',
    }),
  }
}

type NumberAnswer = Extract<Question, { kind: 'number' }>['body']['answers'][number]
function isNumber(answer: NumberAnswer, identifier: string): XmlElement {
  const pair = [variable(identifier), base('float', answer.value)]
  const { near } = answer
  switch (near.by) {
    case 'absolute':
      return element('equal', { toleranceMode: 'absolute', tolerance: `${near.tolerance} ${near.tolerance}` }, pair)
    case 'relative':
      return element(
        'equal',
        {
          toleranceMode: 'relative',
          tolerance: `${decimal(exact(near.tolerance).mul(100))} ${decimal(exact(near.tolerance).mul(100))}`,
        },
        pair,
      )
    case 'figures':
      return element('equalRounded', { roundingMode: 'significantFigures', figures: near.digits }, pair)
    case 'decimals':
      return element('equalRounded', { roundingMode: 'decimalPlaces', figures: near.digits }, pair)
  }
}

function number(question: Extract<Question, { kind: 'number' }>): Parts {
  const { answers, label, unit } = question.body
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'single',
        'float',
        answers
          .filter((answer) => answer.credit === 1)
          .slice(0, 1)
          .map((answer) => answer.value),
      ),
    ],
    body: [
      ...stem(question),
      element(
        'p',
        {},
        label ? `${label} ` : null,
        element('textEntryInteraction', { responseIdentifier: 'RESPONSE', expectedLength: 12 }),
        unit ? ` ${unit}` : null,
      ),
    ],
    processing: firstOf(
      [...answers]
        .sort((a, b) => b.credit - a.credit)
        .map((answer) => ({ condition: isNumber(answer, 'RESPONSE'), score: answer.credit })),
    ),
  }
}

type TextAnswer = Extract<Question, { kind: 'text' }>['body']['answers'][number]
const literal = (text: string) => text.replace(/[\\^$.|?*+()[\]{}]/g, '\\$&')
const patterns = {
  is: (text: string) => literal(text),
  begins: (text: string) => `${literal(text)}.*`,
  contains: (text: string) => `.*${literal(text)}.*`,
  ends: (text: string) => `.*${literal(text)}`,
  matches: (text: string) => text,
}
/** Without regard to case, each letter in both cases: QTI's patterns know no flag for it. */
const eitherCase = (pattern: string) =>
  pattern.replace(
    /(\\.)|(\p{L})/gu,
    (_whole, escaped: string | undefined, letter: string | undefined) =>
      escaped ??
      (letter!.toLowerCase() === letter!.toUpperCase()
        ? letter!
        : `[${letter!.toLowerCase()}${letter!.toUpperCase()}]`),
  )
const isText = (answer: TextAnswer, caseMatters: boolean, identifier: string) =>
  element(
    'patternMatch',
    {
      pattern:
        caseMatters || answer.how === 'matches'
          ? patterns[answer.how](answer.text)
          : eitherCase(patterns[answer.how](answer.text)),
    },
    variable(identifier),
  )

function text(question: Extract<Question, { kind: 'text' }>): Parts {
  const { answers, caseMatters, label, longest } = question.body
  const whole = answers.every((answer) => answer.how === 'is')
  const entries = answers.map((answer): [string, number] => [answer.text, answer.credit])
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'single',
        'string',
        answers
          .filter((answer) => answer.credit === 1 && answer.how !== 'matches')
          .slice(0, 1)
          .map((answer) => answer.text),
        whole ? mapping(entries, { caseSensitive: caseMatters }) : null,
      ),
    ],
    body: [
      ...stem(question),
      element(
        'p',
        {},
        label ? `${label} ` : null,
        element('textEntryInteraction', { responseIdentifier: 'RESPONSE', expectedLength: longest }),
      ),
    ],
    processing: whole
      ? element('responseProcessing', { template: 'map_response' })
      : firstOf(
          [...answers]
            .sort((a, b) => b.credit - a.credit)
            .map((answer) => ({ condition: isText(answer, caseMatters, 'RESPONSE'), score: answer.credit })),
        ),
  }
}

function gaps(question: Extract<Question, { kind: 'gaps' }>): Parts {
  const { gaps: all } = question.body
  const weights = all.reduce((sum, gap) => sum + gap.weight, 0)
  const byId = new Map(all.map((gap) => [gap.id, gap]))
  const body = mapElements(parseHtml(question.body.text), (node) => {
    const gap = byId.get(node.attributes['data-gap'] ?? '')
    if (!gap) return node
    return gap.as === 'list'
      ? element(
          'inlineChoiceInteraction',
          { responseIdentifier: gap.id, shuffle: !gap.body.inOrder },
          gap.body.options.map((option) =>
            element('inlineChoice', { identifier: option.id }, option.html.replace(/<[^>]+>/g, '')),
          ),
        )
      : element('textEntryInteraction', { responseIdentifier: gap.id, expectedLength: 12 })
  })
  const declarations = all.map((gap) =>
    gap.as === 'list'
      ? declaration(
          gap.id,
          'single',
          'identifier',
          gap.body.options
            .filter((option) => option.credit === 1)
            .map((option) => option.id)
            .slice(0, 1),
          mapping(gap.body.options.map((option) => [option.id, option.credit])),
        )
      : gap.as === 'text'
        ? declaration(
            gap.id,
            'single',
            'string',
            gap.body.answers.slice(0, 1).map((answer) => answer.text),
            mapping(
              gap.body.answers.map((answer) => [answer.text, answer.credit]),
              { caseSensitive: gap.body.caseMatters },
            ),
          )
        : declaration(
            gap.id,
            'single',
            'float',
            gap.body.answers.slice(0, 1).map((answer) => answer.value),
          ),
  )
  // Each gap adds its part, by its weight among all.
  const add = (gap: (typeof all)[number]) => {
    const part = (expression: XmlElement) =>
      outcome(
        element(
          'sum',
          {},
          variable('SCORE'),
          element('product', {}, expression, base('float', decimal(exact(gap.weight).div(exact(weights))))),
        ),
      )
    return gap.as === 'number'
      ? element(
          'responseCondition',
          {},
          element('responseIf', {}, isNumber(gap.body.answers[0]!, gap.id), part(base('float', 1))),
        )
      : part(element('mapResponse', { identifier: gap.id }))
  }
  return {
    declarations,
    body: [...stem(question), element('div', {}, body)],
    processing: element('responseProcessing', {}, all.map(add)),
  }
}

function pairs(question: Extract<Question, { kind: 'matching' | 'sorting' }>): Parts {
  const { items, targets, wrongCost } = question.body
  const belonging = items.filter((item) => item.target !== null)
  const worth = decimal(`1/${Math.max(1, belonging.length)}`)
  const choices = (entries: { id: string; html: string }[], mark: string, matchMax: number) =>
    element(
      'simpleMatchSet',
      {},
      entries.map((entry) =>
        element('simpleAssociableChoice', { identifier: mark + entry.id, matchMax }, parseHtml(entry.html)),
      ),
    )
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'multiple',
        'directedPair',
        belonging.map((item) => `i_${item.id} t_${item.target!}`),
        mapping(
          belonging.map((item) => [`i_${item.id} t_${item.target!}`, worth]),
          { lower: 0, wrong: decimal(exact(worth).mul(exact(wrongCost)).neg()) },
        ),
      ),
    ],
    body: [
      element(
        'matchInteraction',
        { responseIdentifier: 'RESPONSE', shuffle: true, maxAssociations: items.length },
        prompt(question),
        choices(items, 'i_', 1),
        choices(targets, 't_', question.kind === 'matching' ? 1 : 0),
      ),
    ],
    processing: element('responseProcessing', { template: 'map_response' }),
  }
}

function ordering(question: Extract<Question, { kind: 'ordering' }>): Parts {
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'ordered',
        'identifier',
        question.body.items.map((item) => item.id),
      ),
    ],
    body: [
      element(
        'orderInteraction',
        {
          responseIdentifier: 'RESPONSE',
          shuffle: true,
          orientation: question.body.layout === 'row' ? 'horizontal' : 'vertical',
        },
        prompt(question),
        question.body.items.map((item) => element('simpleChoice', { identifier: item.id }, parseHtml(item.html))),
      ),
    ],
    processing: element('responseProcessing', { template: 'match_correct' }),
  }
}

function area(shape: Shape): { shape: string; coords: string } {
  switch (shape.is) {
    case 'circle':
      return { shape: 'circle', coords: [shape.x, shape.y, shape.r].join(',') }
    case 'rectangle':
      return { shape: 'rect', coords: [shape.x, shape.y, shape.x + shape.width, shape.y + shape.height].join(',') }
    case 'polygon':
      return { shape: 'poly', coords: shape.points.flatMap(({ x, y }) => [x, y]).join(',') }
  }
}

function spot(question: Extract<Question, { kind: 'spot' }>): Parts {
  const { regions, spots, picture, alt, width, height, by, wrongCost } = question.body
  const image = element('object', { type: 'image/png', data: picture, width, height }, alt)
  const right = regions.filter((region) => region.right)
  const worth = decimal(`1/${Math.max(1, Math.min(spots, right.length))}`)
  if (by === 'place') {
    return {
      declarations: [
        declaration(
          'RESPONSE',
          spots === 1 ? 'single' : 'multiple',
          'identifier',
          right.map((region) => region.id).slice(0, spots),
          mapping(
            right.map((region) => [region.id, worth]),
            { lower: 0, upper: 1, wrong: decimal(exact(worth).mul(exact(wrongCost)).neg()) },
          ),
        ),
      ],
      body: [
        element(
          'hotspotInteraction',
          { responseIdentifier: 'RESPONSE', maxChoices: spots },
          prompt(question),
          image,
          regions.map((region) =>
            element('hotspotChoice', { identifier: region.id, ...area(region.shape), hotspotLabel: region.label }),
          ),
        ),
      ],
      processing: element('responseProcessing', { template: 'map_response' }),
    }
  }
  return {
    declarations: [
      element(
        'responseDeclaration',
        { identifier: 'RESPONSE', cardinality: spots === 1 ? 'single' : 'multiple', baseType: 'point' },
        element(
          'areaMapping',
          { lowerBound: 0, upperBound: 1, defaultValue: decimal(exact(worth).mul(exact(wrongCost)).neg()) },
          right.map((region) => element('areaMapEntry', { ...area(region.shape), mappedValue: worth })),
        ),
      ),
    ],
    body: [
      element('selectPointInteraction', { responseIdentifier: 'RESPONSE', maxChoices: spots }, prompt(question), image),
    ],
    processing: element('responseProcessing', { template: 'map_response_point' }),
  }
}

function byHand(question: Extract<Question, { kind: 'written' | 'short' | 'recording' }>): Parts {
  const rubric = [
    ...question.body.rubric.map((line) =>
      element('p', {}, `${line.title} (${line.share} %)${line.words ? `: ${line.words}` : ''}`),
    ),
    ...(question.body.model ? [element('p', {}, question.body.model)] : []),
  ]
  const interaction =
    question.kind === 'written'
      ? element(
          'extendedTextInteraction',
          { responseIdentifier: 'RESPONSE', expectedLength: question.body.longest, expectedLines: question.body.lines },
          prompt(question),
        )
      : question.kind === 'recording'
        ? element('uploadInteraction', { responseIdentifier: 'RESPONSE', type: 'audio/webm' }, prompt(question))
        : element(
            'p',
            {},
            question.body.label ? `${question.body.label} ` : null,
            element('textEntryInteraction', { responseIdentifier: 'RESPONSE', expectedLength: question.body.longest }),
          )
  return {
    declarations: [declaration('RESPONSE', 'single', question.kind === 'recording' ? 'file' : 'string', [])],
    body: [
      ...(question.kind === 'short' ? stem(question) : []),
      interaction,
      rubric.length ? element('rubricBlock', { view: 'scorer' }, rubric) : '',
    ].filter((part) => part !== ''),
    processing: null,
  }
}

function partsOf(question: Question): Parts {
  switch (question.kind) {
    case 'choice':
    case 'trueFalse':
    case 'yesNo':
      return choice(question)
    case 'choices':
      return choices(question)
    case 'number':
      return number(question)
    case 'text':
      return text(question)
    case 'gaps':
      return gaps(question)
    case 'matching':
    case 'sorting':
      return pairs(question)
    case 'ordering':
      return ordering(question)
    case 'spot':
      return spot(question)
    case 'written':
    case 'short':
    case 'recording':
      return byHand(question)
  }
}

/** Maths as MathML is in no question's own text; its TeX travels in words between dollar signs, which every reader shows. */
const portable = (tree: XmlElement): XmlElement => ({
  ...tree,
  children: mapElements(tree.children, (node) =>
    node.attributes['data-latex'] !== undefined ? element('span', {}, `$${node.attributes['data-latex']}$`) : node,
  ),
})

/**
 * One question as an assessment item (1EdTech QTI). One that varies becomes an item with a template.
 * @param shared the stimulus that it refers to (2.2 and 3.0)
 * @throws NotSayable | ExpressionError where QTI cannot say how it varies: write an instance then
 */
export function writeItem(
  question: Question,
  identifier: string,
  version: QtiVersion,
  shared?: { identifier: string; href: string },
): XmlElement {
  const { declarations, body, processing } = partsOf(question)
  const outcomes = [
    element(
      'outcomeDeclaration',
      { identifier: 'SCORE', cardinality: 'single', baseType: 'float', normalMaximum: version === '2.1' ? null : 1 },
      element('defaultValue', {}, value(0)),
    ),
  ]
  const feedback = (
    [
      ['right', question.comments.right],
      ['wrong', question.comments.wrong],
      ['general', question.comments.general],
    ] as const
  ).filter(([, html]) => html)
  if (feedback.length || JSON.stringify(body).includes('feedbackInline'))
    outcomes.push(
      element('outcomeDeclaration', { identifier: 'FEEDBACK', cardinality: 'multiple', baseType: 'identifier' }),
    )
  const template = processing?.attributes.template
  if (template) processing!.attributes.template = templates(version, template as 'map_response')
  const tree = element(
    'assessmentItem',
    {
      identifier: identifier,
      title: question.internalName || kindOf(question.kind).label,
      adaptive: false,
      timeDependent: false,
      'xml:lang': question.language,
      toolName: 'Thistle',
      toolVersion: '1',
    },
    declarations,
    outcomes,
    shared ? element('assessmentStimulusRef', shared) : null,
    element('itemBody', {}, body),
    processing,
    feedback.map(([name, html]) =>
      element('modalFeedback', { outcomeIdentifier: 'FEEDBACK', identifier: name, showHide: 'show' }, parseHtml(html)),
    ),
  )
  const portableTree = portable(tree)
  const finished = question.vary ? withTemplate(portableTree, question.vary) : portableTree
  const named = version === '3.0' ? toVersion3(finished) : finished
  return { ...named, attributes: { xmlns: namespaces[version], ...named.attributes } }
}

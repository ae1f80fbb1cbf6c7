import { blankQuestion, type KindName, type Question } from '../../core/question'
import type { Nearness } from '../../core/question/kinds/number'
import type { Vary } from '../../core/question/vary/schema'
import type { Shape } from '../../core/kit/shapes'
import { languageCode } from '../../core/question/language'
import { UnreadableFile } from '../bundle'
import { withMaths } from '../html'
import { childOf, childrenOf, isElement, textOf, within, type XmlElement } from '../xml'
import { mapElements, toHtml } from './html'
import { withoutTemplate } from './template-read'

/** What was read of an item, and what of it has no place in Thistle. */
export interface ReadItem {
  question: Question
  identifier: string
  notes: string[]
}

interface Declaration {
  identifier: string
  cardinality: string
  baseType: string
  correct: string[]
  mapping: Mapping | null
  areas: { shape: Shape; value: number }[]
  wrong: number
}
interface Mapping {
  entries: { key: string; value: number; caseSensitive: boolean }[]
  lower: number | null
  upper: number | null
  wrong: number
}

const numeric = (text: string | undefined, usual = 0) =>
  text === undefined || text === '' || Number.isNaN(Number(text)) ? usual : Number(text)
const hundredths = (value: number) => Math.round(value * 100) / 100
const refuse = (sentence: string): never => {
  throw new UnreadableFile(sentence)
}

function shapeOf(node: XmlElement): Shape | null {
  const numbers = (node.attributes.coords ?? '').split(/[\s,]+/).map(Number)
  if (numbers.some((each) => !Number.isFinite(each) || each < 0)) return null
  const [a, b, c, d] = numbers as [number, number, number, number]
  switch (node.attributes.shape) {
    case 'circle':
      return numbers.length === 3 ? { is: 'circle', x: a, y: b, r: Math.max(1, c) } : null
    case 'rect':
      return numbers.length === 4
        ? { is: 'rectangle', x: a, y: b, width: Math.max(1, c - a), height: Math.max(1, d - b) }
        : null
    case 'poly':
      return numbers.length >= 6 && numbers.length % 2 === 0
        ? { is: 'polygon', points: numbers.flatMap((x, i) => (i % 2 ? [] : [{ x, y: numbers[i + 1]! }])) }
        : null
    default:
      return null
  }
}

function declarationOf(node: XmlElement): Declaration {
  const mapping = childOf(node, 'mapping')
  const areas = childOf(node, 'areaMapping')
  const correct = childOf(node, 'correctResponse')
  return {
    identifier: node.attributes.identifier ?? 'RESPONSE',
    cardinality: node.attributes.cardinality ?? 'single',
    baseType: node.attributes.baseType ?? 'identifier',
    correct: correct ? childrenOf(correct, 'value').map((each) => textOf(each).trim()) : [],
    mapping: mapping
      ? {
          entries: childrenOf(mapping, 'mapEntry').map((entry) => ({
            key: entry.attributes.mapKey ?? '',
            value: numeric(entry.attributes.mappedValue),
            caseSensitive: entry.attributes.caseSensitive !== 'false',
          })),
          lower: mapping.attributes.lowerBound === undefined ? null : numeric(mapping.attributes.lowerBound),
          upper: mapping.attributes.upperBound === undefined ? null : numeric(mapping.attributes.upperBound),
          wrong: numeric(mapping.attributes.defaultValue),
        }
      : null,
    areas: areas
      ? childrenOf(areas, 'areaMapEntry').flatMap((entry) => {
          const shape = shapeOf(entry)
          return shape ? [{ shape, value: numeric(entry.attributes.mappedValue) }] : []
        })
      : [],
    wrong: numeric(areas?.attributes.defaultValue),
  }
}

const interactions = [
  'choiceInteraction',
  'textEntryInteraction',
  'inlineChoiceInteraction',
  'matchInteraction',
  'gapMatchInteraction',
  'orderInteraction',
  'hotspotInteraction',
  'selectPointInteraction',
  'extendedTextInteraction',
  'uploadInteraction',
  'associateInteraction',
  'hottextInteraction',
  'graphicOrderInteraction',
  'graphicAssociateInteraction',
  'graphicGapMatchInteraction',
  'positionObjectInteraction',
  'sliderInteraction',
  'drawingInteraction',
  'mediaInteraction',
  'customInteraction',
  'portableCustomInteraction',
  'endAttemptInteraction',
]
const known = new Set([
  'choiceInteraction',
  'textEntryInteraction',
  'inlineChoiceInteraction',
  'matchInteraction',
  'gapMatchInteraction',
  'orderInteraction',
  'hotspotInteraction',
  'selectPointInteraction',
  'extendedTextInteraction',
  'uploadInteraction',
])

/** HTML of a part, without what belongs to interactions, feedback and scorers. */
const htmlOf = (nodes: readonly (XmlElement | string)[]) =>
  withMaths(
    toHtml(
      mapElements(nodes, (node) =>
        interactions.includes(node.name) ||
        node.name === 'prompt' ||
        node.name.startsWith('feedback') ||
        node.name === 'rubricBlock' ||
        node.name === 'stylesheet'
          ? null
          : node,
      ),
    ),
  )
    .replace(/^<div>([\s\S]*)<\/div>$/, '$1')
    .replace(/<(p|div|span)>\s*<\/\1>/g, '')
    .trim()
const inlineHtml = (node: XmlElement) => {
  const html = htmlOf(node.children)
  return html.replace(/^<p>([^<]*)<\/p>$/, '$1')
}
const feedbackOf = (node: XmlElement) =>
  childrenOf(node, 'feedbackInline')
    .map((each) => toHtml(each.children))
    .join('')

interface Context {
  item: XmlElement
  body: XmlElement
  declarations: Map<string, Declaration>
  notes: string[]
}
type Found = Pick<Question, 'kind' | 'body'>

const declared = (context: Context, node: XmlElement): Declaration =>
  context.declarations.get(node.attributes.responseIdentifier ?? '') ??
  refuse('An interaction answers a response that is not declared.')

function choiceOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const right = new Set(response.correct)
  const inOrder = node.attributes.shuffle !== 'true'
  const choices = childrenOf(node, 'simpleChoice').map((each, i) => ({
    id: idOf(each, i),
    written: each.attributes.identifier ?? '',
    html: inlineHtml(each),
    comment: feedbackOf(each),
    fixed: each.attributes.fixed === 'true',
  }))
  if (choices.length < 2) return refuse('A choice has fewer than two options.')
  const mapped = (id: string) =>
    response.mapping?.entries.find((entry) => entry.key === id)?.value ?? response.mapping?.wrong ?? 0
  if (response.cardinality === 'multiple') {
    const positive = response.mapping?.entries.filter((entry) => entry.value > 0) ?? []
    const isRight = (id: string) => (right.size ? right.has(id) : mapped(id) > 0)
    const rule = !response.mapping
      ? ('all' as const)
      : isShare(
            response,
            choices.map((each) => each.written),
          )
        ? ('share' as const)
        : ('credits' as const)
    const { lower, upper } = response.mapping ?? { lower: 0, upper: null }
    if (response.mapping && !positive.length) context.notes.push('No option adds to the score.')
    return {
      kind: 'choices',
      body: {
        rule,
        inOrder,
        layout: 'list',
        lower: rule === 'credits' ? Math.min(0, lower ?? -100) : 0,
        upper: rule === 'credits' ? upper : null,
        tellHowMany: Number(node.attributes.maxChoices ?? 0) > 0 && Number(node.attributes.maxChoices) === right.size,
        options: choices.map(({ written, ...each }) => ({
          ...each,
          fixed: each.fixed && !inOrder,
          right: isRight(written),
          credit: rule === 'credits' ? hundredths(mapped(written)) : isRight(written) ? 1 : -1,
        })),
      },
    } as Found
  }
  const most = Math.max(0, ...(response.mapping?.entries.map((entry) => entry.value) ?? []))
  const credit = (id: string) =>
    response.mapping && most > 0 ? Math.max(-1, hundredths(mapped(id) / most)) : right.has(id) ? 1 : 0
  return {
    kind: presetOf(choices),
    body: {
      inOrder,
      layout: 'list',
      options: choices.map(({ written, ...each }) => ({
        ...each,
        fixed: each.fixed && !inOrder,
        credit: credit(written),
      })),
    },
  } as Found
}

/** True/false and yes/no are choices between just these. */
function presetOf(choices: { html: string }[]): KindName {
  const words = choices
    .map((each) =>
      each.html
        .toLowerCase()
        .replace(/<[^>]+>/g, '')
        .trim(),
    )
    .join(' ')
  return words === 'true false' ? 'trueFalse' : words === 'yes no' ? 'yesNo' : 'choice'
}

/** A mapping that is "right less wrong share" written out: 1/R for each right, −1/W for each wrong, from 0 to 1. */
function isShare({ mapping, correct }: Declaration, ids: string[]): boolean {
  if (!mapping || mapping.lower !== 0 || mapping.upper !== 1 || !correct.length) return false
  const wrong = ids.length - correct.length
  return ids.every((id) => {
    const value = mapping.entries.find((entry) => entry.key === id)?.value ?? mapping.wrong
    return Math.abs(value - (correct.includes(id) ? 1 / correct.length : -1 / Math.max(1, wrong))) < 1e-4
  })
}

const idOf = (node: XmlElement, i: number) => {
  const written = node.attributes.identifier ?? ''
  return /^[a-zA-Z0-9_-]{1,24}$/.test(written) ? written : `c${i + 1}`
}

function nearness(node: XmlElement): Nearness {
  if (node.name === 'equalRounded')
    return node.attributes.roundingMode === 'decimalPlaces'
      ? { by: 'decimals', digits: numeric(node.attributes.figures) }
      : { by: 'figures', digits: numeric(node.attributes.figures, 3) }
  const [tolerance = '0'] = (node.attributes.tolerance ?? '0').split(/\s+/)
  const plain = /^\d{1,15}(\.\d{1,15})?$/.test(tolerance) ? tolerance : '0'
  return node.attributes.toleranceMode === 'relative'
    ? { by: 'relative', tolerance: String(Math.round(Number(plain) * 1e10) / 1e12) }
    : { by: 'absolute', tolerance: node.attributes.toleranceMode === 'absolute' ? plain : '0' }
}

/** The conditions of a response's own processing, with what each sets. */
function conditionsFor(context: Context, identifier: string): { node: XmlElement; score: number }[] {
  const processing = childOf(context.item, 'responseProcessing')
  if (!processing) return []
  return [...within(processing, 'responseIf'), ...within(processing, 'responseElseIf')].flatMap((branch) => {
    const [condition] = childrenOf(branch)
    if (
      !condition ||
      !within({ name: '', attributes: {}, children: [condition] }, 'variable').some(
        (each) => each.attributes.identifier === identifier,
      )
    )
      return []
    const set = within(branch, 'setOutcomeValue')[0]
    return [{ node: condition, score: set ? numeric(textOf(set).trim(), 1) : 1 }]
  })
}

const asDecimal = (text: string): string =>
  /^(?:\{=[^{}]{1,210}\})$/.test(text.trim())
    ? text.trim()
    : /^-?\d{1,15}(\.\d{1,15})?$/.test(text.trim())
      ? text.trim()
      : Number.isFinite(Number(text)) && text.trim() !== ''
        ? String(Number(text))
        : refuse(`“${text.slice(0, 30)}” is not a number.`)

function numberBody(context: Context, response: Declaration): Extract<Question, { kind: 'number' }>['body'] {
  const blank = blankQuestion('number').body as Extract<Question, { kind: 'number' }>['body']
  const conditions = conditionsFor(context, response.identifier).filter(
    ({ node }) => node.name === 'equal' || node.name === 'equalRounded',
  )
  const most = Math.max(1e-9, ...conditions.map((each) => each.score))
  const answers = conditions.map(({ node, score }) => {
    const literal = within(node, 'baseValue')[0]
    return {
      value: asDecimal(literal ? textOf(literal) : (response.correct[0] ?? '')),
      near: nearness(node),
      credit: hundredths(Math.min(1, Math.max(0, score / most))),
      comment: '',
    }
  })
  if (answers.length) return { ...blank, answers }
  if (response.mapping?.entries.length)
    return {
      ...blank,
      answers: response.mapping.entries.map((entry) => ({
        value: asDecimal(entry.key),
        near: { by: 'absolute', tolerance: '0' },
        credit: hundredths(Math.min(1, Math.max(0, entry.value))),
        comment: '',
      })),
    }
  return {
    ...blank,
    answers: [
      { value: asDecimal(response.correct[0] ?? ''), near: { by: 'absolute', tolerance: '0' }, credit: 1, comment: '' },
    ],
  }
}

/** A pattern that says no more than "is", "begins with", "contains" or "ends with" is read as that. */
function spoken(pattern: string): { how: 'is' | 'begins' | 'contains' | 'ends' | 'matches'; text: string } {
  const folded = pattern.replace(/\[(\p{L})(\p{L})\]/gu, (whole, a: string, b: string) =>
    a.toLowerCase() === b.toLowerCase() ? a : whole,
  )
  const literal = (part: string) =>
    /^(?:\\[\\^$.|?*+()[\]{}]|[^\\^$.|?*+()[\]{}])*$/.test(part) ? part.replace(/\\(.)/g, '$1') : null
  const found = /^(\.\*)?([\s\S]*?)(\.\*)?$/.exec(folded)!
  const text = literal(found[2]!)
  if (text === null || text === '') return { how: 'matches', text: pattern.slice(0, 200) }
  return { how: found[1] ? (found[3] ? 'contains' : 'ends') : found[3] ? 'begins' : 'is', text }
}

function textBody(context: Context, response: Declaration): Extract<Question, { kind: 'text' }>['body'] {
  const blank = blankQuestion('text').body as Extract<Question, { kind: 'text' }>['body']
  const patterns = conditionsFor(context, response.identifier).filter(
    ({ node }) => node.name === 'patternMatch' || node.name === 'stringMatch',
  )
  const most = Math.max(
    1e-9,
    ...patterns.map((each) => each.score),
    ...(response.mapping?.entries.map((entry) => entry.value) ?? []),
  )
  const credit = (score: number) => hundredths(Math.min(1, Math.max(0, score / most)))
  if (response.mapping?.entries.length)
    return {
      ...blank,
      caseMatters: response.mapping.entries.some((entry) => entry.caseSensitive),
      answers: response.mapping.entries
        .slice(0, 40)
        .map((entry) => ({ how: 'is', text: entry.key.slice(0, 200), credit: credit(entry.value), comment: '' })),
    }
  if (patterns.length) {
    return {
      ...blank,
      caseMatters: patterns.some(({ node }) =>
        node.name === 'patternMatch'
          ? !/\[(\p{L})\p{L}\]/u.test(node.attributes.pattern ?? '')
          : node.attributes.caseSensitive === 'true',
      ),
      answers: patterns.slice(0, 40).map(({ node, score }) => ({
        ...(node.name === 'patternMatch'
          ? spoken(node.attributes.pattern ?? '')
          : {
              how: node.attributes.substring === 'true' ? ('contains' as const) : ('is' as const),
              text: textOf(within(node, 'baseValue')[0] ?? node)
                .trim()
                .slice(0, 200),
            }),
        credit: credit(score),
        comment: '',
      })),
    }
  }
  if (!response.correct.length) return refuse('The answer has no key that can be read.')
  return {
    ...blank,
    answers: response.correct.map((text) => ({ how: 'is', text: text.slice(0, 200), credit: 1, comment: '' })),
  }
}

const isNumeric = (response: Declaration) => response.baseType === 'float' || response.baseType === 'integer'

function gapsOf(context: Context): Found {
  let n = 0
  const gaps: unknown[] = []
  const nodes = mapElements(context.body.children, (node) => {
    if (node.name !== 'textEntryInteraction' && node.name !== 'inlineChoiceInteraction') return node
    const response = declared(context, node)
    const id = `g${++n}`
    if (node.name === 'inlineChoiceInteraction') {
      const { kind: _kind, body } = choiceOf(context, {
        ...node,
        children: childrenOf(node, 'inlineChoice').map((each) => ({ ...each, name: 'simpleChoice' })),
      })
      gaps.push({ id, weight: weightOf(context, response.identifier), as: 'list', body })
    } else
      gaps.push({
        id,
        weight: weightOf(context, response.identifier),
        as: isNumeric(response) ? 'number' : 'text',
        body: isNumeric(response) ? numberBody(context, response) : textBody(context, response),
      })
    return { name: 'span', attributes: { 'data-gap': id }, children: [] }
  })
  const html = htmlOf(nodes)
  return { kind: 'gaps', body: { text: html, gaps } } as Found
}

/** What a gap counts: the factor that its part of the sum is multiplied by, in hundredths. */
function weightOf(context: Context, identifier: string): number {
  const processing = childOf(context.item, 'responseProcessing')
  const product =
    processing &&
    within(processing, 'product').find((each) =>
      within(each, 'mapResponse').some((mapped) => mapped.attributes.identifier === identifier),
    )
  const factor = product && childrenOf(product, 'baseValue')[0]
  const outer =
    !product && processing
      ? within(processing, 'responseCondition').find((each) =>
          within(each, 'variable').some((used) => used.attributes.identifier === identifier),
        )
      : undefined
  const literal =
    factor ??
    (outer && within(outer, 'product')[0] ? childrenOf(within(outer, 'product')[0]!, 'baseValue').at(-1) : undefined)
  const weight = literal ? numeric(textOf(literal).trim(), 0) : 0
  return weight > 0 ? Math.max(0.01, hundredths(weight)) : 1
}

function pairsOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const [left, right] = childrenOf(node, 'simpleMatchSet').map((set) => childrenOf(set, 'simpleAssociableChoice'))
  if (!left || !right) return refuse('A matching lacks one of its sides.')
  const strip = (id: string, mark: string) => (id.startsWith(mark) ? id.slice(mark.length) : id)
  const named = (choices: XmlElement[], mark: string) =>
    choices.map((each, i) => ({
      written: each.attributes.identifier ?? '',
      id: /^[a-zA-Z0-9_-]{1,24}$/.test(strip(each.attributes.identifier ?? '', mark))
        ? strip(each.attributes.identifier ?? '', mark)
        : `${mark}${i}`,
      html: inlineHtml(each),
    }))
  const [items, targets] = [named(left, 'i_'), named(right, 't_')]
  const rightPairs = response.correct.length
    ? response.correct
    : (response.mapping?.entries.filter((entry) => entry.value > 0).map((entry) => entry.key) ?? [])
  const targetOf = (item: string) =>
    targets.find((target) => rightPairs.includes(`${item} ${target.written}`))?.id ?? null
  const once = right.every((each) => each.attributes.matchMax === '1')
  const worths = response.mapping?.entries.filter((entry) => entry.value > 0).map((entry) => entry.value) ?? []
  if (new Set(worths).size > 1) context.notes.push('Its pairs weigh differently; here each counts the same.')
  const worth = worths[0] ?? 1
  return {
    kind: once ? 'matching' : 'sorting',
    body: {
      wrongCost: hundredths(Math.min(1, Math.max(0, -(response.mapping?.wrong ?? 0) / worth))),
      items: items.map(({ id, html, written }) => ({ id, html, comment: '', target: targetOf(written) })),
      targets: targets.map(({ id, html }) => ({ id, html })),
    },
  } as Found
}

/** Words that are drawn into gaps: a list in each gap holds all of them. */
function gapMatchOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const words = childrenOf(node, 'gapText').map((each, i) => ({
    written: each.attributes.identifier ?? '',
    id: idOf(each, i),
    html: inlineHtml(each),
  }))
  if (!words.length) return refuse('Pictures that are drawn into gaps have no like here.')
  if ((response.mapping?.wrong ?? 0) < 0) context.notes.push('A wrong word takes nothing away here.')
  const gaps: unknown[] = []
  const text = mapElements(
    node.children.filter((child) => !isElement(child) || (child.name !== 'gapText' && child.name !== 'prompt')),
    (child) => {
      if (child.name !== 'gap') return child
      const written = child.attributes.identifier ?? ''
      const value = (word: string) =>
        response.mapping?.entries.find((entry) => entry.key === `${word} ${written}`)?.value ??
        (response.correct.includes(`${word} ${written}`) ? 1 : 0)
      const most = Math.max(0, ...words.map((word) => value(word.written)))
      const id = `g${gaps.length + 1}`
      gaps.push({
        id,
        weight: most > 0 ? hundredths(most) : 1,
        as: 'list',
        body: {
          ...blankQuestion('choice').body,
          inOrder: false,
          options: words.map(({ written: word, ...each }) => ({
            ...each,
            comment: '',
            fixed: false,
            credit: most > 0 ? hundredths(Math.max(0, value(word)) / most) : 0,
          })),
        },
      })
      return { name: 'span', attributes: { 'data-gap': id }, children: [] }
    },
  )
  if (!gaps.length) return refuse('There is no gap in its text.')
  return { kind: 'gaps', body: { text: htmlOf(text), gaps } } as Found
}

function orderingOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const choices = childrenOf(node, 'simpleChoice').map((each, i) => ({
    written: each.attributes.identifier ?? '',
    id: idOf(each, i),
    html: inlineHtml(each),
    comment: '',
  }))
  const items = response.correct
    .flatMap((id) => choices.filter((each) => each.written === id))
    .map(({ written: _written, ...each }) => each)
  if (items.length < choices.length) return refuse('The right order does not name every line.')
  return {
    kind: 'ordering',
    body: { items, rule: 'exact', layout: node.attributes.orientation === 'horizontal' ? 'row' : 'list' },
  } as Found
}

function spotOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const picture = [...childrenOf(node, 'object'), ...childrenOf(node, 'img')][0]
  if (!picture) return refuse('There is no picture to mark.')
  const spots = Math.max(1, Math.min(20, numeric(node.attributes.maxChoices, 1) || 1))
  const place = node.name === 'hotspotInteraction'
  const worth =
    (place
      ? response.mapping?.entries.find((entry) => entry.value > 0)?.value
      : response.areas.find((each) => each.value > 0)?.value) ?? 1
  const rightIds = new Set(
    response.correct.length
      ? response.correct
      : response.mapping?.entries.filter((entry) => entry.value > 0).map((entry) => entry.key),
  )
  const regions = place
    ? childrenOf(node, 'hotspotChoice').flatMap((each, i) => {
        const shape = shapeOf(each)
        return shape
          ? [
              {
                id: idOf(each, i),
                shape,
                right: rightIds.has(each.attributes.identifier ?? ''),
                label: each.attributes.hotspotLabel ?? `Place ${i + 1}`,
                comment: '',
              },
            ]
          : []
      })
    : response.areas.map((each, i) => ({
        id: `r${i + 1}`,
        shape: each.shape,
        right: each.value > 0,
        label: '',
        comment: '',
      }))
  return {
    kind: 'spot',
    body: {
      picture: picture.attributes.data ?? picture.attributes.src ?? '',
      alt: picture.attributes.alt ?? textOf(picture).trim(),
      width: numeric(picture.attributes.width),
      height: numeric(picture.attributes.height),
      by: place ? 'place' : 'point',
      spots,
      wrongCost: hundredths(
        Math.min(1, Math.max(0, -(place ? (response.mapping?.wrong ?? 0) : response.wrong) / worth)),
      ),
      regions,
    },
  } as Found
}

function byHandOf(context: Context, node: XmlElement): Found {
  const scorer = within(context.item, 'rubricBlock').map(textOf).join('\n').trim()
  if (node.name === 'uploadInteraction') {
    if (!(node.attributes.type ?? '').startsWith('audio'))
      return refuse('Files other than sound cannot be answers here.')
    return { kind: 'recording', body: { ...blankQuestion('recording').body, model: scorer } } as Found
  }
  const longest = Math.min(20_000, Math.max(1, numeric(node.attributes.expectedLength, 5000)))
  return node.name === 'extendedTextInteraction'
    ? ({
        kind: 'written',
        body: {
          rubric: [],
          model: scorer,
          longest,
          lines: Math.min(40, Math.max(2, numeric(node.attributes.expectedLines, 8))),
        },
      } as Found)
    : ({ kind: 'short', body: { rubric: [], model: scorer, label: '', longest: Math.min(90, longest) } } as Found)
}

/** Kinds that are read by their key or mapping alone. */
const byKey = new Set<KindName>(['choice', 'choices', 'trueFalse', 'yesNo', 'matching', 'sorting', 'ordering', 'spot'])
/** Whether an item says in conditions of its own how it is scored, beside what the standard's templates say. */
function ownProcessing(item: XmlElement): boolean {
  const processing = childOf(item, 'responseProcessing')
  return (
    processing !== undefined &&
    processing.attributes.template === undefined &&
    within(processing, 'responseCondition').length > 0
  )
}

function found(context: Context, nodes: XmlElement[]): Found {
  const [first] = nodes as [XmlElement]
  const inline = nodes.every((node) => node.name === 'textEntryInteraction' || node.name === 'inlineChoiceInteraction')
  if (nodes.length > 1 && !inline)
    return refuse(`The item asks ${nodes.length} things at once, which one question here does not.`)
  if (nodes.length > 1 || first.name === 'inlineChoiceInteraction') return gapsOf(context)
  switch (first.name) {
    case 'choiceInteraction':
      return choiceOf(context, first)
    case 'matchInteraction':
      return pairsOf(context, first)
    case 'gapMatchInteraction':
      return gapMatchOf(context, first)
    case 'orderInteraction':
      return orderingOf(context, first)
    case 'hotspotInteraction':
    case 'selectPointInteraction':
      return spotOf(context, first)
    case 'textEntryInteraction': {
      const response = declared(context, first)
      if (!response.correct.length && !response.mapping && !conditionsFor(context, response.identifier).length)
        return byHandOf(context, first)
      return isNumeric(response)
        ? { kind: 'number', body: numberBody(context, response) }
        : { kind: 'text', body: textBody(context, response) }
    }
    default:
      return byHandOf(context, first)
  }
}

/** Reads an assessment item in the names of 2.x. @throws UnreadableFile with the reason why this item cannot be had */
export function readItemTree(tree: XmlElement): ReadItem {
  const notes: string[] = []
  const template = tree.name === 'assessmentItem' ? withoutTemplate(tree, notes) : null
  return readWhole(template?.item ?? tree, template?.vary ?? null, notes)
}

function readWhole(item: XmlElement, vary: Vary | null, notes: string[]): ReadItem {
  if (item.name !== 'assessmentItem') return refuse('This is not an assessment item.')
  const body = childOf(item, 'itemBody') ?? refuse('The item has no body.')
  if (item.attributes.adaptive === 'true')
    return refuse('Adaptive items, which take several answers in turn, have no like here.')
  const nodes = interactions.flatMap((name) => within(body, name))
  if (!nodes.length) return refuse('The item asks nothing.')
  const strange = nodes.find((node) => !known.has(node.name))
  if (strange) return refuse(`The interaction “${strange.name}” has no like here.`)
  const context: Context = {
    item,
    body,
    declarations: new Map(
      childrenOf(item, 'responseDeclaration')
        .map(declarationOf)
        .map((each) => [each.identifier, each]),
    ),
    notes,
  }
  const { kind, body: questionBody } = found(context, nodes)
  if (byKey.has(kind) && ownProcessing(item))
    context.notes.push('Its own processing of the response is left out: it is scored by its key.')
  const prompt = within(body, 'prompt')[0]
  const feedback = (name: string) =>
    childrenOf(item, 'modalFeedback')
      .filter((each) => each.attributes.identifier === name)
      .map((each) =>
        toHtml(
          each.children
            .filter((child) => !isElement(child) || child.name !== 'contentBody')
            .concat(childrenOf(each, 'contentBody').flatMap((each_) => each_.children)),
        ),
      )
      .join('')
  const others = childrenOf(item, 'modalFeedback').filter(
    (each) => !['right', 'wrong', 'general'].includes(each.attributes.identifier ?? ''),
  )
  if (others.length) context.notes.push('Feedback on single outcomes is kept as a comment in any case.')
  // A text with gaps is the body itself; only where words are drawn into it there is something around it.
  const stem =
    kind === 'gaps' && nodes[0]!.name !== 'gapMatchInteraction'
      ? ''
      : [htmlOf(body.children), prompt ? htmlOf(prompt.children) : ''].filter(Boolean).join('')
  const blank = blankQuestion(kind)
  const language = item.attributes.lang ?? 'en'
  const title = item.attributes.title ?? ''
  return {
    identifier: item.attributes.identifier ?? '',
    notes: context.notes,
    question: {
      ...blank,
      vary,
      stem,
      body: questionBody,
      language: languageCode.test(language) ? language : 'en',
      internalName: title.slice(0, 160),
      comments: {
        right: feedback('right'),
        wrong: feedback('wrong'),
        general: feedback('general') + others.map((each) => toHtml(each.children)).join(''),
      },
    } as Question,
  }
}

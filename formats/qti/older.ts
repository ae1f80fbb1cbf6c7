import { childOf, childrenOf, element, isElement, textOf, within, type XmlElement } from '../xml'
import { parseHtml } from '../html'

/**
 * Items of QTI 1.2 (IMS Question & Test Interoperability ASI information model, from memory), which packages of courses still
 * hold, put into the elements of 2.x: what reads and proves those reads and proves these. Conditions keep their order; each ends
 * the processing unless it says that it goes on.
 */

type Nodes = (XmlElement | string)[]
interface Response {
  identifier: string
  cardinality: 'single' | 'multiple' | 'ordered'
  baseType: 'identifier' | 'string' | 'float'
}

const groups = new Set(['flow', 'flow_mat', 'flow_label', 'material', 'presentation', 'render_extension'])

/** Words, markup, pictures and sounds of a material. */
function material(node: XmlElement): Nodes {
  return childrenOf(node).flatMap((child): Nodes => {
    const { uri, label, width, height } = child.attributes
    switch (child.name) {
      case 'mattext':
      case 'matemtext': {
        const markup = child.children.some(isElement)
        const text = textOf(child)
        const html = /html/i.test(child.attributes.texttype ?? '') || /<[a-z][^>]*>/i.test(text)
        const words: Nodes = markup ? child.children : html ? parseHtml(text) : lines(text)
        return child.name === 'matemtext' ? [element('em', {}, words)] : words
      }
      case 'matimage':
        return [element('img', { src: uri, alt: label ?? '', width, height })]
      case 'mataudio':
      case 'matvideo':
        return [element(child.name.slice(3), { src: uri })]
      case 'matbreak':
        return [element('br')]
      default:
        return groups.has(child.name) ? material(child) : []
    }
  })
}
const lines = (text: string): Nodes =>
  text
    .trim()
    .split(/\n/)
    .flatMap((line, i): Nodes => (i ? [element('br'), line.trim()] : [line.trim()]))

const block = (nodes: Nodes) => (nodes.length ? element('div', {}, nodes) : null)

function responseOf(node: XmlElement): Response {
  const cardinality = (node.attributes.rcardinality ?? 'Single').toLowerCase()
  return {
    identifier: node.attributes.ident ?? 'RESPONSE',
    cardinality: cardinality === 'multiple' || cardinality === 'ordered' ? cardinality : 'single',
    baseType: node.name === 'response_lid' ? 'identifier' : isNumeric(node) ? 'float' : 'string',
  }
}

/** What is asked: an interaction for each response. Several lists are choices in a text, each behind its own words. */
function asked(node: XmlElement, several: boolean): Nodes {
  return node.children.flatMap((child): Nodes => {
    if (!isElement(child)) return []
    if (child.name === 'material') return [block(material(child)) ?? '']
    if (!child.name.startsWith('response_')) return asked(child, several)
    const response = responseOf(child)
    const words = childrenOf(child, 'material').flatMap(material)
    const attributes = { responseIdentifier: response.identifier }
    if (response.baseType !== 'identifier') {
      const field = within(child, 'render_fib')[0]
      const long = Number(field?.attributes.rows ?? 1) > 1
      return long
        ? [
            block(words) ?? '',
            element('extendedTextInteraction', { ...attributes, expectedLines: field!.attributes.rows }),
          ]
        : [element('p', {}, words, ' ', element('textEntryInteraction', attributes))]
    }
    const render = within(child, 'render_choice')[0]
    const options = within(child, 'response_label').map((label) => ({
      identifier: label.attributes.ident,
      fixed: label.attributes.rshuffle === 'No' ? true : null,
      words: material(label),
    }))
    const shuffle = render?.attributes.shuffle === 'Yes'
    const made = (name: string) => options.map(({ words: inner, ...rest }) => element(name, rest, inner))
    if (several && response.cardinality === 'single')
      return [
        element(
          'p',
          {},
          words,
          ' ',
          element('inlineChoiceInteraction', { ...attributes, shuffle }, made('inlineChoice')),
        ),
      ]
    const name = response.cardinality === 'ordered' ? 'orderInteraction' : 'choiceInteraction'
    const most = response.cardinality === 'single' ? 1 : 0
    return [
      block(words) ?? '',
      element(
        name,
        { ...attributes, shuffle, ...(name === 'choiceInteraction' ? { maxChoices: most } : {}) },
        made('simpleChoice'),
      ),
    ]
  })
}

/** A field for numbers says so by itself, or in how it is drawn. */
const isNumeric = (node: XmlElement) =>
  node.name === 'response_num' ||
  within(node, 'render_fib').some(({ attributes }) => /^(decimal|integer|scientific)$/i.test(attributes.fibtype ?? ''))

const base = (baseType: string, text: string) => element('baseValue', { baseType }, text)
const variable = (identifier: string) => element('variable', { identifier })

/** One after another of a response that is put in order: the order as a whole. */
function wholeOrder(node: XmlElement, responses: ReadonlyMap<string, Response>): XmlElement | null {
  const parts = childrenOf(node)
  const response = responses.get(parts[0]?.attributes.respident ?? '')
  const alike = ({ name, attributes }: XmlElement) =>
    name === 'varequal' && attributes.respident === parts[0]!.attributes.respident && attributes.index === undefined
  return parts.length > 1 && response?.cardinality === 'ordered' && parts.every(alike)
    ? element(
        'match',
        {},
        variable(response.identifier),
        element(
          'ordered',
          {},
          parts.map((each) => base('identifier', textOf(each).trim())),
        ),
      )
    : null
}

/** A condition as one of 2.x; of what it does not know it keeps the name, so that nobody takes it for understood. */
function condition(node: XmlElement, responses: ReadonlyMap<string, Response>): XmlElement {
  const all = () => childrenOf(node).map((each) => condition(each, responses))
  const response = responses.get(node.attributes.respident ?? '')
  const text = textOf(node).trim()
  switch (node.name) {
    case 'conditionvar':
    case 'and': {
      const order = wholeOrder(node, responses)
      if (order) return order
      const inner = all()
      return inner.length === 1 ? inner[0]! : element('and', {}, inner)
    }
    case 'or':
      return element('or', {}, all())
    case 'not':
      return element('not', {}, all())
    case 'other':
      return base('boolean', 'true')
    case 'unanswered':
      return element('isNull', {}, variable(node.attributes.respident ?? ''))
  }
  if (!response) return element(node.name, { identifier: node.attributes.respident })
  const own = variable(response.identifier)
  const number = base('float', text)
  const compare: Record<string, string> = { vargte: 'gte', vargt: 'gt', varlte: 'lte', varlt: 'lt' }
  if (Object.hasOwn(compare, node.name)) return element(compare[node.name]!, {}, own, number)
  switch (node.name) {
    case 'varequal':
      if (response.baseType === 'float') return element('equal', { toleranceMode: 'exact' }, own, number)
      if (response.baseType === 'string')
        return element(
          'stringMatch',
          { caseSensitive: node.attributes.case === 'Yes', substring: false },
          own,
          base('string', text),
        )
      if (response.cardinality === 'ordered' && /^[1-9]\d?$/.test(node.attributes.index ?? ''))
        return element('match', {}, element('index', { n: node.attributes.index }, own), base('identifier', text))
      return response.cardinality === 'single'
        ? element('match', {}, own, base('identifier', text))
        : element('member', {}, base('identifier', text), own)
    case 'varsubstring':
      return element(
        'stringMatch',
        { caseSensitive: node.attributes.case === 'Yes', substring: true },
        own,
        base('string', text),
      )
    case 'varsubset':
      return element(
        'contains',
        {},
        own,
        element(
          'multiple',
          {},
          text.split(',').map((each) => base('identifier', each.trim())),
        ),
      )
    default:
      return element(node.name)
  }
}

const actions: Record<string, string> = { Add: 'sum', Subtract: 'sum', Multiply: 'product', Divide: 'divide' }

/** "If the score is below, or above, then it is this." */
function bounded(name: 'lt' | 'gt', bound: string | undefined): XmlElement | null {
  if (bound === undefined || bound.trim() === '' || !Number.isFinite(Number(bound))) return null
  const value = base('float', bound.trim())
  return element(
    'responseCondition',
    {},
    element(
      'responseIf',
      {},
      element(name, {}, variable('SCORE'), value),
      element('setOutcomeValue', { identifier: 'SCORE' }, value),
    ),
  )
}

interface Processing {
  rules: XmlElement[]
  outcomes: XmlElement[]
}

function processing(item: XmlElement, responses: ReadonlyMap<string, Response>): Processing {
  const declared = within(item, 'decvar')
  const [first] = declared
  const scoreName =
    declared.find(({ attributes }) => attributes.varname === 'SCORE')?.attributes.varname ?? first?.attributes.varname
  const nameOf = (written: string | undefined) => (written === undefined || written === scoreName ? 'SCORE' : written)
  const set = (node: XmlElement): XmlElement => {
    const name = nameOf(node.attributes.varname)
    const action = node.attributes.action ?? 'Set'
    const text = textOf(node).trim()
    const value = base('float', action === 'Subtract' ? (text.startsWith('-') ? text.slice(1) : `-${text}`) : text)
    return element(
      'setOutcomeValue',
      { identifier: name },
      Object.hasOwn(actions, action) ? element(actions[action]!, {}, variable(name), value) : value,
    )
  }
  const show = (node: XmlElement) =>
    element(
      'setOutcomeValue',
      { identifier: 'FEEDBACK' },
      element('multiple', {}, variable('FEEDBACK'), base('identifier', node.attributes.linkrefid ?? '')),
    )
  const rules = within(item, 'respcondition').map((each) => {
    const asks = childOf(each, 'conditionvar')
    const goesOn = /^yes$/i.test(each.attributes.continue ?? 'No')
    return element(
      'responseCondition',
      {},
      element(
        'responseIf',
        {},
        asks ? condition(asks, responses) : base('boolean', 'true'),
        childrenOf(each, 'setvar').map(set),
        childrenOf(each, 'displayfeedback').map(show),
        goesOn ? null : element('exitResponse'),
      ),
    )
  })
  const score = declared.find(({ attributes }) => attributes.varname === scoreName)?.attributes
  const usual = score?.defaultval
  // The bounds of a sum; where a condition ends the processing it has set what counts.
  const bounds = rules.some((rule) => within(rule, 'exitResponse').length)
    ? []
    : [bounded('lt', score?.minvalue), bounded('gt', score?.maxvalue)].flatMap((rule) => rule ?? [])
  const outcome = (identifier: string, cardinality: string, baseType: string, value?: string) =>
    element(
      'outcomeDeclaration',
      { identifier, cardinality, baseType },
      value === undefined || value === '' ? null : element('defaultValue', {}, element('value', {}, value)),
    )
  return {
    rules: [...rules, ...bounds],
    outcomes: [
      outcome('SCORE', 'single', 'float', usual ?? '0'),
      ...declared
        .filter(({ attributes }) => nameOf(attributes.varname) !== 'SCORE')
        .map(({ attributes }) => outcome(attributes.varname ?? '', 'single', 'float', attributes.defaultval ?? '0')),
      outcome('FEEDBACK', 'multiple', 'identifier'),
    ],
  }
}

function itemOf(item: XmlElement): XmlElement {
  const presentation = childOf(item, 'presentation') ?? element('presentation')
  const found = ['response_lid', 'response_str', 'response_num', 'response_xy', 'response_grp'].flatMap((name) =>
    within(presentation, name),
  )
  const responses = new Map(found.map((each) => [each.attributes.ident ?? '', responseOf(each)]))
  const { rules, outcomes } = processing(item, responses)
  const strange = found.find(({ name }) => name === 'response_xy' || name === 'response_grp')
  return element(
    'assessmentItem',
    { identifier: item.attributes.ident, title: item.attributes.title, adaptive: 'false', lang: item.attributes.lang },
    [...responses.values()].map((each) => element('responseDeclaration', { ...each })),
    outcomes,
    element(
      'itemBody',
      {},
      strange ? element('customInteraction', { responseIdentifier: strange.attributes.ident }) : null,
      asked(presentation, found.length > 1),
    ),
    rules.length ? element('responseProcessing', {}, rules) : null,
    ['itemfeedback', 'solution'].flatMap((name) =>
      childrenOf(item, name).map((each) =>
        element(
          'modalFeedback',
          { outcomeIdentifier: 'FEEDBACK', identifier: each.attributes.ident ?? 'general', showHide: 'show' },
          material(each),
        ),
      ),
    ),
  )
}

/** The items of a file of QTI 1.2, in the elements of 2.x; null for a file that is none. */
export const asItems = (tree: XmlElement): XmlElement[] | null =>
  tree.name === 'questestinterop' ? within(tree, 'item').map(itemOf) : null

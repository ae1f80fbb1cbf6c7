import { childOf, childrenOf, element, isElement, within, type XmlElement } from '../../xml'
import { block, material, rubricsIn, type Nodes } from './material'
import { askedIn, responseOf } from './responses'

/** What is asked: an interaction for each response. Several lists are choices in a text, each behind its own words. */
function asked(node: XmlElement, several: boolean, notes: Set<string>): Nodes {
  return node.children.flatMap((child): Nodes => {
    if (!isElement(child)) return []
    if (child.name === 'material') return [block(material(child, notes)) ?? '']
    if (!child.name.startsWith('response_')) return asked(child, several, notes)
    return responseOf(child).baseType === 'identifier' ? choosing(child, several, notes) : typing(child, notes)
  })
}

/** Words that stand among what is asked, without those of what is chosen. */
const wordsOf = (nodes: readonly XmlElement[], notes: Set<string>): Nodes =>
  nodes.flatMap((each) => (each.name.startsWith('render_') ? [] : material(element('material', {}, each), notes)))

/** A field in the midst of its words, in the order in which they stand. */
function typing(node: XmlElement, notes: Set<string>): Nodes {
  const { identifier } = responseOf(node)
  const render = within(node, 'render_fib')[0]
  const rows = Number(render?.attributes.rows ?? 1)
  const around = (of: XmlElement | undefined, mark: string): [before: Nodes, behind: Nodes] => {
    const parts = of ? childrenOf(of) : []
    const at = parts.findIndex(({ name }) => name === mark)
    const words = (some: XmlElement[]) => wordsOf(some, notes)
    return at < 0 ? [words(parts), []] : [words(parts.slice(0, at)), words(parts.slice(at + 1))]
  }
  const [first, last] = around(node, 'render_fib')
  const [left, right] = around(render, 'response_label')
  const [before, behind] = [
    [...first, ...left],
    [...right, ...last],
  ]
  if (rows > 1)
    return [
      block([...before, ...behind]) ?? '',
      element('extendedTextInteraction', { responseIdentifier: identifier, expectedLines: rows }),
    ]
  const field = element('textEntryInteraction', { responseIdentifier: identifier })
  return [element('p', {}, before, ' ', field, behind.length ? ' ' : '', behind)]
}

function choosing(node: XmlElement, several: boolean, notes: Set<string>): Nodes {
  const { identifier, cardinality } = responseOf(node)
  const render = within(node, 'render_choice')[0]
  const words = [node, ...(render ? [render] : [])].flatMap((each) => wordsOf(childrenOf(each), notes))
  const options = within(node, 'response_label').map((label) => ({
    identifier: label.attributes.ident,
    fixed: label.attributes.rshuffle === 'No' ? true : null,
    words: material(label, notes),
  }))
  const attributes = { responseIdentifier: identifier, shuffle: render?.attributes.shuffle === 'Yes' }
  const made = (name: string) => options.map(({ words: inner, ...rest }) => element(name, rest, inner))
  if (several && cardinality === 'single')
    return [element('p', {}, words, ' ', element('inlineChoiceInteraction', attributes, made('inlineChoice')))]
  const most = cardinality === 'single' ? 1 : Number(render?.attributes.maxnumber) || 0
  return [
    block(words) ?? '',
    cardinality === 'ordered'
      ? element('orderInteraction', attributes, made('simpleChoice'))
      : element('choiceInteraction', { ...attributes, maxChoices: most }, made('simpleChoice')),
  ]
}

/** The body of an item. @param notes gets what of it is left out */
export const bodyOf = (item: XmlElement, notes: Set<string>): XmlElement =>
  element(
    'itemBody',
    {},
    rubricsIn(item, ['rubric', 'itemrubric', 'objectives'], notes),
    asked(childOf(item, 'presentation') ?? element('presentation'), askedIn(item).length > 1, notes),
  )

/** Feedback, hints and solutions, which conditions show by their names. */
export const feedbackOf = (item: XmlElement, notes: Set<string>): XmlElement[] =>
  ['itemfeedback', 'solution'].flatMap((name) =>
    childrenOf(item, name).map((each) => {
      if (within(each, 'hint').length) notes.add('Hints of it are comments here.')
      return element(
        'modalFeedback',
        { outcomeIdentifier: 'FEEDBACK', identifier: each.attributes.ident ?? 'general', showHide: 'show' },
        material(each, notes),
      )
    }),
  )

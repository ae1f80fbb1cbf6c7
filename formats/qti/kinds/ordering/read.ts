import { childrenOf, type XmlElement } from '../../../xml'
import { refuse, inlineHtml, type Context, type Found, declared, idOf } from '../reading'

export function orderingOf(context: Context, node: XmlElement): Found {
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

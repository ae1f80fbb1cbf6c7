import { childOf, childrenOf, textOf, within } from '../../../xml'
import { mapElements } from '../../xhtml'
import { numeric, hundredths, htmlOf, type Context, type Found, declared } from '../reading'
import { choiceOf } from '../choice/read'
import { numberBody, textBody, isNumeric } from '../entry/read'

export function gapsOf(context: Context): Found {
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

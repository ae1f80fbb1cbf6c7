import { blankQuestion } from '../../../../core/question'
import { textOf, within, type XmlElement } from '../../../xml'
import { numeric, refuse, type Context, type Found } from '../reading'

export function byHandOf(context: Context, node: XmlElement): Found {
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

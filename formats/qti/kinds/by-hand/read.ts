import { blankQuestion } from '../../../../core/question'
import { textOf, within, type XmlElement } from '../../../xml'
import { found, numeric, refuse, type Context, type Found } from '../reading'

/** Nothing of it is scored by a machine. */
const unscored = () => ({})

/** What somebody marks: words, or a recording. What the file says to scorers is the model answer. */
export function byHandOf(context: Context, node: XmlElement): Found {
  const model = within(context.item, 'rubricBlock')
    .filter((block) => (block.attributes.view ?? '').split(/\s+/).includes('scorer'))
    .map((block) =>
      textOf(block)
        .replace(/[ \t]*\n\s*/g, '\n')
        .trim(),
    )
    .join('\n')
    .trim()
  if (node.name === 'uploadInteraction') {
    if (!(node.attributes.type ?? '').startsWith('audio'))
      return refuse('Files other than sound cannot be answers here.')
    return found('recording', { ...blankQuestion('recording').body, model }, 1, unscored)
  }
  const longest = Math.min(20_000, Math.max(1, numeric(node.attributes.expectedLength, 5000)))
  return node.name === 'extendedTextInteraction'
    ? found(
        'written',
        { rubric: [], model, longest, lines: Math.min(40, Math.max(2, numeric(node.attributes.expectedLines, 8))) },
        1,
        unscored,
      )
    : found('short', { rubric: [], model, label: '', longest: Math.min(90, longest) }, 1, unscored)
}

import { blankQuestion } from '../../../../core/question'
import { childOf, childrenOf, textOf, within, type XmlElement } from '../../../xml'
import { found, numeric, refuse, type Context, type Found } from '../reading'

/** Nothing of it is scored by a machine. */
const unscored = () => ({})

const outcome = ({ item }: Context, name: string) =>
  childrenOf(item, 'outcomeDeclaration').find(({ attributes }) => attributes.identifier === name)

/** Whether the file says that its score comes from people, whatever else it declares (QTI 2.2 §5.2, externalScored). */
export const isScoredByPeople = (context: Context): boolean =>
  outcome(context, 'SCORE')?.attributes.externalScored === 'human'

/** What it is worth: the greatest score that is declared, or what the outcome MAXSCORE begins with. */
function worthOf(context: Context): number {
  const usual = childOf(outcome(context, 'MAXSCORE') ?? context.item, 'defaultValue')
  const most = numeric(outcome(context, 'SCORE')?.attributes.normalMaximum)
  return most > 0 ? most : usual ? numeric(textOf(usual).trim()) : 1
}

/** What somebody marks: words, or a recording. What the file says to scorers, and what it gives as right, is the model answer. */
export function byHandOf(context: Context, node: XmlElement): Found {
  const said = within(context.item, 'rubricBlock')
    .filter((block) => (block.attributes.view ?? '').split(/\s+/).includes('scorer'))
    .map((block) =>
      textOf(block)
        .replace(/[ \t]*\n\s*/g, '\n')
        .trim(),
    )
  const keyed = context.declarations.get(node.attributes.responseIdentifier ?? '')?.correct ?? []
  const model = [...said, ...keyed].join('\n').trim()
  const worth = worthOf(context)
  if (node.name === 'uploadInteraction') {
    if (!(node.attributes.type ?? '').startsWith('audio'))
      return refuse('Files other than sound cannot be answers here.')
    return found('recording', { ...blankQuestion('recording').body, model }, worth, unscored)
  }
  const longest = Math.min(20_000, Math.max(1, numeric(node.attributes.expectedLength, 5000)))
  return node.name === 'extendedTextInteraction'
    ? found(
        'written',
        { rubric: [], model, longest, lines: Math.min(40, Math.max(2, numeric(node.attributes.expectedLines, 8))) },
        worth,
        unscored,
      )
    : found('short', { rubric: [], model, label: '', longest: Math.min(90, longest) }, worth, unscored)
}

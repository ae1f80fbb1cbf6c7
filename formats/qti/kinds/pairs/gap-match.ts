import { blankQuestion } from '../../../../core/question'
import { childrenOf, isElement, within, type XmlElement } from '../../../xml'
import { mapElements } from '../../../html'
import { htmlOf } from '../../content/read'
import {
  creditOf,
  declared,
  found,
  hundredths,
  namesBack,
  refuse,
  wholeKey,
  worthBy,
  type Context,
  type Found,
} from '../reading'
import { entriesOf } from './sides'

/** Words that are drawn into gaps: a list in each gap holds all of them. */
export function gapMatchOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const words = entriesOf(context, childrenOf(node, 'gapText'), 'w_')
  if (!words.length || within(node, 'gapImg').length)
    return refuse('Pictures that are drawn into gaps have no like here.')
  const key = wholeKey(context, response)
  const whole = key !== null
  const worth = worthBy(context, response)
  const gaps: { id: string; name: string; most: number; credits: number[] }[] = []
  const text = mapElements(
    node.children.filter((child) => !isElement(child) || (child.name !== 'gapText' && child.name !== 'prompt')),
    (child) => {
      if (child.name !== 'gap') return child
      const name = child.attributes.identifier ?? ''
      const credits = words.map((word) =>
        whole ? Number(key.includes(`${word.name} ${name}`)) : worth([`${word.name} ${name}`]),
      )
      const id = `g${gaps.length + 1}`
      gaps.push({ id, name, most: Math.max(0, ...credits), credits })
      return { name: 'span', attributes: { 'data-gap': id }, children: [] }
    },
  )
  if (!gaps.length) return refuse('There is no gap in its text.')
  const back = namesBack(new Map(words.map(({ name, id }) => [name, id])))
  return found(
    'gaps',
    {
      text: htmlOf(text, context),
      rule: whole ? 'all' : 'share',
      gaps: gaps.map(({ id, most, credits }) => ({
        id,
        weight: most > 0 ? Math.min(100, Math.max(0.01, hundredths(most))) : 1,
        as: 'list',
        body: {
          ...blankQuestion('choice').body,
          inOrder: false,
          options: words.map(({ id: word, html }, i) => ({
            id: word,
            html,
            comment: '',
            fixed: false,
            credit: creditOf(credits[i]!, most),
          })),
        },
      })),
    },
    whole ? worth(key) : gaps.reduce((sum, { most }) => sum + most, 0),
    ({ gaps: given }: { gaps: Record<string, string> }) => ({
      [response.identifier]: gaps.flatMap(({ id, name }) =>
        given[id] ? back(given[id]).map((word) => `${word} ${name}`) : [],
      ),
    }),
  )
}

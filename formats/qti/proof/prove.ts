import { exact, pointsText } from '../../../core/kit/exact'
import type { Question } from '../../../core/question'
import { kindOf } from '../../../core/question/kinds'
import type { Proof } from '../../bundle'
import { childOf, childrenOf, type XmlElement } from '../../xml'
import { NotProven } from '../processing'
import { tryOut, type Both, type Tried } from './try'

/** Shares of the points that are the same to a hundredth: credits here go in hundredths. */
const close = exact('0.01')
const zero = exact(0)

const offered = new Set([
  'simpleChoice',
  'inlineChoice',
  'hottext',
  'hotspotChoice',
  'simpleAssociableChoice',
  'gapText',
  'gap',
])

/** Something that an item lets somebody choose in one of these responses, and that no answer here leads to. */
function unseenIn(item: XmlElement, responses: ReadonlySet<string>, met: ReadonlySet<string>): string | undefined {
  const look = (node: XmlElement, isAsked: boolean): string | undefined => {
    for (const child of childrenOf(node)) {
      const asked = isAsked || responses.has(child.attributes.responseIdentifier ?? '')
      const { identifier = '' } = child.attributes
      if (asked && offered.has(child.name) && !met.has(identifier) && !identifier.includes(' ')) return identifier
      const found = look(child, asked)
      if (found !== undefined) return found
    }
    return undefined
  }
  const body = childOf(item, 'itemBody')
  return body && look(body, false)
}

/**
 * Whether an item scores its answers as the question does: both are run over the same answers, each by its own rules.
 * @param rows where the answers have been tried already
 * @returns null for what people mark
 */
export function prove(both: Both, rows?: readonly Tried[]): Proof | null {
  const { item, question } = both
  if (kindOf(question.kind).byHand || question.keyless) return null
  try {
    return judged(item, question, rows ?? tryOut(both))
  } catch (error) {
    if (error instanceof NotProven) return { state: 'open', tried: 0, reason: error.message }
    throw error
  }
}

function judged(item: XmlElement, question: Question, rows: readonly Tried[]): Proof {
  const points = exact(question.points)
  const room = points.mul(close)
  const met = new Set<string>()
  const looked = new Set<string>()
  for (const [i, row] of rows.entries()) {
    for (const [name, values] of Object.entries(row.given)) {
      looked.add(name)
      for (const value of values) for (const part of value.split(' ')) met.add(part)
    }
    const file = row.processed.score ?? zero
    const here = row.fraction.mul(points)
    if (!file.equals(here) && file.sub(here).abs().compare(room) > 0)
      return {
        state: 'differs',
        tried: i + 1,
        example: { answer: wordsFor(row), file: pointsText(file), here: pointsText(here) },
      }
  }
  const unseen = unseenIn(item, looked, met)
  return unseen === undefined
    ? { state: 'proven', tried: rows.length }
    : { state: 'open', tried: rows.length, reason: `“${unseen.slice(0, 40)}” of it can be chosen in no answer here.` }
}

function wordsFor({ instance, answer, isEmpty }: Tried): string | null {
  return isEmpty ? null : kindOf(instance.kind).answerText(instance.body, answer).slice(0, 160)
}

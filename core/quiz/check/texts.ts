import { count, list } from '../../kit/phrases'
import type { Reading } from '../../question/reading'
import { setAt } from '../edits/make'
import type { Quiz, Row } from '../schema'
import { allRows, gives, questionsOf, questionsUsed } from '../walk'
import { look, type CheckContext, type CheckedQuestion, type Found } from './check'
import { without } from './rows'

/** Checks of what questions say: what they give away, and what shuffling makes wrong. */

const short = (text: string) => `“${text.length > 60 ? `${text.slice(0, 59)}…` : text}”`
type Known = { id: string; question: CheckedQuestion; reading: Reading }

const known = (quiz: Quiz, context: CheckContext): Known[] =>
  questionsUsed(quiz.content).flatMap((id) => {
    const question = context.questions.get(id)
    return question?.reading ? [{ id, question, reading: question.reading }] : []
  })

const rowOf = (quiz: Quiz, question: string): Row | undefined =>
  allRows(quiz.content).find((row) => questionsOf(row).includes(question))
const takeOut = (quiz: Quiz, question: string) => without(quiz, rowOf(quiz, question)!, [question])

export function doubtChecks(quiz: Quiz, context: CheckContext): Found {
  return known(quiz, context)
    .filter(({ question }) => question.doubts)
    .map(({ id, question }) =>
      look(
        `doubted:${id}`,
        'compose',
        'A colleague doubts a question',
        `${short(question.title)}: ${count(question.doubts, 'colleague says', 'colleagues say')} that something is wrong with it.`,
        { label: 'Read what they say', open: id },
      ),
    )
}

/** Questions of which a newer version is there than the one that students of this edition sit. */
export function newerChecks(quiz: Quiz, context: CheckContext): Found {
  const newer = known(quiz, context).filter(({ question }) => question.newer)
  if (!newer.length) return []
  const names = list(newer.slice(0, 3).map(({ question }) => short(question.title)))
  return [
    look(
      'newer-versions',
      'compose',
      `${count(newer.length, 'question')} changed since this was opened`,
      `${names} ${newer.length === 1 ? 'has' : 'have'} a newer version. Later starts get it once you give the quiz to them.`,
      { label: 'See what changed', open: newer[0]!.id },
    ),
  ]
}

/** The same question but for its numbers, twice in a quiz. */
export function nearChecks(quiz: Quiz, context: CheckContext): Found {
  const seen = new Map<string, Known>()
  return known(quiz, context).flatMap((each) => {
    const { near } = each.question
    const first = near ? seen.get(near) : undefined
    if (near && !first) seen.set(near, each)
    // Two of one pool, of which each paper gets one, are meant to be alike.
    const row = rowOf(quiz, each.id)
    const together = first && !(row && rowOf(quiz, first.id) === row && row.type === 'pool' && row.draw === 1)
    return together
      ? [
          look(
            `near:${each.id}`,
            'compose',
            'Two questions look alike',
            `${short(each.question.title)} is the same as another but for its numbers, and both may be on one paper.`,
            { label: 'Take out the second', edit: takeOut(quiz, each.id) },
          ),
        ]
      : []
  })
}

const words = (text: string) =>
  ` ${text
    .normalize('NFC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()} `
/** A key that says less than this is in too many stems by chance. */
const leastKey = 8

/** A question whose stem holds the key of another: whoever reads both need not know. */
export function giveawayChecks(quiz: Quiz, context: CheckContext): Found {
  const all = known(quiz, context).map((each) => ({
    ...each,
    said: words(each.reading.stem),
    key: words(each.reading.key),
  }))
  return all.flatMap(({ id, question, key, said: own }) => {
    if (key.trim().length < leastKey || /^[\d\s.,]+$/.test(key.trim())) return []
    const by = all.find((other) => other.id !== id && other.said.includes(key))
    // What stands in its own stem as well is no secret.
    return by && !own.includes(key)
      ? [
          look(
            `giveaway:${id}`,
            'compose',
            'One question tells another’s answer',
            `${short(by.question.title)} holds the key of ${short(question.title)}: “${key.trim()}”.`,
            { label: 'Take out the one that tells', edit: takeOut(quiz, by.id) },
          ),
        ]
      : []
  })
}

const ofOrder =
  /\b(above|below|previous question|next question|question \d+|the (first|second|third|last) (option|answer)|(both|either|neither) [a-f] (and|or|nor) [a-f]|[a-f] and [a-f])\b/i
const ofTheRest = /\b(none|all|any) of (these|the above|the others|them)\b/i

/** Stems and options that speak of an order that shuffling breaks, and "none of these" that may come to stand anywhere. */
export function orderWordChecks(quiz: Quiz, context: CheckContext): Found {
  const shuffledRows = new Set(
    quiz.content.sections
      .filter((section) => section.order === 'shuffled')
      .flatMap((section) => section.rows.filter((row) => gives(row) && !row.fixed).flatMap(questionsOf)),
  )
  return known(quiz, context).flatMap(({ id, question, reading }) => {
    const found: Found = []
    const stem = ofOrder.exec(reading.stem.replace(/\b(above|below) (the )?(\p{L}+)/giu, ' '))
    if (stem && shuffledRows.has(id))
      found.push(
        look(
          `order-stem:${id}`,
          'compose',
          'A question speaks of its place',
          `${short(question.title)} says “${stem[0]}”, and its section is shuffled.`,
          { label: 'Keep the row in its place', edit: setAt(quiz, ['rows', rowOf(quiz, id)!.id, 'fixed'], true) },
        ),
      )
    if (!quiz.content.shuffleOptions || reading.inOrder) return found
    const option = reading.options.find(
      ({ words: text, fixed }) =>
        !fixed && (ofTheRest.test(text) || /\b(both|neither) [a-f]\b|\b[a-f] and [a-f]\b/i.test(text)),
    )
    if (option)
      found.push(
        look(
          `order-option:${id}`,
          'compose',
          'An option speaks of the others',
          `${short(question.title)} has the option ${short(option.words)}, which shuffling may put anywhere. Fix it in its place.`,
          { label: 'Open the question', open: id },
        ),
      )
    return found
  })
}

/** Questions from which a habit of the author is told: fewer say nothing. */
const leastForHabit = 6
const mostly = 0.75

/** The right option always the longest, or, where nothing is shuffled, always in the same place. */
export function habitChecks(quiz: Quiz, context: CheckContext): Found {
  const choices = known(quiz, context).filter(
    ({ reading }) => reading.options.length > 2 && reading.options.filter(({ right }) => right).length === 1,
  )
  const found: Found = []
  if (choices.length < leastForHabit) return found
  const longest = choices.filter(({ reading }) => {
    const lengths = reading.options.map(({ words: text }) => text.length).sort((a, b) => b - a)
    const right = reading.options.find((option) => option.right)!.words.length
    return right === lengths[0] && right > lengths[1]!
  })
  if (longest.length >= mostly * choices.length)
    found.push(
      look(
        'longest-right',
        'compose',
        'The longest option is nearly always right',
        `In ${longest.length} of ${choices.length} questions the right option is the longest: who knows nothing can tell.`,
        { label: 'Open the first of them', open: longest[0]!.id },
      ),
    )
  const places = new Map<number, number>()
  for (const { reading } of choices) {
    if (quiz.content.shuffleOptions && !reading.inOrder) continue
    const at = reading.options.findIndex(({ right }) => right)
    places.set(at, (places.get(at) ?? 0) + 1)
  }
  const [place, often] = [...places].sort((a, b) => b[1] - a[1])[0] ?? [0, 0]
  if (often >= Math.max(leastForHabit, mostly * choices.length))
    found.push(
      look(
        'same-place',
        'compose',
        'The right option nearly always stands in the same place',
        `In ${often} of ${choices.length} questions option ${String.fromCharCode(65 + place)} is right.`,
        quiz.content.shuffleOptions
          ? null
          : { label: 'Shuffle the options', edit: setAt(quiz, ['content', 'shuffleOptions'], true) },
      ),
    )
  return found
}

import { addRows, addSection, addTo, moveRow, removeFrom, removeRow, setAt, together } from './edits/make'
import type { Edit } from './edits/edit'
import { newRow } from './blank'
import type { GivingRow, PoolRow, Quiz, Row, Section } from './schema'
import { allRows, gives, questionsOf, rowPoints, rowSize } from './walk'

/** Makes ids for what is new: a caller's, since core draws no chance of its own. */
export type NewId = () => string

const rowsOf = (quiz: Quiz, ids: readonly string[]): Row[] =>
  allRows(quiz.content).filter((row) => ids.includes(row.id))
const homeOf = (quiz: Quiz, row: string): Section =>
  quiz.content.sections.find((section) => section.rows.some((each) => each.id === row))!

/**
 * Makes one pool of the questions that rows hold, in the place of the first of them; null where there are fewer than two.
 * Texts and stimulus groups stay where they are. It draws half of what it holds, so that something is drawn at all.
 */
export function intoPool(quiz: Quiz, ids: readonly string[], newId: NewId): Edit | null {
  const rows = rowsOf(quiz, ids).filter((row): row is Exclude<GivingRow, { type: 'stimulus' }> =>
    ['question', 'pool'].includes(row.type),
  )
  const questions = [...new Set(rows.flatMap(questionsOf))]
  const [first] = rows
  if (!first || questions.length < 2) return null
  const home = homeOf(quiz, first.id)
  const before = home.rows[home.rows.findIndex((row) => row.id === first.id) - 1]?.id ?? null
  const known = rows.find((row): row is PoolRow => row.type === 'pool')
  const pool = newRow({
    type: 'pool',
    id: newId(),
    title: known?.title ?? '',
    questions,
    draw: Math.max(1, Math.ceil(questions.length / 2)),
    points: first.points,
    required: rows.every((row) => row.required),
    options: rows.every((row) => row.options === first.options) ? first.options : 'quiz',
    spread: known?.spread ?? 'none',
  })
  return together([addRows(home.id, before, [pool]), ...rows.map((row) => removeRow(quiz, row.id))])
}

/** Takes a pool apart: a row for each of its questions, in its place. */
export function apart(quiz: Quiz, id: string, newId: NewId): Edit {
  const pool = allRows(quiz.content).find((row): row is PoolRow => row.id === id && row.type === 'pool')!
  const { points, fixed, required, options } = pool
  const rows = pool.questions.map((question) =>
    newRow({ type: 'question', id: newId(), question, points, fixed, required, options }),
  )
  return together([addRows(homeOf(quiz, id).id, id, rows), removeRow(quiz, id)])!
}

/** The same points for each question of some rows. */
export const pointsEach = (quiz: Quiz, ids: readonly string[], points: number): Edit | null =>
  together(
    rowsOf(quiz, ids)
      .filter((row) => gives(row) && row.points !== points)
      .map((row) => setAt(quiz, ['rows', row.id, 'points'], points)),
  )

/**
 * Spreads a total over rows, by the points that they have now (evenly where they have none), in hundredths. What rounding
 * leaves goes to single questions first, as far as it can be given exactly.
 * @returns the edit, or null where nothing changes; `left` is what could not be given, in points
 */
export function spreadPoints(quiz: Quiz, ids: readonly string[], total: number): { edit: Edit | null; left: number } {
  const rows = rowsOf(quiz, ids).filter((row): row is GivingRow => gives(row) && rowSize(row) > 0)
  const now = rows.reduce((all, row) => all + rowPoints(row), 0)
  const size = rows.reduce((all, row) => all + rowSize(row), 0)
  if (!size) return { edit: null, left: total }
  const wanted = Math.round(total * 100)
  const shares = rows.map((row) => {
    const exactly = (now > 0 ? (row.points / now) * total : total / size) * 100
    return { row, hundredths: Math.floor(exactly + 1e-9), rest: exactly - Math.floor(exactly + 1e-9) }
  })
  let left = wanted - shares.reduce((all, { row, hundredths }) => all + hundredths * rowSize(row), 0)
  // Those that lost most by rounding come first; a pool takes as many hundredths as it draws questions.
  const inTurn = [...shares].sort((a, b) => rowSize(b.row) - rowSize(a.row) || b.rest - a.rest)
  const smallest = Math.min(...rows.map(rowSize))
  while (left >= smallest)
    for (const share of inTurn) {
      if (left < rowSize(share.row)) continue
      share.hundredths++
      left -= rowSize(share.row)
    }
  const edit = together(
    shares
      .filter(({ row, hundredths }) => Math.round(row.points * 100) !== hundredths)
      .map(({ row, hundredths }) => setAt(quiz, ['rows', row.id, 'points'], hundredths / 100)),
  )
  return { edit, left: left / 100 }
}

/** Moves rows to the end of a section, in their order. */
export function moveTo(quiz: Quiz, ids: readonly string[], section: string): Edit | null {
  const target = quiz.content.sections.find((each) => each.id === section)!
  const rows = rowsOf(quiz, ids).filter((row) => !target.rows.includes(row))
  return together(
    rows.map((row, i) => moveRow(quiz, row.id, section, rows[i - 1]?.id ?? target.rows.at(-1)?.id ?? null)),
  )
}

export const takeOut = (quiz: Quiz, ids: readonly string[]): Edit | null =>
  together(
    quiz.content.sections.flatMap((section) => {
      const gone = section.rows.filter((row) => ids.includes(row.id)).map((row) => row.id)
      return gone.length ? [removeFrom(quiz, ['sections', section.id, 'rows'], gone)] : []
    }),
  )

/** A section once more, after itself, with ids of its own. */
export function copySection(quiz: Quiz, id: string, newId: NewId): Edit {
  const section = quiz.content.sections.find((each) => each.id === id)!
  const rows = section.rows.map((row) => ({ ...row, id: newId() }))
  return addSection({ ...section, id: newId(), title: `${section.title} (copy)`.slice(0, 160), rows }, id)
}

/** A section's rows go to the end of the one before it; null for the first. */
export function mergeUp(quiz: Quiz, id: string): Edit | null {
  const at = quiz.content.sections.findIndex((each) => each.id === id)
  const [above, section] = [quiz.content.sections[at - 1], quiz.content.sections[at]]
  if (!above || !section) return null
  return together([
    removeFrom(quiz, ['sections'], [id]),
    ...(section.rows.length ? [addRows(above.id, above.rows.at(-1)?.id ?? null, section.rows)] : []),
  ])
}

/** A section is cut before a row: what follows becomes a section of its own. Null for its first row. */
export function splitAt(quiz: Quiz, row: string, newId: NewId): Edit | null {
  const section = homeOf(quiz, row)
  const at = section.rows.findIndex((each) => each.id === row)
  if (at < 1) return null
  const moved = section.rows.slice(at)
  return together([
    removeFrom(
      quiz,
      ['sections', section.id, 'rows'],
      moved.map((each) => each.id),
    ),
    addSection(
      { ...section, id: newId(), title: `${section.title}, continued`.slice(0, 160), intro: '', rows: moved },
      section.id,
    ),
  ])
}

/** Another question in the place of one, wherever it stands; a row that stayed at a version follows the newest. Null where it is not in the quiz. */
export function replaceQuestion(quiz: Quiz, from: string, to: string): Edit | null {
  return together(
    allRows(quiz.content).flatMap((row): Edit[] => {
      if (!questionsOf(row).includes(from)) return []
      if (row.type === 'question')
        return [
          setAt(quiz, ['rows', row.id, 'question'], to),
          ...(row.version === null ? [] : [setAt(quiz, ['rows', row.id, 'version'], null)]),
        ]
      const list = ['rows', row.id, 'questions']
      return [addTo(list, from, [to]), removeFrom(quiz, list, [from])]
    }),
  )
}

/** A pool keeps a list from now on, in the place of its condition. */
export const asList = (quiz: Quiz, pool: string, questions: readonly string[]): Edit =>
  together([setAt(quiz, ['rows', pool, 'condition'], null), addTo(['rows', pool, 'questions'], null, questions)])!

/** A row of another quiz as a new one: a pool with a condition keeps it, a question follows the newest version. */
export function asNewRow(row: Row, id: string): Row {
  if (row.type === 'pool' && row.condition) return { ...row, id, questions: [] }
  return row.type === 'question' ? { ...row, id, version: null } : { ...row, id }
}

/** A question as it comes into a running order. */
export interface Chosen {
  id: string
  points: number
  stimulus: string | null
}

/**
 * Rows for chosen questions, in their order: those that share a stimulus come as one group, where the first of them
 * stands, so that they stay together on every paper.
 * @param each what every question is worth; null for what each says
 */
export function rowsFor(chosen: readonly Chosen[], each: number | null, newId: NewId): Row[] {
  return chosen.flatMap((question, at): Row[] => {
    const points = each ?? question.points
    const together = question.stimulus === null ? [] : chosen.filter(({ stimulus }) => stimulus === question.stimulus)
    if (together.length < 2) return [newRow({ type: 'question', id: newId(), question: question.id, points })]
    if (chosen.indexOf(together[0]!) !== at) return []
    const questions = together.map(({ id }) => id)
    const { stimulus } = question
    return [newRow({ type: 'stimulus', id: newId(), stimulus: stimulus!, questions, draw: questions.length, points })]
  })
}

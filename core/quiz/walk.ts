import type { Content, DrawRow, GivingRow, Row } from './schema'

export function allRows(content: Content): Row[] {
  return content.sections.flatMap((section) => section.rows)
}

/** Whether a row gives questions; texts and breaks give none. */
export const gives = (row: Row): row is GivingRow => 'points' in row

/** True of a stimulus group that gives all its questions: they are on every paper, as those of question rows are. */
const givesAll = (row: DrawRow): boolean => row.type === 'stimulus' && row.draw >= row.questions.length

/** Rows of which each paper gets some questions: pools, and stimulus groups that give fewer than they hold. */
export function drawRows(content: Content): DrawRow[] {
  return allRows(content)
    .filter((row) => row.type === 'pool' || row.type === 'stimulus')
    .filter((row) => !givesAll(row))
}

/** Questions that a row puts on every paper. */
export function fixedOf(row: Row): string[] {
  return row.type === 'question' ? [row.question] : row.type === 'stimulus' && givesAll(row) ? row.questions : []
}

/** Questions that are on every paper. */
export function fixedQuestions(content: Content): string[] {
  return allRows(content).flatMap(fixedOf)
}

/** Every question that a row may give. */
export function questionsOf(row: Row): string[] {
  return row.type === 'question' ? [row.question] : gives(row) ? row.questions : []
}

/** Every question that a paper may hold, once. */
export function questionsUsed(content: Content): string[] {
  return [...new Set(allRows(content).flatMap(questionsOf))]
}

/** Questions on each paper that a row gives. */
export function rowSize(row: Row): number {
  return row.type === 'question'
    ? 1
    : row.type === 'pool'
      ? row.draw
      : row.type === 'stimulus'
        ? Math.min(row.draw, row.questions.length)
        : 0
}

/** Points on each paper that a row gives. Points go in hundredths; the number is rounded to them. */
export function rowPoints(row: Row): number {
  return pointsOf([row])
}

/** Points on each paper that several rows give. */
export function pointsOf(rows: readonly Row[]): number {
  const hundredths = rows.reduce(
    (total, row) => total + (gives(row) ? Math.round(row.points * 100) * rowSize(row) : 0),
    0,
  )
  return hundredths / 100
}

import type { Content, PoolRow, Row } from './schema'

export function allRows(content: Content): Row[] {
  return content.sections.flatMap((section) => section.rows)
}

export function poolRows(content: Content): PoolRow[] {
  return allRows(content).filter((row) => row.type === 'pool')
}

/** Questions that are on every paper. */
export function fixedQuestions(content: Content): string[] {
  return allRows(content).flatMap((row) => (row.type === 'question' ? [row.question] : []))
}

/** Every question that a paper may hold, once. */
export function questionsUsed(content: Content): string[] {
  return [...new Set(allRows(content).flatMap((row) => (row.type === 'question' ? [row.question] : row.type === 'pool' ? row.questions : [])))]
}

/** Questions on each paper that a row gives. */
export function rowSize(row: Row): number {
  return row.type === 'question' ? 1 : row.type === 'pool' ? row.draw : 0
}

/** Points on each paper that a row gives, in hundredths kept exact by the schema. */
export function rowPoints(row: Row): number {
  return row.type === 'text' ? 0 : Math.round(row.points * 100 * rowSize(row)) / 100
}

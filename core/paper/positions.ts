import type { Row } from '../quiz/schema'
import { rowSize } from '../quiz/walk'

/** The first place of a stimulus group that a place would cut in two: in a shuffled section groups stand anywhere. */
function beforeGroup(position: number, rows: readonly Row[], items: readonly { row: string }[]): number {
  const row = items[position]?.row
  if (row === undefined || rows.find(({ id }) => id === row)?.type !== 'stimulus') return position
  return items.findIndex((item) => item.row === row)
}

/**
 * Where texts and breaks stand among the questions of a section on a paper: before the place that the rows above them
 * fill, and never within a stimulus group.
 * @param items the questions of the section, in the order of the paper
 * @returns places from 0, by the ids of the rows
 */
export function positionsOf(rows: readonly Row[], items: readonly { row: string }[]): Map<string, number> {
  const found = new Map<string, number>()
  let filled = 0
  for (const row of rows) {
    if (row.type === 'text' || row.type === 'break') found.set(row.id, beforeGroup(filled, rows, items))
    else filled += rowSize(row)
  }
  return found
}

export const letters = 'abcdefghijklmnopqrstuvwxyz'
export const optionColumns = [...letters].map((letter) => `option_${letter}` as const)
/** So many option columns stand in every file; more where a question has more. */
export const usualOptions = 8

/** Columns of a table of questions, with what stands in them (docs/files.md). Order does not matter; unknown columns are told. */
export const columns = [
  'kind',
  'question',
  'right',
  'tolerance',
  'unit',
  ...optionColumns,
  'points',
  'seconds',
  'difficulty',
  'objectives',
  'tags',
  'source',
  'internal_name',
  'comment_right',
  'comment_wrong',
  'comment',
  'folder',
  'no_key',
] as const
export type Column = (typeof columns)[number]
export type Row = Partial<Record<Column, string>>

/** How numbers are written in a table: "3.75", or "3,75". */
export type Decimals = 'point' | 'comma'

/** A table as it was read, whatever file it came in. */
export interface Table {
  /** Names of its columns, tidied. */
  header: string[]
  rows: {
    /** Where it stands, in words: "line 12", "row 12". */
    place: string
    cells: Row
    /** What could not be read of it at all. */
    problem: string | null
    notes: string[]
    /** What a cell is called in the file, for saying where a fault is: "C12", or the name of its column. */
    named(column: Column): string
  }[]
  decimals: Decimals
}

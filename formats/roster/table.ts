import Papa from 'papaparse'
import { UnreadableFile } from '../bundle'
import { decodeText } from '../text'

/** A CSV file as rows of text, its header apart. */
export interface Table {
  name: string
  header: string[]
  /** Each with the line on which it begins, counted from 1. */
  rows: { line: number; cells: string[] }[]
}

export const mostRows = 100_000

/**
 * Reads a CSV file: whatever stands between its columns (comma, semicolon, tab), in whatever encoding it came.
 * @throws UnreadableFile
 */
export function readTable(name: string, bytes: Uint8Array): Table {
  const text = decodeText(bytes).replace(/^\uFEFF/, '')
  if (text.includes('\0')) throw new UnreadableFile(`${name} is no text: save it as CSV.`)
  const { data, errors } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' })
  const broken = errors.find(({ type }) => type === 'Quotes')
  if (broken)
    throw new UnreadableFile(`${name}, row ${(broken.row ?? 0) + 1}: a quotation mark is opened and not closed.`)
  if (data.length > mostRows + 1) throw new UnreadableFile(`${name} has more than 100,000 rows. Part it.`)
  const [header = [], ...rows] = data
  return {
    name,
    header: header.map((cell) => cell.trim()),
    rows: rows.map((cells, i) => ({ line: i + 2, cells: cells.map((cell) => cell.trim()) })),
  }
}

/** The cells of a row by the names of their columns; small letters. */
export function cellsOf(table: Table): (cells: readonly string[]) => (column: string) => string {
  const places = new Map(table.header.map((name, i) => [name.toLowerCase().replace(/[\s_-]+/g, ''), i]))
  return (cells) => (column) => cells[places.get(column.toLowerCase()) ?? -1] ?? ''
}

import { read, utils, type CellObject, type DenseWorkSheet } from '@e965/xlsx'
import { UnreadableFile, type Bundle } from '../bundle'
import type { Column, Row, Table } from '../table/columns'
import { questionsIn } from '../table/read'
import { stored, unzip } from '../zip'
import { withEscapes } from './escapes'

const mostRows = 20_100

/** What stands in a cell: a number as it is kept, whatever it looks like; a formula's last result. */
const textOf = (cell: CellObject | undefined): string =>
  cell?.v === undefined || cell.t === 'e' || cell.v instanceof Date ? '' : String(cell.v)

/** The first sheet of a spreadsheet (Office Open XML, OpenDocument) as a table. @throws UnreadableFile */
export function sheetTable(bytes: Uint8Array): Table {
  const lines = cellsOf(stored(withEscapes(unzip(bytes))))
  const top = lines.findIndex((cells) => cells?.some((cell) => textOf(cell).trim() !== ''))
  if (top < 0) throw new UnreadableFile('The first sheet of this file is empty.')
  const header = Array.from(lines[top]!, (cell) => textOf(cell).trim().toLowerCase())
  const rows = lines.slice(top + 1).flatMap((cells, i): Table['rows'] => {
    const texts = Array.from(cells ?? [], textOf)
    if (texts.every((text) => text.trim() === '')) return []
    const at = top + i + 2
    const over = texts.findIndex((text, k) => text.trim() !== '' && !header[k])
    return [
      {
        place: `row ${at}`,
        cells: Object.fromEntries(header.map((name, k) => [name, texts[k] ?? ''])) as Row,
        problem: null,
        notes:
          over < 0 ? [] : [`Cell ${utils.encode_col(over)}${at} stands under no name of a column; it is left out.`],
        named: (column: Column) => {
          const k = header.indexOf(column)
          return k < 0 ? `Row ${at}, ${column}` : `Cell ${utils.encode_col(k)}${at}`
        },
      },
    ]
  })
  return { header, rows, decimals: 'point' }
}

/** Cells by row and column; what is empty is not there, so that a blank sheet of any extent stays small. */
function cellsOf(bytes: Uint8Array): (CellObject[] | undefined)[] {
  let sheet: DenseWorkSheet | undefined
  try {
    const book = read(bytes, {
      type: 'array',
      dense: true,
      sheetRows: mostRows,
      cellFormula: false,
      cellHTML: false,
      cellText: false,
    })
    sheet = book.Sheets[book.SheetNames[0] ?? ''] as DenseWorkSheet | undefined
  } catch {
    throw new UnreadableFile(
      'This spreadsheet cannot be read. Open it in a spreadsheet program, save it anew as .xlsx or .ods, and try again.',
    )
  }
  // Where rows are left out, this says how far the sheet goes.
  const extent = (sheet?.['!fullref'] as string | undefined) ?? 'A1'
  const last = utils.decode_range(extent).e.r + 1
  if (last > mostRows)
    throw new UnreadableFile(
      `The first sheet goes down to row ${last}; 20,100 are read. Part it, or copy its questions into a new sheet if the rest is blank.`,
    )
  return Array.from(sheet?.['!data'] ?? [])
}

export const readSheet = (bytes: Uint8Array): Bundle => questionsIn(sheetTable(bytes))

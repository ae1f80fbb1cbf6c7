import { read, SSF, utils, type CellObject, type DenseWorkSheet } from '@e965/xlsx'
import { UnreadableFile, type Bundle } from '../bundle'
import type { Column, Row, Table } from '../table/columns'
import { questionsIn } from '../table/read'
import { stored, unzip } from '../zip'
import { withEscapes } from './escapes'

const mostRows = 20_100

/** A number as its cell shows it: "3.10", "2%", "1/2", "2030-05-14". Thousands separators are removed; without a format all digits are kept. */
function shownNumber(cell: CellObject & { v?: number }): string {
  const format = String(cell.z ?? 'General')
  if (/^general$/i.test(format)) return String(cell.v)
  const plain = String(cell.v)
  const shown = (cell.w !== undefined && cell.w !== plain ? cell.w : SSF.format(format, cell.v)).trim()
  return /^-?\d{1,3}(?:,\d{3})+(?:\.\d+)?$/.test(shown) ? shown.replaceAll(',', '') : shown || plain
}

/** The text that a cell shows; for a formula, its last result. A cell with an error is empty, and its row reports it. */
function textOf(cell: CellObject | undefined): string {
  if (cell?.v === undefined || cell.t === 'e') return ''
  if (cell.t === 'n') return shownNumber(cell as CellObject & { v: number })
  return cell.v instanceof Date ? (cell.w ?? '') : String(cell.v)
}

/** What a file has besides the first sheet's visible cells. */
interface Beside {
  /** Names of further sheets that hold something. */
  sheets: string[]
  /** Rows that are hidden, from 0. */
  hidden: ReadonlySet<number>
}

/** The first sheet of a spreadsheet (Office Open XML, OpenDocument) as a table. @throws UnreadableFile */
export function sheetTable(bytes: Uint8Array): Table {
  const { lines, sheets, hidden } = cellsOf(stored(withEscapes(unzip(bytes))))
  const top = lines.findIndex((cells) => cells?.some((cell) => textOf(cell).trim() !== ''))
  if (top < 0) throw new UnreadableFile('The first sheet of this file is empty.')
  const header = Array.from(lines[top]!, (cell) => textOf(cell).trim().toLowerCase())
  const rows = lines.slice(top + 1).flatMap((cells, i): Table['rows'] => {
    const texts = Array.from(cells ?? [], textOf)
    const failed = Array.from(cells ?? []).findIndex((cell, k) => cell?.t === 'e' && header[k])
    if (failed < 0 && texts.every((text) => text.trim() === '')) return []
    const at = top + i + 2
    const failure = failed < 0 ? '' : (cells![failed]!.w ?? 'an error')
    const over = texts.findIndex((text, k) => text.trim() !== '' && !header[k])
    return [
      {
        place: `row ${at}`,
        cells: Object.fromEntries(header.map((name, k) => [name, texts[k] ?? ''])) as Row,
        problem:
          failed < 0
            ? null
            : `Cell ${utils.encode_col(failed)}${at} shows ${failure}. Correct it in the spreadsheet, and import the file again.`,
        notes: [
          ...(over < 0
            ? []
            : [`Cell ${utils.encode_col(over)}${at} stands under no name of a column; it is left out.`]),
          ...(hidden.has(at - 1) ? [`Row ${at} is hidden in the spreadsheet. It is read all the same.`] : []),
        ],
        named: (column: Column) => {
          const k = header.indexOf(column)
          return k < 0 ? `Row ${at}, ${column}` : `Cell ${utils.encode_col(k)}${at}`
        },
      },
    ]
  })
  if (sheets.length)
    rows[0]?.notes.push(
      `The file has further sheets (${sheets.map((name) => `“${name}”`).join(', ')}). Only the first is read.`,
    )
  return { header, rows, decimals: 'point' }
}

/** Cells by row and column; what is empty is not there, so that a blank sheet of any extent stays small. */
function cellsOf(bytes: Uint8Array): Beside & { lines: (CellObject[] | undefined)[] } {
  let sheet: DenseWorkSheet | undefined
  let sheets: string[] = []
  try {
    const book = read(bytes, {
      type: 'array',
      dense: true,
      sheetRows: mostRows,
      cellFormula: false,
      cellHTML: false,
      cellNF: true,
      // Says which rows are hidden.
      cellStyles: true,
    })
    sheets = book.SheetNames.slice(1).filter((name) => book.Sheets[name]?.['!ref'] !== undefined)
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
  const rows = Array.from((sheet?.['!rows'] ?? []) as ({ hidden?: boolean } | undefined)[])
  const hidden = new Set(rows.flatMap((row, i) => (row?.hidden ? [i] : [])))
  return { lines: Array.from(sheet?.['!data'] ?? []), sheets, hidden }
}

export const readSheet = (bytes: Uint8Array): Bundle => questionsIn(sheetTable(bytes))

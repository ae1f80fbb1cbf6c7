import Papa from 'papaparse'
import { UnreadableFile, type Bundle } from '../bundle'
import { questionsIn } from '../table/read'
import type { Column, Row, Table } from '../table/columns'

/** "sep=;" as a first line is for spreadsheets: it says what parts the cells. */
const separator = /^sep=(.)\r?\n/i
const tidyName = (name: string) => name.trim().toLowerCase()
const linesIn = (cells: readonly string[]) =>
  cells.reduce((sum, cell) => sum + (cell.match(/\r\n|\r|\n/g)?.length ?? 0), 0)

/** Text of a file as a table: commas, semicolons and tabs are told apart, or said; where semicolons part, commas may be decimal. */
export function tableOf(source: string): Table {
  const text = source.replace(/^\uFEFF/, '')
  const said = separator.exec(text)
  const { data, meta, errors } = Papa.parse<string[]>(said ? text.slice(said[0].length) : text, {
    delimiter: said?.[1] ?? '',
    skipEmptyLines: false,
  })
  const [header = [], ...lines] = data
  let line = (said ? 1 : 0) + 1
  const starts = data.map((cells) => {
    const at = line
    line += 1 + linesIn(cells)
    return at
  })
  const names = header.map(tidyName)
  const rows = lines.flatMap((cells, i): Table['rows'] => {
    if (cells.every((cell) => cell.trim() === '')) return []
    const at = starts[i + 1]!
    const unclosed = errors.find((error) => error.row === i + 1 && error.type === 'Quotes')
    const over = cells.slice(names.length).some((cell) => cell.trim() !== '')
    return [
      {
        place: `line ${at}`,
        cells: Object.fromEntries(names.map((name, k) => [name, cells[k] ?? ''])) as Row,
        problem: unclosed
          ? `A quotation mark that opens in line ${at} is not closed, or stands within a cell where it has to be doubled. What follows it cannot be told apart.`
          : null,
        notes: over ? ['This line has more cells than the header names; those beyond are left out.'] : [],
        named: (column: Column) => `Line ${at}, ${column}`,
      },
    ]
  })
  return { header: names, rows, decimals: meta.delimiter === ';' ? 'comma' : 'point' }
}

/** Reads a file with a header line. @throws UnreadableFile */
export function readCsv(source: string): Bundle {
  if (source.includes('\u0000')) throw new UnreadableFile('This is no text: it cannot be read as CSV.')
  return questionsIn(tableOf(source))
}

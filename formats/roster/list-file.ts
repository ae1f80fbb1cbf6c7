import { columnsFault, readPlain, recognise } from './plain-csv'
import { readTable } from './table'

/**
 * A CSV file of one class as a list that can be read over and changed before it is taken: a person a line. Headings are
 * recognised; without any, its first row is a person as well. Staff rows are left out, and told.
 * @throws UnreadableFile
 */
export function listFromCsv(name: string, bytes: Uint8Array): { list: string; notes: string[] } {
  const table = readTable(name, bytes)
  const columns = recognise(table)
  const hasHeadings = table.header.some((_cell, i) => columns[i] !== null && !looksLikeAPerson(table.header[i]!))
  if (!hasHeadings || columnsFault(columns) !== null)
    return {
      list: [table.header, ...table.rows.map(({ cells }) => cells)].map((cells) => lineOf(cells)).join('\n'),
      notes: [],
    }
  const { people, faults, notes } = readPlain(table, columns)
  const students = people.filter(({ role }) => role === 'student')
  const staff = people.length - students.length
  return {
    list: students.map((person) => lineOf([person.name, person.email ?? ''])).join('\n'),
    notes: [
      ...notes,
      ...faults.map(({ place, sentence }) => `${place}: ${sentence}`),
      ...(staff ? [`${staff} ${staff === 1 ? 'row is' : 'rows are'} of teachers, and left out.`] : []),
    ],
  }
}

/** A heading is a word for what stands under it, not somebody's name or address. */
const looksLikeAPerson = (cell: string): boolean => cell.includes('@')

/** Tabs part the cells: they stand in no name. */
const lineOf = (cells: readonly string[]): string => cells.filter(Boolean).join('\t')

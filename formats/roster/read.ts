import type { Roster } from '../../core/roster'
import { UnreadableFile } from '../bundle'
import { unzip } from '../zip'
import { isOneRoster, oneRosterFiles, readOneRoster } from './one-roster'
import { columnsFault, readPlain, recognise, type Columns } from './plain-csv'
import { readTable, type Table } from './table'

/** What files of a roster hold, with the columns of a plain one as they were taken. */
export interface ReadRoster {
  format: 'OneRoster' | 'CSV'
  roster: Roster
  /** Of a plain file: its headings, its first rows, what each column was taken for, and what is wrong with that. */
  columns: { header: string[]; sample: string[][]; taken: Columns; fault: string | null } | null
}

/** Tables of files: of an archive those within it that OneRoster names. */
function tablesOf(files: readonly { name: string; bytes: Uint8Array }[]): Table[] {
  return files.flatMap(({ name, bytes }) => {
    const isArchive = bytes[0] === 0x50 && bytes[1] === 0x4b
    if (!isArchive) return [readTable(name, bytes)]
    return [...unzip(bytes)]
      .filter(([path]) => /\.csv$/i.test(path) && !path.split('/').at(-1)!.startsWith('.'))
      .filter(
        ([path], _i, all) =>
          all.length === 1 || oneRosterFiles.some((each) => path.toLowerCase().endsWith(`${each}.csv`)),
      )
      .map(([path, inside]) => readTable(path, inside))
  })
}

/**
 * Reads the files of a roster: OneRoster as one archive or file by file, or one plain CSV.
 * @param columns what the columns of a plain file hold, where somebody has said it
 * @throws UnreadableFile
 */
export function readRoster(
  files: readonly { name: string; bytes: Uint8Array }[],
  columns: Columns | null = null,
): ReadRoster {
  const tables = tablesOf(files)
  if (!tables.length) throw new UnreadableFile('There is no CSV file among these.')
  if (isOneRoster(tables)) return { format: 'OneRoster', roster: readOneRoster(tables), columns: null }
  if (tables.length > 1) throw new UnreadableFile('These are several files, and no OneRoster. Bring in one at a time.')
  const [table] = tables as [Table]
  const taken = columns?.length === table.header.length ? columns : recognise(table)
  const fault = columnsFault(taken)
  return {
    format: 'CSV',
    roster: fault
      ? { people: [], classes: [], terms: [], enrolments: [], notes: [], faults: [] }
      : readPlain(table, taken),
    columns: { header: table.header, sample: table.rows.slice(0, 4).map(({ cells }) => cells), taken, fault },
  }
}

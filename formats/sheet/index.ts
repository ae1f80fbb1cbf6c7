import { archiveKind } from '../archive'
import type { Format } from '../format'
import { unseenInTable } from '../table/write'
import { readSheet } from './read'
import { writeSheet, type SheetKind } from './write'

export const sheetTypes: Record<SheetKind, string> = {
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  ods: 'application/vnd.oasis.opendocument.spreadsheet',
}
const written = (kind: SheetKind, label: string): Format => ({
  name: kind,
  label,
  endings: [kind],
  write: {
    type: sheetTypes[kind],
    alone: true,
    unseen: unseenInTable,
    bytes: (questions) => writeSheet(questions, kind),
  },
})

/** Spreadsheets, with the columns of the CSV: the first sheet is read, whichever of the two it is. */
export const sheets: Format[] = [
  {
    ...written('xlsx', 'Spreadsheet (XLSX)'),
    recognise: ({ bytes }) => (archiveKind(bytes) === 'sheet' ? 'surely' : 'no'),
    read: ({ bytes }) => readSheet(bytes),
  },
  written('ods', 'Spreadsheet (ODS)'),
]

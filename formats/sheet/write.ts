import { utils, write } from '@e965/xlsx'
import { questionCells, templateCells, type Cells } from '../table/write'

export type SheetKind = 'xlsx' | 'ods'

/** A table as a sheet. Every cell is a text: none is ever run. */
function sheetOf({ fields, lines }: Cells, kind: SheetKind): Uint8Array {
  const sheet = utils.aoa_to_sheet([fields, ...lines])
  sheet['!cols'] = fields.map((name) => ({ wch: name === 'question' ? 50 : name.startsWith('option') ? 18 : 12 }))
  const book = utils.book_new()
  utils.book_append_sheet(book, sheet, 'Questions')
  // Shared strings: the library undoes the escapes of others twice when it reads them.
  return new Uint8Array(write(book, { type: 'array', bookType: kind, compression: true, bookSST: true }) as ArrayBuffer)
}

export const writeSheet = (questions: Parameters<typeof questionCells>[0], kind: SheetKind): Uint8Array =>
  sheetOf(questionCells(questions), kind)
export const sheetTemplate = (kind: SheetKind): Uint8Array => sheetOf(templateCells(), kind)

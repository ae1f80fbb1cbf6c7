import Papa from 'papaparse'
import { guarded } from '../table/cells'
import { questionCells, templateCells, type Cells } from '../table/write'

/** A cell that begins like a formula would be run by a spreadsheet: it is kept from that. RFC 4180 has the rest. */
const written = ({ fields, lines }: Cells): string =>
  Papa.unparse({ fields, data: lines.map((cells) => cells.map(guarded)) })

/** A header with a line for each of the commonest kinds. */
export const csvTemplate = (): string => written(templateCells())

/** Questions as lines, for a spreadsheet. Not every kind can be read back. */
export const writeCsv = (questions: Parameters<typeof questionCells>[0]): string => written(questionCells(questions))

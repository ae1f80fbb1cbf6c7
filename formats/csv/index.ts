import { encode, type Format } from '../format'
import { unseenInTable } from '../table/write'
import { readCsv } from './read'
import { writeCsv } from './write'

const header = /^(?:sep=.\r?\n)?[^\n]*\bkind\b[^\n]*\bquestion\b|^(?:sep=.\r?\n)?[^\n]*\bquestion\b[^\n]*\bkind\b/i

export const csv: Format = {
  name: 'csv',
  label: 'CSV',
  endings: ['csv'],
  recognise: ({ head }) => (header.test(head) ? 'perhaps' : 'no'),
  read: ({ text }) => readCsv(text),
  write: {
    type: 'text/csv; charset=utf-8',
    alone: true,
    unseen: unseenInTable,
    bytes: (questions) => encode(writeCsv(questions)),
  },
}

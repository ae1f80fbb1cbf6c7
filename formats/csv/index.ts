import { encode, type Format } from '../format'
import { readCsv, writeCsv } from './questions'

const header = /^[^\n]*\bkind\b[^\n]*\bquestion\b|^[^\n]*\bquestion\b[^\n]*\bkind\b/i

export const csv: Format = {
  name: 'csv',
  label: 'CSV',
  endings: ['csv'],
  recognise: ({ text }) => (header.test(text) ? 'perhaps' : 'no'),
  read: ({ text }) => readCsv(text),
  write: { type: 'text/csv; charset=utf-8', alone: true, bytes: (questions) => encode(writeCsv(questions)) },
}

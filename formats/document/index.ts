import { archiveKind } from '../archive'
import type { Format } from '../format'
import { readDocx } from './docx'

/** Documents of word processors are read, and not written: what is in them is laid out for paper. */
export const documents: Format = {
  name: 'docx',
  label: 'Document (DOCX)',
  endings: ['docx'],
  recognise: ({ bytes }) => (archiveKind(bytes) === 'document' ? 'surely' : 'no'),
  read: ({ bytes }) => readDocx(bytes),
}

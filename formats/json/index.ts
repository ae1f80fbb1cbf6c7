import { encode, type Format } from '../format'
import { readThistle, writeThistle } from './thistle'

export const thistle: Format = {
  name: 'json',
  label: 'Thistle’s JSON',
  endings: ['json'],
  recognise: ({ text }) => (text.startsWith('{') ? 'surely' : 'no'),
  read: ({ text }) => readThistle(text),
  write: {
    type: 'application/json',
    bytes: (questions, { media, stimuli }) => encode(writeThistle(questions, media, stimuli)),
  },
}

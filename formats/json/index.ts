import type { Format } from '../format'
import { inUtf8 } from '../text'
import { readThistle, writeThistle } from './thistle'

export const thistle: Format = {
  name: 'json',
  label: 'Thistle’s JSON',
  endings: ['json'],
  // A list, or a value alone, in a file of that name is told as JSON of another sort.
  recognise: ({ head, name }) => (head.startsWith('{') || name.endsWith('.json') ? 'surely' : 'no'),
  read: ({ bytes }) => readThistle(inUtf8(bytes)),
  write: {
    type: 'application/json',
    unseen: () => [],
    bytes: (questions, { media, stimuli }) => writeThistle(questions, media, stimuli),
  },
}

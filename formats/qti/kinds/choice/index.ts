import type { Family } from '../family'
import { choiceOf } from './read'
import { choice, choices } from './write'

export const choiceFamily: Family = {
  write: { choice, trueFalse: choice, yesNo: choice, choices },
  read: { choiceInteraction: choiceOf },
}

import type { Family } from '../family'
import { choiceOf, hottextOf } from './read'
import { choice, choices } from './write'

export const choiceFamily: Family = {
  write: { choice, choices, trueFalse: choice, yesNo: choice },
  read: { choiceInteraction: choiceOf, hottextInteraction: hottextOf },
}

import type { Family } from '../family'
import { byHandOf } from './read'
import { byHand } from './write'

export const byHandFamily: Family = {
  write: { written: byHand, short: byHand, recording: byHand },
  read: { uploadInteraction: byHandOf },
}

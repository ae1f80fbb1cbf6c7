import type { Family } from '../family'
import { gapMatchOf, pairsOf } from './read'
import { pairs } from './write'

export const pairsFamily: Family = {
  write: { matching: pairs, sorting: pairs },
  read: { matchInteraction: pairsOf, gapMatchInteraction: gapMatchOf },
}

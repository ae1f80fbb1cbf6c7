import type { Family } from '../family'
import { gapMatchOf } from './gap-match'
import { associateOf, pairsOf } from './read'
import { grid, pairs } from './write'

export const pairsFamily: Family = {
  write: { matching: pairs, sorting: pairs, grid },
  read: { matchInteraction: pairsOf, associateInteraction: associateOf, gapMatchInteraction: gapMatchOf },
}

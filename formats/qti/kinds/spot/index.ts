import type { Family } from '../family'
import { spotOf } from './read'
import { spot } from './write'

export const spotFamily: Family = {
  write: { spot },
  read: { hotspotInteraction: spotOf, selectPointInteraction: spotOf },
}

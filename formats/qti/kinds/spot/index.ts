import type { Family } from '../family'
import { hotspotOf, selectPointOf } from './read'
import { spot } from './write'

export const spotFamily: Family = {
  write: { spot },
  read: { hotspotInteraction: hotspotOf, selectPointInteraction: selectPointOf },
}

import type { Family } from '../family'
import { extendedTextOf, sliderOf, textEntryOf } from './read'
import { number, text } from './write'

export const entryFamily: Family = {
  write: { number, text },
  read: {
    textEntryInteraction: textEntryOf,
    extendedTextInteraction: extendedTextOf,
    sliderInteraction: sliderOf,
  },
}

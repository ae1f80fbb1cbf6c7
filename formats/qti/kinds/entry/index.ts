import type { Family } from '../family'
import { textEntryOf } from './read'
import { number, text } from './write'

export const entryFamily: Family = { write: { number, text }, read: { textEntryInteraction: textEntryOf } }

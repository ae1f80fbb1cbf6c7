import type { Family } from '../family'
import { gapsOf } from './read'
import { gaps } from './write'

export const gapsFamily: Family = { write: { gaps }, read: { inlineChoiceInteraction: gapsOf } }

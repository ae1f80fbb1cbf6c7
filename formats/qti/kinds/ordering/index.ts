import type { Family } from '../family'
import { orderingOf } from './read'
import { ordering } from './write'

export const orderingFamily: Family = { write: { ordering }, read: { orderInteraction: orderingOf } }

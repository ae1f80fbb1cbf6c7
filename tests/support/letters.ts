import { plus, type Instant } from '../../core/kit/time'
import { day } from './quiz'

export const hour = 3_600_000
/** So many milliseconds after the day of the tests. */
export const later = (milliseconds: number): Instant => plus(day, milliseconds)
/** The token in a letter or a link. */
export const tokenIn = (text: string): string => /\/come-in\/([\w-]+)/.exec(text)![1]!

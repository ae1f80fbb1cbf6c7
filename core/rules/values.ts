import { z } from 'zod'

/** Minutes of the clock, in halves. */
export const minutes = z
  .number('Minutes are a number.')
  .min(0, 'Minutes cannot be below 0.')
  .max(60 * 24 * 366, 'This is more minutes than a year has.')
  .multipleOf(0.5, 'Minutes go in halves.')

/** Percent, in halves. */
export const percent = z
  .number('Percent are a number.')
  .min(0, 'Percent cannot be below 0.')
  .max(100, 'There are at most 100 percent.')
  .multipleOf(0.5, 'Percent go in halves.')

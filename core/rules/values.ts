import { z } from 'zod'

/** Minutes of the clock, in halves. */
export const minutes = z
  .number()
  .min(0)
  .max(60 * 24 * 366)
  .multipleOf(0.5)

/** Percent, in halves. */
export const percent = z.number().min(0).max(100).multipleOf(0.5)

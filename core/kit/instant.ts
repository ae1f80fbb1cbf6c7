import { z } from 'zod'
import { iso } from './time'

/** Reads an instant of any precision and writes it with milliseconds, so that instants compare as text. */
export const instant = z.iso
  .datetime({ error: 'Give a date and time, such as 2030-05-14T19:00:00.000Z.' })
  .refine((text) => text >= '1970' && text < '2200', 'Give a date between 1970 and 2199.')
  .transform((text) => iso(Date.parse(text)))

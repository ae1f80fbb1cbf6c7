import { z } from 'zod'
import { iso } from './time'

/** Reads an instant of any precision and writes it with milliseconds, so that instants compare as text. */
export const instant = z.iso
  .datetime({ error: 'Give a date and time, such as 2030-05-14T19:00:00.000Z.' })
  .transform((text) => iso(Date.parse(text)))

import { z } from 'zod'

/** What somebody is given: of their own, of a group of theirs, or for one quiz. */
export const accommodationShape = {
  factor: z.number().min(1, 'A time factor is at least 1.').max(5, 'A time factor is at most 5.').multipleOf(0.01),
  extraMinutes: z.number().min(0).max(600).multipleOf(0.5),
  /** Extra time also stretches the window's end. */
  stretchWindow: z.boolean(),
  /** Quizzes that are offered in it begin in it; null for as each is set. */
  language: z.string().min(2).max(35).nullable().default(null),
  /** Papers are set in larger type. */
  largerType: z.boolean().default(false),
  /** Minutes of breaks in all that stop the clock of a sitting. */
  breakMinutes: z
    .number('Minutes are a number.')
    .min(0, 'Breaks cannot be below 0.')
    .max(600, 'Breaks are at most 600 minutes in all.')
    .multipleOf(0.5, 'Minutes go in halves.')
    .default(0),
  /** Attempts beside those that everybody has. */
  moreAttempts: z.int('Attempts are a whole number.').min(0).max(20, 'At most 20 attempts more.').default(0),
  /** Minutes by which windows, latest starts and due times come later. */
  laterMinutes: z
    .int()
    .min(0)
    .max(60 * 24 * 60, 'At most 60 days later.')
    .default(0),
}
export const accommodation = z.strictObject(accommodationShape)
export type Accommodation = z.infer<typeof accommodation>
export const noAccommodation: Accommodation = {
  factor: 1,
  extraMinutes: 0,
  stretchWindow: false,
  language: null,
  largerType: false,
  breakMinutes: 0,
  moreAttempts: 0,
  laterMinutes: 0,
}

/** An accommodation with whose it is: of a group by its name, or of one quiz; the student's own without it. */
export interface Given extends Accommodation {
  by?: 'quiz' | { group: string }
}

/** A student as the schedule needs one. */
export interface Student {
  id: string
  name: string
  classes: string[]
  /** Groups within their classes. */
  groups: string[]
  /** Those of their classes whose quizzes are all held back. */
  held?: readonly string[]
  accommodations: Given[]
}

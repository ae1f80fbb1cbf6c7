import { z } from 'zod'

/** Markup as a person may send it, at most 40,000 characters; `allowed-html` says what of it is kept. */
export const html = z
  .string()
  .max(40_000, 'This text is longer than 40,000 characters. Shorten it, or move part of it into a picture.')

import { z } from 'zod'

/** Codes of languages as questions name them: a language of BCP 47, with what may follow it (en, nl, fr-CA). */
export const languageCode = /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/

export const language = z.string().regex(languageCode, 'Write a language as its code, such as en or nl.')

/** Between two languages that are read together: "en+nl". */
export const together = '+'

/** In which language a paper is read, or in which two. */
export const readingLanguage = z
  .string()
  .max(40, 'This is no language, nor two.')
  .refine((value) => {
    const codes = value.split(together)
    return codes.length < 3 && new Set(codes).size === codes.length && codes.every((code) => languageCode.test(code))
  }, 'Write a language as its code, such as en or nl, or two of them with a plus between.')

import { z } from 'zod'
import { isBlank } from './allowed-html'
import { html } from './html-schema'
import { language, together } from './language'

/** A passage, table, picture or sound that several questions share (QTI 3.0: assessment stimulus). */
export const stimulus = z.strictObject({
  /** For teachers; never shown to students. */
  name: z.string().trim().min(1, 'Give it a name, for teachers.').max(160, 'A name has at most 160 characters.'),
  language: language.default('en'),
  html: html.refine((value) => !isBlank(value), 'Write or draw something that the questions share.'),
  source: z.string().trim().max(200).default(''),
  /** By language; what is missing is shown in the first language. */
  translations: z.record(language, html).default({}),
})
export type Stimulus = z.infer<typeof stimulus>

/** All HTML of a stimulus, mapped. */
export function mapStimulusHtml(written: Stimulus, map: (html: string) => string): Stimulus {
  return {
    ...written,
    html: map(written.html),
    translations: Object.fromEntries(Object.entries(written.translations).map(([code, text]) => [code, map(text)])),
  }
}

/** What is read in a language, or in two of them together. */
export function stimulusAs(
  written: Pick<Stimulus, 'html' | 'language' | 'translations'>,
  wanted: string | null,
): { html: string; language: string } {
  const [first = null, second] = wanted?.split(together) ?? []
  const read = stimulusIn(written, first)
  const under = second === undefined ? null : stimulusIn(written, second)
  if (!under || under.language !== second || under.language === read.language) return read
  return { ...read, html: `${read.html}<br><span lang="${second}">${under.html}</span>` }
}

/** What is read in a language, and in which language it is. */
export function stimulusIn(
  written: Pick<Stimulus, 'html' | 'language' | 'translations'>,
  wanted: string | null,
): { html: string; language: string } {
  const text = wanted === null || wanted === written.language ? undefined : written.translations[wanted]
  return text && !isBlank(text) ? { html: text, language: wanted! } : { html: written.html, language: written.language }
}

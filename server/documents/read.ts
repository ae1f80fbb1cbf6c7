import { noAccommodation, type Accommodation, type Edition, type Quiz, type Rules } from '../../core/quiz'
import { completedEdition, completedPaper, completedQuiz, completedRulesOf, edit, type Edit } from '../../core/quiz'
import type { Paper } from '../../core/paper'
import { completed, type Question } from '../../core/question'
import type { Vocabulary } from '../../core/question/vocabulary'
import type { Stimulus } from '../../core/question/stimulus'
import { fromJson } from '../database/codec'

/**
 * The one reader of each document and each JSON column. Each gives today's form, whatever release wrote it
 * (`tests/fixtures/documents` has the forms that have landed); lint refuses any other reading of stored JSON.
 */

export const readQuiz = (text: string): Quiz => completedQuiz(fromJson(text))
export const readRules = (text: string): Rules => completedRulesOf(fromJson(text))
export const readEdition = (text: string): Edition => completedEdition(fromJson(text))
export const readPaper = (text: string): Paper => completedPaper(fromJson(text))
export const readQuestion = (text: string): Question => completed(fromJson<Question>(text))
export const readStimulus = (text: string): Stimulus => fromJson<Stimulus>(text)

/** An edit of the history; null for one of a release that wrote edits otherwise, which cannot be replayed. */
export function readEdit(text: string): Edit | null {
  const read = edit.safeParse(fromJson(text))
  return read.success ? (read.data as Edit) : null
}

export const readAccommodation = (text: string | null): Accommodation =>
  text === null ? noAccommodation : { ...noAccommodation, ...fromJson<Partial<Accommodation>>(text) }

/** An answer as it was sent, in the ids of its paper; its kind reads it. */
export const readResponse = (text: string | null): unknown => (text === null ? null : fromJson(text))

export const readVocabulary = (text: string): Vocabulary => fromJson<Vocabulary>(text)

/** What a question is counted by: objectives, tags, levels, grade. */
export interface Facets {
  o: string[]
  t: string[]
  l: string[]
  g: string
}
export const readFacets = (text: string): Facets => ({ l: [], g: '', ...fromJson<Pick<Facets, 'o' | 't'>>(text) })

/** Columns that only the module which writes them reads: what a change of many left, what an import has staged. */
export const readOwn = <T>(text: string): T => fromJson<T>(text)

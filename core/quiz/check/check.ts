import type { QuestionFacts } from '../../figures/facts'
import type { Reading } from '../../question/reading'
import type { Instant } from '../../kit/time'
import type { SchoolScale } from '../../marking/scale'
import type { Assigned } from '../../release/ends'
import type { FacetName } from '../../release/names'
import type { Rules } from '../schema'
import type { Edit } from '../edits/edit'

/** One edit; or, where only a person can choose, the place where they do. */
export type Remedy =
  | { label: string; edit: Edit }
  | { label: string; goTo: 'finder' | 'windows'; objective?: string }
  /** A question, to be opened in the bank. */
  | { label: string; open: string }

/** A question as the checks need it; what is not known is not looked at. */
export interface CheckedQuestion {
  title: string
  usable: boolean
  /** The newest. */
  version: number
  /** Colleagues who say that something is wrong. */
  doubts: number
  /** What it has in common with those that are the same but for their numbers. */
  near: string
  /** There is a newer version than the one of the edition that students sit. */
  newer: boolean
  reading: Reading | null
  facts: QuestionFacts | null
}

export interface Check {
  /** Stable name of what was found. */
  code: string
  /** "stop" keeps a quiz from opening; "look" is worth a look. */
  level: 'stop' | 'look'
  title: string
  sentence: string
  where: 'compose' | 'rules'
  /** What mends it, with the words of its button; null where there is only something to know. What stops always has one. */
  remedy: Remedy | null
  /** A teacher has set it aside. */
  aside?: { reason: string; by: string }
}

/** What the checks need to know beside the quiz. */
export interface CheckContext {
  now: Instant
  zone: string
  /** Questions that can be used: those that are there, whole and not retired. Name for the sentence. */
  questions: ReadonlyMap<string, CheckedQuestion>
  /** Of classes, groups and students, by their ids. */
  names: ReadonlyMap<string, string>
  /** Grade scales of the school. */
  scales: readonly SchoolScale[]
  /** Those that the quiz names, and all that lie above those of its questions. */
  objectives: ReadonlyMap<string, { title: string; parent: string | null }>
  students: readonly (Assigned & { name: string })[]
  /** Other quizzes that are given to somebody and share questions with this one; `title` as the teacher may read it. */
  others?: readonly { id: string; title: string; shared: number; rules: Rules; students: readonly Assigned[] }[]
  /** First sights of facets so far. */
  seen?: readonly { student: string; name: string; facet: FacetName; at: Instant }[]
  /** How many attempts each student has begun. */
  begun?: ReadonlyMap<string, number>
}

export type Found = Check[]

export const stop = (code: string, where: Check['where'], title: string, sentence: string, remedy: Remedy): Check => ({
  code,
  level: 'stop',
  where,
  title,
  sentence,
  remedy,
})

export const look = (
  code: string,
  where: Check['where'],
  title: string,
  sentence: string,
  remedy: Check['remedy'] = null,
): Check => ({ code, level: 'look', where, title, sentence, remedy })

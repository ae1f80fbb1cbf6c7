import type { z } from 'zod'
import type { Instant } from '../kit/time'
import type { CheckContext, Found } from '../quiz/check/check'
import type { Edit, Path } from '../quiz/edits/edit'
import type { Quiz, Window } from '../quiz/schema'
import type { SchoolScale } from '../marking/scale'
import type { Schedule } from '../schedule/schedule'

/** A value of a choice that is typed by the person who chooses it: "… % of its points". */
export interface Fill {
  /** The name in the option's value under which it is kept. */
  key: string
  sort: 'number' | 'minutes' | 'instant'
  /** What a screen reader calls the field. */
  label: string
  min?: number
  max?: number
  step?: number
  /** What is typed is divided by this before it is kept: 100 where percent are kept as a share. */
  per?: number
}
export interface Option {
  value: unknown
  label: string
  fill?: Fill
}

/** A sort of control; the page has one component for each. Numbers are in the unit that is named. */
export type Control =
  | { sort: 'minutes'; min?: number; max: number; step?: number; none?: string }
  | { sort: 'number'; unit: string; min?: number; max: number; step?: number; none?: string }
  | { sort: 'choice'; options: readonly Option[] }
  /** Without `none` it has to have a value. */
  | { sort: 'instant'; none?: string }
  /** Members of a list, so that two teachers' choices merge; `others` are in lists beside it, and one of all stays. */
  | { sort: 'people'; of: 'classes' | 'groups' | 'students'; others: number }
  /** Languages, of those in which the questions can be read. */
  | { sort: 'languages'; none: string }
  | { sort: 'text'; longest: number; none?: string; placeholder?: string; /** One can be made up. */ fresh?: boolean }

/** A value in a sentence: the words that stand for it, where it is kept, and the control that sets it. */
export interface Slot {
  name: string
  words: string
  path: Path
  value: unknown
  control: Control
  /** More that is set in the same place: "once", "until …". */
  also?: readonly Slot[]
}
/** Something that a sentence could say as well, or that takes it out: one edit, with the words of its link. */
export interface Offer {
  offer: string
  edit: Edit
}
export type Piece = string | Slot | Offer
export interface Sentence {
  key: string
  pieces: readonly Piece[]
}

/** What sentences and words for the record are written with. */
export interface Reading {
  quiz: Quiz
  /** IANA zone of the school, in which people read times. */
  zone: string
  /** Of classes, groups and students, by their ids. */
  names: ReadonlyMap<string, string>
  /** Grade scales of the school. */
  scales: readonly SchoolScale[]
}

/** What students are told is written for one student, or for what a class has in common. */
export interface Telling {
  quiz: Pick<Quiz, 'rules'> & {
    content: Pick<Quiz['content'], 'movement' | 'putOff' | 'wrongCost' | 'languages' | 'sections'>
  }
  schedule: Schedule
  zone: string
}

/** Something at an instant that the day line marks on a lane. */
export interface DayMark {
  at: Instant
  words: string
  sort: 'due' | 'last'
}

/**
 * A rule of a quiz, and everything that is particular to it. Registries (`index.ts`, `window/index.ts`,
 * `content/index.ts`) list the rules; nothing else names one to learn what it says, tells, checks or draws.
 */
export interface Rule<T> {
  /** How the record calls it: "limit". */
  title: string
  /** Where its sentences stand. */
  chapter: Chapter
  schema: z.ZodType<T>
  /** What a new quiz has, and what an older one that lacks the rule gets. */
  usual: T
  /** Makes of an older stored form today's. What is missing altogether is given the usual value without this. */
  complete?(stored: unknown): unknown
  /** What it says, as data; none where it does not apply. */
  sentences?(value: T, reading: Reading): Sentence[]
  /** What students are told of it before they start. */
  told?(value: T, telling: Telling): string[]
  /** What is wrong with it or worth a look, each with its remedy. */
  checks?(value: T, quiz: Quiz, context: CheckContext): Found
  /** How its value reads: "45 minutes". */
  words(value: T, reading: Reading): string
  /** How a change of it reads in the record; "title before → after" without this. */
  changed?(before: T, after: T, reading: Reading): string[]
}

/** A rule of each window: its piece of the window's sentence, and its marks on the lanes of those who sit in it. */
export interface WindowRule<T> extends Omit<Rule<T>, 'sentences' | 'told' | 'checks' | 'chapter'> {
  pieces(value: T, window: Window, reading: Reading): Piece[]
  told?(value: T, window: Window, telling: Telling): string[]
  checks?(value: T, window: Window, quiz: Quiz, context: CheckContext): Found
  marks?(value: T, window: Window, schedule: Schedule): DayMark[]
}

export const chapters = {
  who: 'Who sits, and when',
  sitting: 'Sitting',
  page: 'On the page',
  marks: 'Attempts and marks',
  release: 'What students see afterwards',
  tell: 'What is sent by mail',
} as const
export type Chapter = keyof typeof chapters

/** The value type of a rule. */
export type ValueOf<R> = R extends { schema: z.ZodType<infer T> } ? T : never
/** The values of a registry of rules, by their names. */
export type ValuesOf<L> = { -readonly [K in keyof L]: ValueOf<L[K]> }

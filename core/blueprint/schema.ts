import { z } from 'zod'
import { kindNames, type KindName } from '../question/kinds'
import { id } from '../question/schema'
import { instant } from '../kit/instant'

const number = (most: number) => z.number().min(0, 'A number here is at least 0.').max(most)
/** At least and at most; null for no bound. */
const range = (most: number) =>
  z
    .strictObject({ atLeast: number(most), atMost: number(most).nullable() })
    .refine(({ atLeast, atMost }) => atMost === null || atMost >= atLeast, 'The most is below the least.')

const bounds = (most: number) =>
  z
    .strictObject({ atLeast: z.int().min(0).max(most), atMost: z.int().min(0).max(most).nullable() })
    .refine(({ atLeast, atMost }) => atMost === null || atMost >= atLeast, 'The most is below the least.')

/** One line of a blueprint: how many questions there are to be of one sort. What is null may be anything. */
export const cell = z.strictObject({
  id,
  objective: id.nullable(),
  kind: z.enum(kindNames).nullable(),
  difficulty: z.int().min(1).max(5).nullable(),
  /** Thinking level as "scheme:level". */
  level: z.string().max(90).nullable(),
  count: bounds(200),
})
export type Cell = z.infer<typeof cell>

/** What a quiz is to hold (semantics §9). */
export const blueprint = z.strictObject({
  title: z.string().trim().min(1, 'Give it a title.').max(160, 'A title has at most 160 characters.'),
  cells: z.array(cell).max(200, 'A blueprint has at most 200 lines.'),
  /** Questions on each paper; null for as few as the lines ask. */
  questions: bounds(400).nullable(),
  points: range(10_000).nullable(),
  minutes: range(2000).nullable(),
  /** Mean facility that a paper is to have, 0 to 1. */
  facility: z.number().min(0).max(1).nullable(),
  /** Questions that were used since then are left out. */
  unusedSince: instant.nullable(),
  /** At most one of questions that look alike. */
  apart: z.boolean(),
  /** Objectives of which at least one question has to be in. */
  essential: z.array(id).max(100),
  /** Questions that have to be in. */
  must: z.array(id).max(100),
  /** Parallel forms: as many papers, all by this blueprint, as alike in difficulty as can be. */
  forms: z.int().min(1).max(6),
  /** Questions that all forms may have in common; those that have to be in do not count. */
  shared: z.int().min(0).max(200),
})
export type Blueprint = z.infer<typeof blueprint>

/** A question that may be chosen. */
export interface Candidate {
  id: string
  kind: KindName
  difficulty: number
  /** The first is the main one. */
  objectives: readonly string[]
  /** As "scheme:level". */
  levels: readonly string[]
  points: number
  seconds: number
  /** The chance that a usual student gets it right (semantics §8). */
  facility: number
  /** The same for questions that look alike; empty where nothing does. */
  near: string
  /** Lower is chosen first among alike ones: used longer ago. */
  rank: number
}

/** Whether a candidate belongs into a cell. Any of its objectives counts. */
export const fits = (
  cell: Cell,
  candidate: Pick<Candidate, 'objectives' | 'kind' | 'difficulty' | 'levels'>,
): boolean =>
  (cell.objective === null || candidate.objectives.includes(cell.objective)) &&
  (cell.kind === null || cell.kind === candidate.kind) &&
  (cell.difficulty === null || cell.difficulty === candidate.difficulty) &&
  (cell.level === null || candidate.levels.includes(cell.level))

export const blankBlueprint = (title: string): Blueprint => ({
  title,
  cells: [],
  questions: null,
  points: null,
  minutes: null,
  facility: null,
  unusedSince: null,
  apart: true,
  essential: [],
  must: [],
  forms: 1,
  shared: 0,
})

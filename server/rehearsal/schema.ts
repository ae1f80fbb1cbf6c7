import { z } from 'zod'
import { instant } from '../../core/kit/instant'
import { id } from '../../core/question'

/** One request of a student's page. */
const request = z.strictObject({
  method: z.enum(['GET', 'POST', 'PUT', 'DELETE']),
  /** Below /api/, without the query. */
  path: z.string().max(200),
  query: z.record(z.string().max(40), z.union([z.string().max(200), z.number()])).default({}),
  body: z.unknown().optional(),
})
export type Request = z.infer<typeof request>

/** Something that the student did, and when. */
const act = request.extend({ at: instant })
export type Act = z.infer<typeof act>

/** As many acts as fit: answers kept one after another are one (core/rehearsal). */
const mostActs = 300

/**
 * A rehearsal of a quiz, as its page sends it with each request: it is played from its beginning each time, and nothing of
 * it stays.
 */
export const rehearsal = z.strictObject({
  /** A student of the school; or one made up, who is in a class and has nothing of their own. */
  who: z.union([z.strictObject({ student: id }), z.strictObject({ inClass: id })]),
  /** What is played: the quiz as it would be opened now, or as students have it. */
  content: z.enum(['written', 'open']),
  /** As the student stands, with what they have sat; or before they sat anything. */
  fresh: z.boolean(),
  /** Which other paper is drawn; 0 for the one that the student gets. */
  draw: z.int().min(0).max(10_000),
  acts: z.array(act).max(mostActs),
  /** The instant that it is now. */
  at: instant,
})
export type Rehearsal = z.infer<typeof rehearsal>

/** How a paper is filled in: all right, all wrong, at random, or or by a student of an ability (in logits; 0 is usual). */
export const filling = z.strictObject({
  attempt: id,
  how: z.union([z.enum(['right', 'wrong', 'random']), z.strictObject({ ability: z.number().min(-5).max(5) })]),
})
export type Filling = z.infer<typeof filling>

export type Rehearsed = Omit<z.infer<typeof rehearsed>, 'rehearsal'>
export const rehearsed = z.strictObject({
  rehearsal,
  /** What the student's page asks; */
  ask: request.optional(),
  /** or what is filled in; */
  fill: filling.optional(),
  /** or which questions stand on a paper. */
  paper: id.optional(),
})

import { z } from 'zod'
import { instant } from '../kit/instant'
import { facetNames, type FacetName } from './names'

export { facetNames, type FacetName } from './names'

const offset = z
  .int()
  .min(0)
  .max(60 * 24 * 366)
  .default(0)

/** The instant from which a facet is shown. Offsets are minutes after it. */
export const moment = z.discriminatedUnion('at', [
  z.strictObject({ at: z.literal('never') }),
  z.strictObject({ at: z.literal('handIn'), offset }),
  z.strictObject({ at: z.literal('marked'), offset }),
  z.strictObject({ at: z.literal('attemptsUsed'), offset }),
  z.strictObject({ at: z.literal('due'), offset }),
  z.strictObject({ at: z.literal('windowClosed'), offset }),
  z.strictObject({ at: z.literal('everyoneDone'), offset }),
  z.strictObject({ at: z.literal('teacher') }),
  z.strictObject({ at: z.literal('instant'), instant }),
])
export type Moment = z.infer<typeof moment>
export type MomentName = Moment['at']

export const facetRule = z.strictObject({
  from: moment,
  until: instant.nullable().default(null),
  once: z.boolean().default(false),
  ifPassed: z.boolean().default(false),
  /** Of questions, only of those that were not answered fully right. */
  wrongOnly: z.boolean().default(false),
})
export type FacetRule = z.infer<typeof facetRule>

export const releaseRules = z.strictObject(
  Object.fromEntries(facetNames.map((name) => [name, facetRule])) as Record<FacetName, typeof facetRule>,
)
export type ReleaseRules = z.infer<typeof releaseRules>

export const momentLabels: Record<MomentName, string> = {
  never: 'never',
  handIn: 'on handing in',
  marked: 'when marked',
  attemptsUsed: 'when their attempts are used up',
  due: 'at the due time',
  windowClosed: 'when the window has closed for them',
  everyoneDone: 'when everyone is done',
  teacher: 'when I release it',
  instant: 'at a set time',
}

export const facetLabels: Record<FacetName, string> = {
  score: 'Score of the attempt',
  grade: 'Grade, and whether passed',
  questions: 'Questions',
  answers: 'Own answers',
  marks: 'Right or wrong, points',
  key: 'Correct answers',
  comments: 'Comments on answers',
  class: 'Class figures',
  best: 'Best results',
  certificate: 'Certificate',
}

/** Facets of single questions: all of them may be shown, or only the wrong ones. */
export const ofQuestions: readonly FacetName[] = ['questions', 'answers', 'marks', 'key', 'comments']

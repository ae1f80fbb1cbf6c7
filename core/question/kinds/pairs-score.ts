import { z } from 'zod'
import { Fraction, atLeast, exact, sum } from '../../kit/exact'
import { credit, creditBounds, creditIn, inHundredths, noBounds, shareOf, wrongCost } from './credits'
import { optionBase } from './options'

const target = optionBase.pick({ id: true, html: true })

/** Matching and sorting share a body: things, and what each belongs to. */
export const pairsBody = z.strictObject({
  items: z
    .array(
      optionBase.omit({ fixed: true }).extend({
        target: z.string().max(24).nullable(),
        /** What its pair counts among the pairs; left out, 1. */
        weight: z.number().min(0.01).max(100).multipleOf(0.01).optional(),
        /** What each of its pairs adds under the rule “credits”, by target; a pair that is not named costs as every wrong one. */
        credits: z.record(z.string().max(24), credit).optional(),
      }),
    )
    .max(40, 'At most 40 things can be placed.'),
  targets: z.array(target).max(40, 'At most 40 places can be offered.'),
  /** A share for every pair that is right, or everything only for all of them and no wrong one, or what each pair adds. */
  rule: z.enum(['share', 'all', 'credits']).default('share'),
  /**
   * What a wrong pair takes away: as a share of what a right one earns on average, or under “credits” a credit. Of no
   * meaning to “all”.
   */
  wrongCost,
  ...creditBounds,
})
export type PairsBody = z.infer<typeof pairsBody>
export type Item = PairsBody['items'][number]

export const pairsAnswer = z.strictObject({
  pairs: z
    .record(z.string().max(24), z.string().max(24))
    .refine((pairs) => Object.keys(pairs).length <= 40, 'At most 40 things can be placed.'),
})
export type PairsAnswer = z.infer<typeof pairsAnswer>

/** What a pair adds under the rule “credits”. */
export const creditOf = ({ wrongCost }: PairsBody, { credits }: Item, target: string): number =>
  creditIn(credits, target, wrongCost)
/** All that the pairs of the key add under the rule “credits”. */
export const allCredits = (body: PairsBody): Fraction =>
  sum(body.items.map((item) => exact(item.target === null ? 0 : creditOf(body, item, item.target))))

/** A thing that belongs nowhere is wrong anywhere; a pair that earns as much as the key's is as right. */
export function isRight(body: PairsBody, item: Item, target: string | undefined): boolean {
  if (target === undefined || item.target === null) return (target ?? null) === item.target
  return (
    target === item.target ||
    (body.rule === 'credits' && creditOf(body, item, target) >= creditOf(body, item, item.target))
  )
}

/** The places that are right for a thing, its own first; none where it belongs nowhere. */
export const placesOf = (body: PairsBody, item: Item): string[] =>
  item.target === null
    ? []
    : [item.target, ...body.targets.flatMap(({ id }) => (id !== item.target && isRight(body, item, id) ? [id] : []))]

/** Share of the pairs right, wrong pairs cost as set, floor 0; or what the pairs add (semantics §2). */
export function fractionOf(body: PairsBody, { pairs }: PairsAnswer): Fraction {
  const made = body.items.filter((item) => pairs[item.id] !== undefined)
  if (body.rule === 'credits')
    return shareOf(body, allCredits(body), sum(made.map((item) => exact(creditOf(body, item, pairs[item.id]!)))))
  const right = made.filter((item) => item.target === pairs[item.id])
  return ofPairs(body, right, made.length - right.length)
}

/** What so many wrong pairs leave of what these right ones earn; of the rules “share” and “all”. */
export function ofPairs(body: PairsBody, right: readonly Item[], wrong: number): Fraction {
  const belonging = body.items.filter((item) => item.target !== null)
  if (!belonging.length) return new Fraction(0)
  if (body.rule === 'all') return new Fraction(right.length === belonging.length && wrong === 0 ? 1 : 0)
  const weighs = (items: readonly Item[]) => sum(items.map((item) => weightOf(item)))
  const cost = exact(body.wrongCost).mul(wrong).div(belonging.length)
  return atLeast(0, weighs(right).div(weighs(belonging)).sub(cost))
}

const weightOf = ({ weight = 1 }: Item) => exact(weight)

/** A target that several things were given to takes the first: no page offers that. */
export function takenOnce(body: PairsBody, { pairs }: PairsAnswer): PairsAnswer {
  const taken = new Set<string>()
  const kept = body.items.filter(({ id }) => {
    const target = pairs[id]
    if (target === undefined || taken.has(target)) return false
    taken.add(target)
    return true
  })
  return { pairs: Object.fromEntries(kept.map(({ id }) => [id, pairs[id]!])) }
}

/**
 * The same question by credits, which score as its rule did until now: each right pair adds what it counts, any other takes
 * away what a wrong one costs. From “all” it is begun with a share for each. Credits go up to 10, in hundredths. What was by
 * credits before another rule was looked at is taken up again.
 */
export function byCredits(body: PairsBody): PairsBody {
  if (body.items.some(({ credits }) => credits)) return { ...body, rule: 'credits' }
  const right = body.items.filter((item) => item.target !== null)
  const counts = right.map(({ weight = 1 }) => weight)
  const scale = Math.max(1, Math.max(...counts, 0) / 10)
  const average = counts.reduce((all, each) => all + each, 0) / Math.max(1, right.length)
  const cost = body.rule === 'share' ? (body.wrongCost * average) / scale : 0
  return {
    ...body,
    ...noBounds,
    rule: 'credits',
    wrongCost: Math.min(10, inHundredths(cost) / 100),
    items: body.items.map((item) => ({
      ...item,
      credits:
        item.target === null ? {} : { [item.target]: Math.max(0.01, inHundredths((item.weight ?? 1) / scale) / 100) },
    })),
  }
}

/** A thing that belongs elsewhere, or nowhere, from now on: its credit goes along. */
export function placedAt(body: PairsBody, item: Item, target: string | null): Item {
  if (body.rule !== 'credits') return { ...item, target }
  const { [item.target ?? '']: before = 1, ...others } = item.credits ?? {}
  return { ...item, target, credits: target === null ? others : { ...others, [target]: before > 0 ? before : 1 } }
}

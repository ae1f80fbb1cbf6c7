import { gathered, mapped, type Chances } from '../kit/chances'
import { atLeast, exact, Fraction } from '../kit/exact'
import { wrongAnswerCost } from '../marking/wrong-answer'
import type { Rules } from '../quiz/schema'
import type { WrongCost } from '../rules/content/wrong-cost'
import type { QuestionFacts } from './facts'

const one = new Fraction(1)

/** How many complete answers there are to a question, and how many of them are fully right. */
function answersTo({ guesses, options }: QuestionFacts): { all: number; right: number } {
  const full = guesses.reduce((sum, { value, chance }) => (exact(value).compare(1) >= 0 ? sum + chance : sum), 0)
  if (full <= 0) return { all: Infinity, right: 0 }
  // Where the number of answers is not known, exactly one of them is taken to be right.
  const all = options ?? Math.max(1, Math.round(1 / full))
  return { all, right: Math.max(1, Math.round(full * all)) }
}

/**
 * What guessing earns on a question in one attempt, as a share of its points (semantics §8). Where answers can be checked
 * while working, the guesser never gives the same answer twice, so the tries are draws without replacement from all
 * possible answers. Each further try costs what the rules say. If no try was right, the last answer stands, with the cost
 * of a wrong answer.
 * @param cost of a wrong answer in this quiz
 * @param working what students may check while they work
 * @returns shares with their chances, which add up to 1
 */
export function guessOutcomes(
  facts: QuestionFacts,
  cost: WrongCost,
  working: Pick<Rules['working'], 'check' | 'tries' | 'cost'>,
): Chances {
  const off = wrongAnswerCost(facts.options, cost)
  const lessWrong = (share: Fraction) => (share.equals(0) ? share.sub(off) : share)
  const { all, right } = answersTo(facts)
  if (!working.check || right === 0) return off.equals(0) ? facts.guesses : mapped(facts.guesses, lessWrong)
  const each = exact(working.cost).div(100)
  const tries = Math.min(working.tries ?? Infinity, all - right + 1)
  const outcomes: [Fraction, number][] = []
  let open = 1
  for (let tried = 1; tried <= tries && open > 0; tried++) {
    const left = atLeast(0, one.sub(each.mul(tried - 1)))
    // From here on nothing is left of the points, or nothing is taken off them: all that come are alike.
    const alike = left.equals(0) || each.equals(0)
    const last = alike ? tries : tried
    const missed = chanceOfNone(all, right, last) / chanceOfNone(all, right, tried - 1)
    outcomes.push([left, open * (1 - missed)])
    open *= missed
    tried = last
  }
  const wrong = facts.guesses.filter(({ value }) => exact(value).compare(1) < 0)
  const weight = wrong.reduce((sum, { chance }) => sum + chance, 0)
  const further = each.mul(Math.max(0, tries - 1))
  if (open > 1e-15 && weight > 0)
    for (const { value, chance } of wrong) {
      const share = exact(value)
      const kept = share.compare(0) > 0 ? atLeast(0, share.sub(further)) : lessWrong(share)
      outcomes.push([kept, (open * chance) / weight])
    }
  return gathered(outcomes)
}

/** The chance that none of n answers, drawn without replacement out of `all`, is one of the `right` ones. */
function chanceOfNone(all: number, right: number, n: number): number {
  if (n > all - right) return 0
  if (right === 1) return (all - n) / all
  let chance = 1
  for (let i = 0; i < Math.min(n, right); i++)
    chance *= n >= right ? (all - n - i) / (all - i) : (all - right - i) / (all - i)
  return chance
}

/** The best share that a question earns over several attempts, each guessed independently. */
export function bestOf(outcomes: Chances, attempts: number): Chances {
  let below = 0
  return outcomes.map(({ value, chance }) => {
    const upTo = Math.min(1, below + chance)
    const best = { value, chance: upTo ** attempts - below ** attempts }
    below = upTo
    return best
  })
}

/**
 * The weighted sum, over attempts, of the best share that a question had earned by each: what it adds to an average over
 * attempts that hold only the questions missed.
 * @param weights one for each attempt, whole numbers
 * @returns sums in units of one share times one weight
 */
export function bestsWeighted(outcomes: Chances, weights: readonly number[]): Chances {
  const rising = outcomes.map(({ value, chance }) => ({ share: exact(value), chance }))
  // By the place of the best so far: the sums that there are, with their chances.
  let states = new Map<number, Chances>([[-1, [{ value: '0', chance: 1 }]]])
  for (const weight of weights) {
    const next = new Map<number, [Fraction, number][]>()
    for (const [best, sums] of states)
      rising.forEach(({ chance }, place) => {
        const now = Math.max(best, place)
        const known = next.get(now) ?? []
        for (const sum of sums) known.push([exact(sum.value).add(rising[now]!.share.mul(weight)), sum.chance * chance])
        next.set(now, known)
      })
    states = new Map([...next].map(([best, sums]) => [best, gathered(sums)]))
  }
  return gathered([...states.values()].flat().map(({ value, chance }) => [exact(value), chance] as const))
}

import { Fraction, exact } from '../kit/exact'
import type { WrongCost } from '../rules/content/wrong-cost'

/** What a wrong answer costs, as a share of the points. @param k options to choose from; null where none ever costs */
export function wrongAnswerCost(k: number | null, cost: WrongCost): Fraction {
  if (cost.by === 'none' || k === null || k < 2) return new Fraction(0)
  return cost.by === 'share' ? exact(cost.share) : new Fraction(1, k - 1)
}

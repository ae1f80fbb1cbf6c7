import { facilityOf, type QuestionFacts } from '../figures/facts'

/**
 * The chance that somebody of an ability (in logits; 0 is usual) gets a question right: by the Rasch model where the
 * question is calibrated, else on the same scale about its facility, 1/(1 + exp(−(logit(p) + θ))), so that who is of usual
 * ability gets it right with chance p.
 */
export function chanceFor(facts: QuestionFacts, ability: number): number {
  const { logit = null } = facts
  if (logit !== null) return 1 / (1 + Math.exp(logit - ability))
  const p = facilityOf(facts)
  if (ability === 0 || p <= 0 || p >= 1) return p
  return 1 / (1 + ((1 - p) / p) * Math.exp(-ability))
}

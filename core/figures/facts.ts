import type { Chances } from '../kit/chances'

/** What figures need to know of a question. */
export interface QuestionFacts {
  /** The first is the main one. */
  objectives: readonly string[]
  /** Expected working time: the median, in seconds. */
  seconds: number
  /** The teacher's 1 to 5. */
  difficulty: number
  /** Measured facility with n; null below the least that anything is told of. */
  right: { share: number; n: number } | null
  /** The share of its points that guessing earns. */
  guesses: Chances
  /** k for formula scoring; null where a wrong answer never costs. */
  options: number | null
  /** Rasch difficulty in logits, where it has been calibrated. */
  logit?: number | null
}

/** The chance that a student gets a question right where nothing is measured, by difficulty 1 to 5 (semantics §8). */
export const usualFacility = [0.9, 0.8, 0.65, 0.5, 0.35] as const

/** The facts out of something that says more of a question: plain data, which a worker takes. */
export const factsFrom = (of: QuestionFacts): QuestionFacts => ({
  objectives: [...of.objectives],
  seconds: of.seconds,
  difficulty: of.difficulty,
  right: of.right && { ...of.right },
  guesses: of.guesses.map((each) => ({ ...each })),
  options: of.options,
  logit: of.logit ?? null,
})

/** What stands for a question that nothing is known of. */
export const unknownFacts: QuestionFacts = {
  objectives: [],
  seconds: 60,
  difficulty: 3,
  right: null,
  guesses: [{ value: '0', chance: 1 }],
  options: null,
}

export type Facts = ReadonlyMap<string, QuestionFacts>

export const factsOf = (facts: Facts, question: string): QuestionFacts => facts.get(question) ?? unknownFacts

/** The chance that a student of usual ability gets it right: measured, or the default of its difficulty. */
export function facilityOf({ right, difficulty }: QuestionFacts): number {
  if (right) return Math.min(1, Math.max(0, right.share))
  return usualFacility[Math.min(5, Math.max(1, Math.round(difficulty))) - 1]!
}

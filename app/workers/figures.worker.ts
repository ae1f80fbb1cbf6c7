import {
  figuresFor,
  workingTime,
  type Figures,
  type GuessingRules,
  type QuestionFacts,
  type WorkingTime,
} from '~~/core/figures'
import type { Content } from '~~/core/quiz'

export interface FiguresAsked {
  stamp: number
  content: Content
  rules: GuessingRules
  /** Of questions that are new or have changed since what was asked before. */
  facts: [string, QuestionFacts][]
}
export type FiguresTold = { stamp: number; figures: Figures } | { stamp: number; time: WorkingTime | null }

/** What is known of questions, from all that was asked. */
const facts = new Map<string, QuestionFacts>()

/** Figures are worked out beside the page, so that typing never waits for them; what is simulated comes after the rest. */
self.addEventListener('message', (event: MessageEvent<FiguresAsked>) => {
  const { stamp, content, rules } = event.data
  for (const [id, each] of event.data.facts) facts.set(id, each)
  self.postMessage({ stamp, figures: figuresFor(content, rules, facts) } satisfies FiguresTold)
  self.postMessage({ stamp, time: workingTime(content, facts) } satisfies FiguresTold)
})

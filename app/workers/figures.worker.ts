import { figuresFor, workingTime, type Figures, type QuestionFacts, type WorkingTime } from '~~/core/figures'
import type { Content, Rules } from '~~/core/quiz'

export interface FiguresAsked {
  stamp: number
  content: Content
  rules: Pick<Rules, 'grade' | 'late' | 'attempts'>
  facts: [string, QuestionFacts][]
}
export type FiguresTold = { stamp: number; figures: Figures } | { stamp: number; time: WorkingTime | null }

/** Figures are worked out beside the page, so that typing never waits for them; what is simulated comes after the rest. */
self.addEventListener('message', (event: MessageEvent<FiguresAsked>) => {
  const { stamp, content, rules } = event.data
  const facts = new Map(event.data.facts)
  self.postMessage({ stamp, figures: figuresFor(content, rules, facts) } satisfies FiguresTold)
  self.postMessage({ stamp, time: workingTime(content, facts) } satisfies FiguresTold)
})

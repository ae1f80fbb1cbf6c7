import { figuresFor, type QuestionFacts } from '~~/core/figures'
import type { Content } from '~~/core/quiz'

/** Figures are worked out beside the page, so that typing never waits for them. */
self.addEventListener(
  'message',
  (event: MessageEvent<{ stamp: number; content: Content; facts: [string, QuestionFacts][] }>) => {
    const { stamp, content, facts } = event.data
    self.postMessage({ stamp, figures: figuresFor(content, new Map(facts)) })
  },
)

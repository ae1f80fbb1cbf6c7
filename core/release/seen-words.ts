import { list, sentenceTime } from '../kit/phrases'
import type { Visible } from './facets'
import { facetNames, type FacetName } from './names'

/** How a student reads each facet of their own paper. */
const own: Record<FacetName, string> = {
  score: 'your score',
  grade: 'your grade',
  questions: 'the questions',
  answers: 'your answers',
  marks: 'what was right or wrong',
  key: 'the correct answers',
  comments: 'comments',
  class: 'how your class did',
  best: 'the best results',
  certificate: 'your certificate',
}

/**
 * What a student can see of a paper, and what comes next and when, in sentences. Nothing is said of what never comes, or of
 * which nobody knows when.
 */
export function seenWords({ facets, changesAt }: Visible, zone: string): string {
  const seen = facetNames.filter((name) => facets[name].shown).map((name) => own[name])
  const next = facetNames
    // What only who has passed will see would tell whether they have.
    .filter((name) => {
      const { shown, from, ifPassed } = facets[name]
      return !shown && !ifPassed && from !== null && from === changesAt
    })
    .map((name) => own[name])
  return [
    seen.length ? `You can see ${list(seen)}.` : '',
    next.length
      ? `${seen.length ? 'Then' : 'You will see'} ${list(next)}, from ${sentenceTime(changesAt!, zone)}.`
      : '',
  ]
    .filter(Boolean)
    .join(' ')
}

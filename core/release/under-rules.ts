import { makesGrade } from '../rules/counts'
import type { Rules } from '../quiz/schema'
import type { FacetName } from './names'
import { facetNames, type FacetRule, type ReleaseRules } from './schema'

/** What there is to show of a survey: nothing of it is marked, and nothing in it is right. */
const ofSurvey: readonly FacetName[] = ['questions', 'answers']
const never: FacetRule = { from: { at: 'never' }, until: null, once: false, ifPassed: false, wrongOnly: false }

/** Facets that there are under these rules. */
export const facetsOf = ({ counts, anonymous }: Pick<Rules, 'counts' | 'anonymous'>): readonly FacetName[] =>
  counts === 'survey'
    ? ofSurvey
    : // Without names there is nobody to be called the best.
      facetNames.filter((name) => name !== 'best' || (!anonymous && makesGrade(counts)))

/** The release of a quiz: as its rules say, but of what there is none nothing is ever shown. Every place that shows something asks this one. */
export function releaseOf(rules: Pick<Rules, 'counts' | 'anonymous' | 'release'>): ReleaseRules {
  const there = facetsOf(rules)
  if (there.length === facetNames.length) return rules.release
  return Object.fromEntries(
    facetNames.map((name) => [name, there.includes(name) ? rules.release[name] : never]),
  ) as ReleaseRules
}

export {
  visibleFacets,
  releasedByHand,
  shownInLists,
  heldBack,
  instantOf,
  type ReleaseContext,
  type Visible,
  type FacetSight,
} from './facets'
export { facetsOf, releaseOf } from './under-rules'
export { leakBetween, type LeakBetween } from './between'
export { leaks, type Leak } from './leaks'
export { seenWords } from './seen-words'
export {
  classmates,
  endsByRules,
  endsFrom,
  endsOf,
  latestEnds,
  type Assigned,
  type Ends,
  type LatestEnds,
  type OpenEnd,
} from './ends'
export { earliestSight } from './earliest'
export {
  facetNames,
  facetLabels,
  momentLabels,
  moment,
  type FacetName,
  type FacetRule,
  type Moment,
  type MomentName,
  type ReleaseRules,
} from './schema'

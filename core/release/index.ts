export { visibleFacets, shownInLists, instantOf, type ReleaseContext, type Visible, type FacetSight } from './facets'
export { leaks, type Leak } from './leaks'
export { classEnd, greatestEnd, type Assigned } from './ends'
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

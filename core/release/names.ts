/** The things a student may see after an attempt, in the order in which they are told (semantics §7). */
export const facetNames = [
  'score',
  'grade',
  'questions',
  'answers',
  'marks',
  'key',
  'comments',
  'class',
  'best',
  'certificate',
] as const
export type FacetName = (typeof facetNames)[number]

/** What gives the key away (semantics §7): own answers matter only beside marks. */
export const telling: readonly FacetName[] = ['key', 'comments', 'marks']

import type { SealedBody } from '~~/core/question/kinds/sealed'

/**
 * Fields that few papers need, each loaded when a paper has one. A sitting loads all of its own when it opens, so that
 * nothing is missing once the connection is lost.
 */
export const fields = {
  gaps: () => import('./GapsField.vue'),
  pairs: () => import('./PairsField.vue'),
  order: () => import('./OrderField.vue'),
  spot: () => import('./SpotField.vue'),
  places: () => import('./PlacesField.vue'),
  recording: () => import('./RecordingField.vue'),
}
export const tools = () => import('./QuestionTools.vue')

/** Loads the fields that ways of asking need. */
export async function loadFields(asked: Iterable<SealedBody['asks']>): Promise<void> {
  await Promise.all([...new Set(asked)].map((asks) => (asks in fields ? fields[asks as keyof typeof fields]() : null)))
}

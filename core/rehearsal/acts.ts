import type { Instant } from '../kit/time'

/** Something that a student did in a rehearsal: a request of their page, and when. */
export interface Act {
  at: Instant
  method: 'GET' | 'POST' | 'PUT' | 'DELETE'
  path: string
  query: Record<string, string | number>
  body?: unknown
}

interface Save {
  lease: number
  answers: { item: string; seq: number }[]
}
/** Answers are sent by so many at once (the server's own bound). */
const mostAnswers = 100

const isSave = ({ method, path }: Act): boolean => method === 'POST' && /^sittings\/[^/]+\/answers$/.test(path)

/** Whether a request is kept as an act: it changes something, or what is seen by it is noted. */
export const changes = ({ method, path }: Pick<Act, 'method' | 'path'>): boolean =>
  method !== 'GET' || path.startsWith('reviews/')

/**
 * The acts with one more. Answers that follow each other on one device are sent as one: of a question the last counts,
 * then as before. A review that is looked at again tells nothing new. What was done later than it has not been done.
 * @param clean all that it sent was kept: what was refused in between stays as it was sent
 */
export function withAct(acts: readonly Act[], act: Act, clean = true): Act[] {
  const before = acts.filter(({ at }) => at <= act.at)
  const last = before.at(-1)
  if (last && act.method === 'GET' && last.method === 'GET' && last.path === act.path) return before
  if (last && clean && isSave(last) && isSave(act) && last.path === act.path) {
    const [one, two] = [last.body as Save, act.body as Save]
    const answers = [...new Map([...one.answers, ...two.answers].map((each) => [each.item, each])).values()]
    if (one.lease === two.lease && answers.length <= mostAnswers)
      return [...before.slice(0, -1), { ...act, body: { ...two, answers } }]
  }
  return [...before, act]
}

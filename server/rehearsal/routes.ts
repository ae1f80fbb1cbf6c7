import begin from '../api/my/quizzes/[id]/start.post'
import before from '../api/my/quizzes/[id]/index.get'
import beginBreak from '../api/sittings/[id]/break.post'
import check from '../api/sittings/[id]/check.post'
import clock from '../api/sittings/[id]/clock.get'
import done from '../api/my/quizzes/[id]/done.put'
import endBreak from '../api/sittings/[id]/break.delete'
import enterSection from '../api/sittings/[id]/section.post'
import handIn from '../api/sittings/[id]/hand-in.post'
import hint from '../api/sittings/[id]/hint.post'
import keepNotes from '../api/sittings/[id]/notes.put'
import list from '../api/my/quizzes/index.get'
import noteAway from '../api/sittings/[id]/away.post'
import open from '../api/sittings/[id]/open.post'
import review from '../api/reviews/[id].get'
import save from '../api/sittings/[id]/answers.post'
import takeUp from '../api/sittings/[id]/again.post'
import turnPage from '../api/sittings/[id]/page.post'
import type { Playable } from '../utils/route'
import type { Request } from './schema'

/** What a route is asked about: the quiz itself, an attempt at it, or all that is the student's. */
type About = 'quiz' | 'attempt' | 'list'

/** The student's routes that a rehearsal plays. */
const played: [method: Request['method'], path: string, about: About, route: Playable][] = [
  ['GET', 'my/quizzes', 'list', list],
  ['GET', 'my/quizzes/[id]', 'quiz', before],
  ['POST', 'my/quizzes/[id]/start', 'quiz', begin],
  ['PUT', 'my/quizzes/[id]/done', 'quiz', done],
  ['POST', 'sittings/[id]/again', 'attempt', takeUp],
  ['POST', 'sittings/[id]/open', 'attempt', open],
  ['POST', 'sittings/[id]/answers', 'attempt', save],
  ['GET', 'sittings/[id]/clock', 'attempt', clock],
  ['POST', 'sittings/[id]/hand-in', 'attempt', handIn],
  ['POST', 'sittings/[id]/check', 'attempt', check],
  ['POST', 'sittings/[id]/hint', 'attempt', hint],
  ['PUT', 'sittings/[id]/notes', 'attempt', keepNotes],
  ['POST', 'sittings/[id]/away', 'attempt', noteAway],
  ['POST', 'sittings/[id]/section', 'attempt', enterSection],
  ['POST', 'sittings/[id]/break', 'attempt', beginBreak],
  ['DELETE', 'sittings/[id]/break', 'attempt', endBreak],
  ['POST', 'sittings/[id]/page', 'attempt', turnPage],
  ['GET', 'reviews/[id]', 'attempt', review],
]

/** Routes of students that are no part of a rehearsal: bytes that would have to be kept, and what is about no quiz. */
export const notPlayed: readonly string[] = [
  'POST sittings/[id]/recordings',
  'POST classes/join',
  'GET my/reminders',
  'PUT my/reminders',
]
export const playedRoutes: readonly string[] = played.map(([method, path]) => `${method} ${path}`)

export interface Found {
  route: Playable
  about: About
  /** What stands in the place of [id]. */
  id: string | undefined
}

/** The route that a request is for; undefined for one that a rehearsal has no part in. */
export function routeFor({ method, path }: Pick<Request, 'method' | 'path'>): Found | undefined {
  const parts = path.split('/')
  for (const [its, pattern, about, route] of played) {
    const wanted = pattern.split('/')
    const fits =
      its === method &&
      wanted.length === parts.length &&
      wanted.every((part, i) => (part === '[id]' ? parts[i] !== '' : part === parts[i]))
    if (fits) return { route, about, id: wanted.includes('[id]') ? parts[wanted.indexOf('[id]')] : undefined }
  }
  return undefined
}

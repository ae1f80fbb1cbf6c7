import { createHmac } from 'node:crypto'
import type { Instant } from '../../core/kit/time'
import { mapInOrder } from '../database/batches'
import type { Database } from '../database/database'
import { onto, type Stage } from '../database/stage'
import { Problem } from '../domain/problem'
import { drawSecret } from '../domain/quizzes/edition'
import { loadAttempts, loadPaper } from '../domain/sittings/attempts'
import type { Person } from '../people/people'
import { currentSession } from '../people/current-session'
import { ensureRight } from '../people/rights'
import { Sent } from '../utils/job'
import { problemDetails } from '../utils/route'
import { fillIn } from './fill'
import { routeFor } from './routes'
import type { Act, Rehearsal, Rehearsed, Request } from './schema'
import { stageTables } from './stage-tables'
import { lookUpPlayed, setStage } from './stand'

/** What a request of a student's page is answered in a rehearsal. */
export interface Played {
  status: number
  reply: unknown
  /** What was done by filling in: it goes to the acts. */
  acts: Act[]
}

const notHere = () => new Problem(404, 'not-here', 'This is no part of the rehearsal of this quiz.')

/** A stage whose chance comes again at every performance: the n-th draw of bytes of one act is always the same. */
function stageFor(seed: string, jobs: Stage['job']): { stage: Stage; turnTo(act: string): void } {
  let [act, drawn] = ['', 0]
  const before = new Map<string, number>()
  const remembered: Stage['remembered'] = new Map()
  return {
    turnTo(next) {
      const times = before.get(next) ?? 0
      before.set(next, times + 1)
      act = `${next} ${times}`
      drawn = 0
    },
    stage: {
      remembered,
      bytes: (length) => createHmac('sha512', seed).update(`${act} ${drawn++}`).digest().subarray(0, length),
      job: jobs,
    },
  }
}

/**
 * Asks one route as the student would. Only the quiz that is rehearsed is answered for: nothing of what else the student
 * sits is told. @throws Problem
 */
async function ask(db: Database, student: Person, quiz: string, request: Request, now: Instant): Promise<unknown> {
  if (request.method === 'GET' && request.path === 'session') {
    const session = await currentSession(db, student, now)
    // The address that a student signs in with is not part of what is rehearsed.
    return { ...session, person: session.person && { ...session.person, email: null } }
  }
  const found = routeFor(request)
  if (!found) throw notHere()
  const { route, about, id } = found
  if (about === 'quiz' && id !== quiz) throw notHere()
  if (about === 'attempt') {
    const [attempt] = await loadAttempts(db, { ids: [id!] })
    if (!attempt || attempt.quiz !== quiz) throw notHere()
  }
  await ensureRight(db, route.right, student, id)
  const reply = await route.play({
    db,
    now,
    person: student,
    address: 'rehearsal',
    params: { id },
    query: request.query,
    body: request.body,
  })
  const value = reply instanceof Sent ? reply.value : reply
  if (about !== 'list') return value
  const all = value as { quizzes: { id: string }[]; more: boolean }
  return { ...all, quizzes: all.quizzes.filter((each) => each.id === quiz), more: false }
}

/**
 * Plays a rehearsal from its beginning and answers one request at its instant, or fills a paper in. The student's own
 * routes answer, on tables of their own of which nothing is kept (stage-tables.ts): no row that a real request
 * needs is written or locked.
 * @param jobs does what the routes would have done in a thread
 */
export async function playRehearsal(
  database: Database,
  teacher: Person,
  quiz: string,
  rehearsal: Rehearsal,
  { ask: request, fill, paper }: Rehearsed,
  jobs: Stage['job'],
): Promise<Played> {
  const secret = await drawSecret(database, quiz)
  const { acts, at, ...standing } = rehearsal
  const past = acts.filter((act) => act.at <= at)
  const { stage, turnTo } = stageFor(`${secret} ${JSON.stringify([standing.who, standing.draw])}`, jobs)
  const played = await lookUpPlayed(database, teacher, quiz, { ...standing, at }, secret)
  return onto(stage, () =>
    database.staged(stageTables(played.scope), async (db) => {
      turnTo('stage')
      const student = await setStage(db, teacher, quiz, played, standing, secret)
      await mapInOrder(past, async (act) => {
        turnTo(`${act.at} ${act.method} ${act.path}`)
        await ask(db, student, quiz, act, act.at).catch(ownProblem)
      })
      if (fill) {
        const filled = await fillIn(db, teacher, quiz, fill, at)
        await mapInOrder(filled, (act) => ask(db, student, quiz, act, at))
        return { status: 200, reply: null, acts: filled }
      }
      if (paper) return { status: 200, reply: await questionsOn(db, quiz, paper), acts: [] }
      if (!request) throw notHere()
      turnTo(`${at} ${request.method} ${request.path}`)
      try {
        return { status: 200, reply: (await ask(db, student, quiz, request, at)) ?? null, acts: [] }
      } catch (error) {
        const problem = ownProblem(error)
        return { status: problem.status, reply: problemDetails(problem), acts: [] }
      }
    }),
  )
}

/** The questions of a paper by its items: a teacher goes from one to its editor. */
async function questionsOn(db: Database, quiz: string, id: string): Promise<Record<string, string>> {
  const [attempt] = await loadAttempts(db, { ids: [id], quizzes: [quiz] })
  if (!attempt) throw notHere()
  const { items } = await loadPaper(db, id)
  return Object.fromEntries(items.map((item) => [item.id, item.question]))
}

/** What the student would be told as well; anything else is a fault. */
function ownProblem(error: unknown): Problem {
  if (error instanceof Problem) return error
  throw error
}

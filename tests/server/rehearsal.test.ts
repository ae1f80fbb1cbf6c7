/** Rehearsals: the student's own routes, on a stage of which nothing is kept. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newRow } from '../../core/quiz'
import type { Instant } from '../../core/kit/time'
import { usualRules } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { Remembered } from '../../server/database/remembered'
import { openQuiz } from '../../server/domain/quizzes/open'
import { loadAttempt } from '../../server/domain/sittings/attempts'
import { keepNote } from '../../server/domain/sittings/notes'
import { startSitting } from '../../server/domain/sittings/start'
import { openSitting } from '../../server/domain/sittings/sitting'
import { saveAnswers } from '../../server/domain/sittings/save'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { stageTables } from '../../server/rehearsal/stage-tables'
import { playRehearsal, type Played } from '../../server/rehearsal/play'
import { notPlayed, playedRoutes } from '../../server/rehearsal/routes'
import type { Act, Rehearsal, Rehearsed, Request } from '../../server/rehearsal/schema'
import { jobs } from '../../server/work/jobs'
import { freshDatabase, person } from '../support/database'
import { day, draftQuiz, itemsOf, later, openedQuiz, rulesEdit, threeRows } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('rehearsal', day)).db
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
const here = (name: string, input: readonly unknown[]) =>
  (jobs as unknown as Record<string, (...all: unknown[]) => Promise<unknown>>)[name]!(...input)
const blank = (at: Instant): Rehearsal => ({
  who: { student: nell },
  content: 'written',
  fresh: true,
  draw: 0,
  acts: [],
  at,
})
const get = (path: string): Request => ({ method: 'GET', path, query: {} })
const post = (path: string, body?: unknown): Request => ({ method: 'POST', path, query: {}, body })

/** A rehearsal as its page plays it: what was done is an act of what follows. */
class Play {
  acts: Act[] = []
  constructor(
    readonly quiz: string,
    readonly more: Partial<Rehearsal> = {},
  ) {}
  async ask(at: Instant, asked: Rehearsed): Promise<Played> {
    const whole = { ...blank(at), ...this.more, acts: this.acts, at }
    const played = await playRehearsal(db, await person(db, 'p-maren'), this.quiz, whole, asked, here)
    const { ask: request } = asked
    if (request && request.method !== 'GET' && played.status < 300) this.acts.push({ ...request, at })
    this.acts.push(...played.acts)
    return played
  }
  async done<T>(at: Instant, request: Request): Promise<T> {
    const { status, reply } = await this.ask(at, { ask: request })
    expect(status, JSON.stringify(reply)).toBe(200)
    return reply as T
  }
}

/** Something that is waited for, and opened by hand. */
function deferred(): { opened: Promise<void>; open: () => void } {
  let open = () => {}
  const opened = new Promise<void>((done) => {
    open = done
  })
  return { opened, open }
}

/** Everything that the database holds, counted and summed up. */
async function everything(): Promise<Record<string, unknown>> {
  const tables = await db.rows<{ name: string }>(
    "SELECT TABLE_NAME AS name FROM information_schema.TABLES WHERE TABLE_SCHEMA = DATABASE() AND TABLE_TYPE = 'BASE TABLE'",
  )
  const sums = await db.rows<{ Table: string; Checksum: string }>(
    `CHECKSUM TABLE ${tables.map(({ name }) => `\`${name}\``).join(', ')}`,
  )
  return Object.fromEntries(sums.map(({ Table, Checksum }) => [Table, Checksum]))
}

/** Two of five are drawn from a pool, beside three that everybody gets. */
const draft = (id: string) =>
  draftQuiz(db, id, {}, {}, [
    ...threeRows,
    newRow({
      type: 'pool',
      id: 'pool',
      questions: ['q-fire', 'q-gas', 'q-flare', 'q-lifejacket', 'q-lee-shore'],
      draw: 2,
      points: 1,
    }),
  ])

interface Opened {
  attempt: string
  lease: number
  sheet: { sections: { entries: { id: string; stem: string }[] }[] }
}

describe('a draft', () => {
  it('is sat, handed in and seen again at its times, and nothing of it stays', async () => {
    const quiz = await draft('draft')
    // What papers are drawn from is made once; from then on nothing changes any more.
    await new Play(quiz).ask(later(-10), { ask: get(`my/quizzes/${quiz}`) })
    const before = await everything()
    const play = new Play(quiz)
    const early = await play.done<{ may: { may: boolean } }>(later(-10), get(`my/quizzes/${quiz}`))
    expect(early.may.may).toBe(false)
    const { attempt } = await play.done<{ attempt: string }>(
      later(5),
      post(`my/quizzes/${quiz}/start`, { device: 'd1' }),
    )
    const opened = await play.done<Opened>(later(5), post(`sittings/${attempt}/open`, { device: 'd1' }))
    expect(opened.attempt).toBe(attempt)
    expect(opened.sheet.sections[0]!.entries).toHaveLength(5)
    const filled = await play.ask(later(20), { fill: { attempt, how: 'right' } })
    expect(filled.acts).toHaveLength(2)
    const again = await play.done<Opened>(later(21), post(`sittings/${attempt}/open`, { device: 'd1' }))
    await play.done(later(30), post(`sittings/${attempt}/hand-in`, { lease: again.lease, answers: [] }))
    const list = await play.done<{ quizzes: { id: string; may: string }[] }>(later(31), get('my/quizzes'))
    expect(list.quizzes.map(({ id }) => id)).toEqual([quiz])
    const review = await play.ask(later(200), { ask: get(`reviews/${attempt}`) })
    expect(review.status).toBe(200)
    expect(JSON.stringify(review.reply)).toContain('"5"')
    expect(await everything()).toEqual(before)
  })

  it('gives somebody made up the same paper at every request, in whatever thread it is played', async () => {
    const quiz = await draft('made-up')
    const play = new Play(quiz, { who: { inClass: 'c-tuesday' } })
    const { attempt } = await play.done<{ attempt: string }>(
      later(5),
      post(`my/quizzes/${quiz}/start`, { device: 'd1' }),
    )
    const open = () => play.done<Opened>(later(5), post(`sittings/${attempt}/open`, { device: 'd1' }))
    const { sheet } = await open()
    // Nothing is remembered where another thread plays it.
    Remembered.forgetAll()
    expect((await open()).sheet).toEqual(sheet)
    const filled = await play.ask(later(6), { fill: { attempt, how: 'right' } })
    expect(filled.acts.length).toBeGreaterThan(0)
    Remembered.forgetAll()
    await play.done(later(7), post(`sittings/${attempt}/hand-in`, { lease: 2, answers: [] }))
    const review = await play.ask(later(200), { ask: get(`reviews/${attempt}`) })
    expect(JSON.stringify(review.reply)).toContain('"answered":5')
  })

  it('shows the paper that the student gets when it is opened', async () => {
    const quiz = await draft('promised')
    const play = new Play(quiz)
    const { attempt } = await play.done<{ attempt: string }>(
      later(5),
      post(`my/quizzes/${quiz}/start`, { device: 'd1' }),
    )
    const rehearsedSheet = (await play.done<Opened>(later(5), post(`sittings/${attempt}/open`, { device: 'd1' }))).sheet
    const other = new Play(quiz, { draw: 1 })
    const another = await other.done<{ attempt: string }>(later(5), post(`my/quizzes/${quiz}/start`, { device: 'd1' }))
    const anotherSheet = (
      await other.done<Opened>(later(5), post(`sittings/${another.attempt}/open`, { device: 'd1' }))
    ).sheet
    await openQuiz(db, await person(db, 'p-maren'), quiz, later(-1))
    const real = await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, later(5))
    const { sheet } = await openSitting(db, nell, real.attempt, 'd1', later(5))
    expect(sheet).toEqual(rehearsedSheet)
    expect(anotherSheet).not.toEqual(rehearsedSheet)
  })
})

describe('a stage', () => {
  it('hides every table that holds something of an attempt', async () => {
    const rows = await db.rows<{ name: string }>(
      "SELECT TABLE_NAME AS name FROM information_schema.KEY_COLUMN_USAGE WHERE TABLE_SCHEMA = DATABASE() AND REFERENCED_TABLE_NAME = 'attempt'",
    )
    const hidden = stageTables({
      school: 's',
      quiz: 'q',
      student: nell,
      fresh: false,
      nameless: false,
      at: later(1),
    }).map(({ table }) => table)
    expect(rows.filter(({ name }) => !hidden.includes(name))).toEqual([])
  })

  it('can write nothing else, and waits for nobody who writes', async () => {
    const quiz = await openedQuiz(db, 'no-locks')
    const { attempt } = await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, day)
    const scope = {
      school: (await person(db, nell)).school,
      quiz,
      student: nell,
      fresh: false,
      nameless: false,
      at: later(1),
    }
    const held = deferred()
    const locked = deferred()
    // Somebody real has all of these rows locked, and does not let go.
    const real = db.transaction(async (tx) => {
      await tx.run('UPDATE quiz SET title = ? WHERE id = ?', ['Locked', quiz])
      await tx.run('UPDATE attempt SET page = 0, touched = touched + 1 WHERE id = ?', [attempt])
      await tx.run('UPDATE school SET roster = roster + 1')
      await tx.run('UPDATE answer SET flagged = 1 WHERE attempt_id = ?', [attempt])
      await tx.run('UPDATE person SET name = ? WHERE id = ?', ['Locked', nell])
      locked.open()
      await held.opened
      throw new Error('taken back')
    })
    await locked.opened
    await db.staged(stageTables(scope), async (stage) => {
      expect(await stage.run("UPDATE attempt SET state = 'handed' WHERE id = ?", [attempt])).toBe(1)
      expect(await stage.run('UPDATE quiz SET revision = revision + 1 WHERE id = ?', [quiz])).toBe(1)
      await expect(stage.run("UPDATE class SET name = 'Other'")).rejects.toThrow(/READ ONLY/)
      await expect(stage.run('UPDATE person SET name = name WHERE id = ?', [nell])).rejects.toThrow(/READ ONLY/)
      await expect(stage.rows('SELECT id FROM class FOR UPDATE')).rejects.toThrow(/READ ONLY/)
    })
    held.open()
    await expect(real).rejects.toThrow('taken back')
  })

  it('keeps nobody waiting: what it has written is written by others at the same moment', async () => {
    const quiz = await openedQuiz(db, 'no-waits')
    const [maren, petra] = [await person(db, 'p-maren'), await person(db, 'p-petra-lund')]
    const { attempt } = await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, day)
    const items = await itemsOf(db, attempt)
    const { item } = items['q-cover']!
    const scope = { school: maren.school, quiz, student: nell, fresh: false, nameless: false, at: later(1) }
    // A statement that waited for a lock would fail after one second.
    await db.staged(stageTables(scope), async (stage) => {
      await stage.run('UPDATE attempt SET touched = touched + 1')
      await stage.run('UPDATE answer SET flagged = 1')
      await stage.run("UPDATE quiz SET state = 'published'")
      await stage.run('UPDATE school SET roster = roster + 1')
      await stage.run('DELETE FROM quiz_notice')
      const began = performance.now()
      const answers = [{ item, response: { text: '2.3' }, flagged: false, seq: 1 }]
      expect((await saveAnswers(db, nell, attempt, 1, answers, later(1))).kept).toEqual([item])
      await startSitting(db, petra, quiz, { device: 'd1' }, later(1))
      const { revision } = await loadQuiz(db, quiz)
      await makeEdit(db, maren, quiz, revision, 'no-waits.1', await rulesEdit(db, quiz, { limit: 90 }), later(1))
      await createQuiz(db, maren, 'New', later(1), 'no-waits-new')
      expect(performance.now() - began).toBeLessThan(1000)
      // The stage goes on with what it had.
      expect(await stage.one('SELECT revision FROM quiz')).toEqual({ revision })
    })
  })
})

it('every route of students is played, or is said not to be', () => {
  const folder = join(import.meta.dirname, '..', '..', 'server', 'api')
  const ofStudents = readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.ts') && readFileSync(join(folder, file), 'utf8').includes("right: 'student'"))
    .map((file) => /^(.*)\.(get|post|put|delete)\.ts$/.exec(file)!)
    .map(([, path, method]) => `${method!.toUpperCase()} ${path!.replace(/\/index$/, '')}`)
  expect(ofStudents.length).toBeGreaterThan(15)
  expect([...playedRoutes, ...notPlayed].sort()).toEqual(ofStudents.sort())
})

describe('what it does not tell', () => {
  it('answers for its own quiz alone', async () => {
    const quiz = await openedQuiz(db, 'mine')
    const other = await openedQuiz(db, 'other')
    const { attempt } = await startSitting(db, await person(db, nell), other, { device: 'd1' }, later(1))
    const play = new Play(quiz)
    for (const request of [
      get(`my/quizzes/${other}`),
      get(`reviews/${attempt}`),
      post(`sittings/${attempt}/open`, { device: 'd2' }),
      get('quizzes/mine'),
      get('my/quizzes/mine/start'),
    ])
      expect((await play.ask(later(2), { ask: request })).status).toBe(404)
    expect((await play.done<{ quizzes: { id: string }[] }>(later(2), get('my/quizzes'))).quizzes).toHaveLength(1)
  })

  it('keeps what a student wrote for themself, and whose a paper without a name is', async () => {
    const quiz = await openedQuiz(db, 'noted', { tools: { ...usualRules.tools, notes: true } })
    const { attempt } = await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, later(1))
    const item = Object.values(await itemsOf(db, attempt))[0]!.item
    const note = { item, note: 'My own secret thought', marks: [] }
    await keepNote(db, nell, attempt, note, later(2))
    const asTheyStand = new Play(quiz, { fresh: false, content: 'open' })
    const opened = await asTheyStand.done<object>(later(3), post(`sittings/${attempt}/open`, { device: 'd2' }))
    expect(JSON.stringify(opened)).not.toContain('secret thought')
    // In real life their paper and its lease are as they were.
    expect(JSON.stringify(await openSitting(db, nell, attempt, 'd1', later(4)))).toContain('secret thought')
    expect((await loadAttempt(db, attempt)).lease).toBe(1)

    const unnamed = await openedQuiz(db, 'unnamed', { anonymous: true })
    const real = await startSitting(db, await person(db, nell), unnamed, { device: 'd1' }, later(1))
    const play = new Play(unnamed, { fresh: false, content: 'open' })
    expect((await play.ask(later(3), { ask: post(`sittings/${real.attempt}/open`, { device: 'd2' }) })).status).toBe(
      404,
    )
    expect(await play.done<{ may: object }>(later(3), get(`my/quizzes/${unnamed}`))).toMatchObject({
      may: { may: true },
    })
  })

  it('is for who works in the quiz, and for students of the school', async () => {
    const quiz = await openedQuiz(db, 'elsewhere')
    const play = new Play(quiz, { who: { student: 'p-idris' } })
    await expect(play.ask(later(2), { ask: get('my/quizzes') })).rejects.toMatchObject({ status: 404 })
    const made = new Play(quiz, { who: { inClass: 'c-tuesday' } })
    expect(await made.done<object>(later(2), get(`my/quizzes/${quiz}`))).toMatchObject({ may: { may: true } })
    const nowhere = new Play(quiz, { who: { inClass: 'c-none' } })
    await expect(nowhere.ask(later(2), { ask: get('my/quizzes') })).rejects.toMatchObject({ status: 404 })
  })
})

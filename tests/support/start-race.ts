/** Students start a quiz while its teacher changes something: whatever is changed holds for whoever started (semantics §5). */
import { expect } from 'vitest'
import { minute, plus, type Instant } from '../../core/kit/time'
import { newRow, newSection, noAccommodation, usualRules, type Accommodation, type Section } from '../../core/quiz'
import { limitsFor, scheduleFor } from '../../core/schedule'
import { fromSql, fromSqlOrNever } from '../../server/database/codec'
import type { Database } from '../../server/database/database'
import { changeClass } from '../../server/domain/classes/keeping'
import { moveStudents } from '../../server/domain/classes/members'
import { setNeeds } from '../../server/domain/classes/needs'
import { studentsByIds } from '../../server/domain/classes/students'
import { closeNow } from '../../server/domain/quizzes/close'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { setQuizState } from '../../server/domain/quizzes/open'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { mapInOrder } from '../../server/database/batches'
import { Problem } from '../../server/domain/problem'
import { takeUpAgain } from '../../server/domain/sittings/again'
import { beginBreak } from '../../server/domain/sittings/breaks'
import { enterSection } from '../../server/domain/sittings/enter-section'
import { handIn } from '../../server/domain/sittings/hand-in'
import { startSitting } from '../../server/domain/sittings/start'
import { person } from './database'
import { openedQuiz, rulesEdit } from './quiz'

interface Row {
  id: string
  student_id: string
  window_id: string
  started_at: string
  deadline: string
  hard_stop: string
  ended_by: string | null
  begun_on: number
}

interface Scene {
  db: Database
  quiz: string
  students: readonly string[]
  now: () => Instant
}

/** What a teacher does, and what has to be true of the papers afterwards. */
interface Act {
  name: string
  rules?: Parameters<typeof openedQuiz>[2]
  /** @returns what it told */
  run(scene: Scene): Promise<unknown>
  check(rows: readonly Row[], scene: Scene, told: unknown): Promise<void> | void
  /** Nobody starts after it. */
  endsStarts?: true
}

const maren = 'p-maren'
const noMore = 'nobody started after it was done'

/** Every paper has the limits of the rules and the needs that hold now. */
async function ensureLimits(rows: readonly Row[], { db, quiz }: Scene): Promise<void> {
  const { rules } = (await loadQuiz(db, quiz)).quiz
  const students = await studentsByIds(
    db,
    rows.map((row) => row.student_id),
  )
  const wrong = rows.filter((row) => {
    const wanted = limitsFor(scheduleFor(rules, students.get(row.student_id)!), {
      startedAt: fromSql(row.started_at),
      window: row.window_id,
    })
    return wanted.deadline !== fromSqlOrNever(row.deadline) || wanted.hardStop !== fromSqlOrNever(row.hard_stop)
  })
  expect(wrong).toEqual([])
}

const editRules = async ({ db, quiz, now }: Scene, rules: Parameters<typeof rulesEdit>[2]) => {
  const [teacher, { revision }] = [await person(db, maren), await loadQuiz(db, quiz)]
  return makeEdit(db, teacher, quiz, revision, `race.${revision}`, await rulesEdit(db, quiz, rules), now())
}

export const acts: readonly Act[] = [
  {
    name: 'close',
    endsStarts: true,
    run: async ({ db, quiz, now }) => closeNow(db, await person(db, maren), quiz, { everybody: true }, now()),
    check(rows, _scene, told) {
      expect(told).toEqual({ ended: rows.length })
      expect(rows.filter((row) => row.ended_by !== 'teacher')).toEqual([])
      expect(new Set(rows.map((row) => row.hard_stop)).size).toBeLessThanOrEqual(1)
    },
  },
  { name: 'more time', run: (scene) => editRules(scene, { limit: 90 }), check: ensureLimits },
  {
    name: 'extra time of each',
    run: async ({ db, students, now }) =>
      setNeeds(
        db,
        await person(db, maren),
        'c-tuesday',
        students,
        { ...noAccommodation, factor: 1.5, extraMinutes: 5 },
        now(),
      ),
    check: ensureLimits,
  },
  {
    name: 'more time and extra time at once',
    run: async (scene) => Promise.all([acts[1]!.run(scene), acts[2]!.run(scene)]),
    check: ensureLimits,
  },
  {
    name: 'names again',
    rules: { anonymous: true },
    run: (scene) =>
      editRules(scene, { anonymous: false }).then(
        () => 'lifted',
        () => 'refused',
      ),
    async check(rows, { db, quiz }, told) {
      const { revision, quiz: document } = await loadQuiz(db, quiz)
      expect(document.rules.anonymous).toBe(told === 'refused')
      // Whoever was told that it is without names began on rules that say so still.
      if (told === 'lifted') expect(rows.filter((row) => row.begun_on < revision)).toEqual([])
      else expect(rows.length).toBeGreaterThan(0)
    },
  },
  {
    name: 'withdraw',
    endsStarts: true,
    run: async ({ db, quiz, now }) => setQuizState(db, await person(db, maren), quiz, 'withdrawn', now()),
    check: () => {},
  },
  {
    name: 'hold the class back',
    endsStarts: true,
    run: async ({ db, now }) => changeClass(db, await person(db, maren), 'c-tuesday', { held: true }, now()),
    check: () => {},
  },
  {
    name: 'move everybody to another class',
    endsStarts: true,
    run: async ({ db, students, now }) =>
      moveStudents(db, await person(db, maren), { from: 'c-tuesday', to: 'c-saturday' }, students, now()),
    check: () => {},
  },
]

/** New students of Tuesday evening. */
export async function manyStudents(db: Database, count: number): Promise<string[]> {
  const ids = Array.from({ length: count }, (_, i) => `p-race-${i}`)
  const { school } = await person(db, maren)
  await db.run('INSERT INTO person (id, school_id, role, name, email, password_hash) VALUES ?', [
    ids.map((id, i) => [id, school, 'student', `Runner ${i}`, `runner${i}@gannet.example`, '']),
  ])
  await db.run('INSERT INTO enrolment (class_id, person_id) VALUES ?', [ids.map((id) => ['c-tuesday', id])])
  await db.run('UPDATE school SET roster = roster + 1')
  return ids
}

/** As the class was before the race that came before. */
async function putBack({ db, students, now }: Scene): Promise<void> {
  const teacher = await person(db, maren)
  await changeClass(db, teacher, 'c-tuesday', { held: false }, now())
  await moveStudents(db, teacher, { from: 'c-saturday', to: 'c-tuesday' }, students, now())
  await setNeeds(db, teacher, 'c-tuesday', students, noAccommodation, now())
}

/**
 * One race: all students start within some milliseconds, and the teacher acts somewhere between.
 * @param start of a student; tells whether they have begun
 * @param at share of the time of all starts after which the teacher acts
 * @returns in how many papers it was a race: begun before, and refused or begun after
 */
export async function raceStarts(
  scene: Omit<Scene, 'quiz'>,
  act: Act,
  name: string,
  start: (student: string, i: number, quiz: string) => Promise<boolean>,
  at: number,
  spread = 240,
): Promise<{ before: number; after: number }> {
  const quiz = await openedQuiz(scene.db, name, act.rules)
  const all = { ...scene, quiz }
  await putBack(all)
  const pause = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds))
  const rowsNow = () =>
    scene.db.rows<Row>(
      'SELECT id, student_id, window_id, started_at, deadline, hard_stop, ended_by, begun_on FROM attempt WHERE quiz_id = ?',
      [quiz],
    )
  let [told, seen]: [unknown, readonly Row[]] = [undefined, []]
  const begun = await Promise.all([
    ...scene.students.map(async (student, i) => {
      await pause((spread * i) / scene.students.length)
      return start(student, i, quiz)
    }),
    (async () => {
      await pause(spread * at)
      told = await act.run(all)
      seen = await rowsNow()
      return false
    })(),
  ])
  const rows = await rowsNow()
  expect(begun.filter(Boolean)).toHaveLength(rows.length)
  if (act.endsStarts) expect(rows.map((row) => row.id).sort(), noMore).toEqual(seen.map((row) => row.id).sort())
  await act.check(rows, all, told)
  return { before: seen.length, after: scene.students.length - seen.length }
}

const clocked: Section[] = [
  newSection({
    id: 'a',
    title: 'Open',
    rows: [newRow({ type: 'question', id: 'r-a', question: 'q-datum', points: 1 })],
  }),
  newSection({
    id: 'b',
    title: 'Ten',
    limit: 10,
    rows: [newRow({ type: 'question', id: 'r-b', question: 'q-cover', points: 1 })],
  }),
]

/** What students do whose papers are under way while the teacher acts, and what has to be true afterwards. */
interface Move {
  name: string
  /** What the students need before. */
  need: Accommodation
  act: Act
  move(db: Database, student: string, attempt: string, now: Instant): Promise<unknown>
  check(scene: Scene): Promise<void>
}

export const moves: readonly Move[] = [
  {
    name: 'enter a section while they get extra time',
    need: noAccommodation,
    act: acts[2]!,
    move: (db, student, attempt, now) => enterSection(db, student, attempt, 1, 1, now),
    async check({ db, quiz }) {
      const rows = await db.rows<{ entered_at: string; deadline: string }>(
        'SELECT s.entered_at, s.deadline FROM attempt_section s JOIN attempt a ON a.id = s.attempt_id WHERE a.quiz_id = ?',
        [quiz],
      )
      expect(rows.length).toBeGreaterThan(0)
      // Ten minutes, half as long again, and five.
      expect(rows.filter((row) => fromSql(row.deadline) !== plus(fromSql(row.entered_at), 20 * minute))).toEqual([])
    },
  },
  {
    name: 'begin a break while it is closed',
    need: { ...noAccommodation, breakMinutes: 30 },
    act: acts[0]!,
    move: (db, student, attempt, now) => beginBreak(db, student, attempt, 1, now),
    async check({ db, quiz }) {
      const rows = await db.rows<{ hard_stop: string }>('SELECT hard_stop FROM attempt WHERE quiz_id = ?', [quiz])
      expect(new Set(rows.map((row) => row.hard_stop)).size).toBe(1)
    },
  },
  {
    name: 'take the paper up again while it is withdrawn',
    need: noAccommodation,
    act: acts[5]!,
    move: (db, student, attempt, now) => takeUpAgain(db, student, attempt, now),
    check: () => Promise.resolve(),
  },
]

/** All have started; then each makes their move within some milliseconds, and the teacher acts between. */
export async function raceMoves(
  scene: Omit<Scene, 'quiz'>,
  { need, act, move, check, name }: Move,
  quiz: string,
  databaseOf: (i: number) => Database,
): Promise<void> {
  const { db, students, now } = scene
  const teacher = await person(db, maren)
  const all = { ...scene, quiz }
  await openedQuiz(db, quiz, { attempts: { ...usualRules.attempts, again: true } }, { sections: clocked })
  await putBack(all)
  await setNeeds(db, teacher, 'c-tuesday', students, need, now())
  const attempts = await mapInOrder(students, async (id) => {
    const { attempt } = await startSitting(db, await person(db, id), quiz, { device: 'd1' }, now())
    if (move === moves[2]!.move) await handIn(db, id, attempt, 1, [], now())
    return attempt
  })
  let done = 0
  const pause = (milliseconds: number) => new Promise((ready) => setTimeout(ready, milliseconds))
  let opened: string[] = []
  const openNow = async () =>
    (await db.rows<{ id: string }>("SELECT id FROM attempt WHERE quiz_id = ? AND state = 'open'", [quiz])).map(
      ({ id }) => id,
    )
  await Promise.all([
    ...students.map(async (student, i) => {
      // The instant of a request lies before what it waits for.
      const at = now()
      await pause((120 * i) / students.length)
      await move(databaseOf(i), student, attempts[i]!, at).then(
        () => done++,
        (error: unknown) => {
          if (!(error instanceof Problem)) throw error
        },
      )
    }),
    pause(60)
      .then(() => act.run(all))
      .then(async () => {
        opened = await openNow()
      }),
  ])
  expect(done, name).toBeGreaterThan(0)
  // Nothing that was handed in is open again after it was withdrawn.
  if (act.endsStarts) expect((await openNow()).filter((id) => !opened.includes(id))).toEqual([])
  await check(all)
}

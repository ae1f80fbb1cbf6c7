/** When quizzes end, read for one student of many: the same as from everybody and every sitting under way. */
import fc from 'fast-check'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { endAt, type End } from '../../core/kit/time'
import { usualRules, type Rules } from '../../core/quiz'
import { endsFrom, latestEnds, endsByRules } from '../../core/release'
import { assignedTo, audienceOf } from '../../core/schedule'
import { fromSqlOrNever, toSqlOrNever } from '../../server/database/codec'
import type { Database } from '../../server/database/database'
import { setAccommodation } from '../../server/domain/classes/needs'
import { studentsOfClasses } from '../../server/domain/classes/students'
import { endsNow, rosterOf } from '../../server/domain/quizzes/ends-now'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz } from '../support/quiz'
import { noAccommodation } from '../../core/quiz'

let db: Database
beforeAll(async () => {
  ;({ db } = await freshDatabase('ends', day))
})
afterAll(() => db.close())

const students = ['p-nell-ashdown', 'p-silas-penn', 'p-petra-lund', 'p-greta-vance']

/** From everybody assigned and every row of a sitting under way: nothing is left out for being early enough. */
async function byHand(quiz: string): Promise<{ everyone: End; ofClasses(classes: string[]): End }> {
  const { quiz: document } = await loadQuiz(db, quiz)
  const classes = audienceOf(document.rules).classes
  const everybody = assignedTo(await studentsOfClasses(db, classes), document.rules)
  const rows = await db.rows<{ student_id: string; hard_stop: string }>(
    "SELECT student_id, hard_stop FROM attempt WHERE quiz_id = ? AND state = 'open'",
    [quiz],
  )
  const open = rows.map((row) => ({
    end: endAt(fromSqlOrNever(row.hard_stop)),
    classes: everybody.find(({ id }) => id === row.student_id)?.classes ?? [],
  }))
  return endsFrom(latestEnds(open, endsByRules(everybody)))
}

async function asRead(quiz: string) {
  const loaded = await loadQuiz(db, quiz)
  const ends = await endsNow(db, [loaded], await rosterOf(db, loaded.school))
  return endsFrom(ends.get(quiz)!)
}

it('whatever windows, sittings under way and classes there are', async () => {
  const closes = fc.constantFrom<(string | null)[]>(later(30), later(90), later(180), null)
  let beyond = 0
  let n = 0
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.record({ closes, classes: fc.subarray(['c-tuesday', 'c-saturday'], { minLength: 1 }) }), {
        minLength: 1,
        maxLength: 3,
      }),
      fc.option(fc.integer({ min: 1, max: 240 }), { nil: null }),
      fc.array(
        fc.record({ who: fc.nat({ max: 3 }), stop: fc.option(fc.integer({ min: -50, max: 400 }), { nil: null }) }),
        {
          maxLength: 3,
        },
      ),
      async (windows, limit, sittings) => {
        const id = `ends${n++}`
        const rules: Partial<Rules> = {
          limit,
          windows: windows.map((window, i) => ({
            ...usualRules.windows[0]!,
            id: `w${i}`,
            classes: window.classes,
            opens: day,
            closes: window.closes,
            due: null,
            latestStart: null,
            groups: [],
            students: [],
            closedAt: null,
            password: null,
          })),
        }
        await openedQuiz(db, id, rules)
        for (const { who, stop } of sittings) {
          try {
            const { attempt } = await startSitting(db, await person(db, students[who]!), id, { device: 'd' }, later(1))
            const at = stop === null ? null : later(stop)
            await db.run('UPDATE attempt SET hard_stop = ? WHERE id = ?', [toSqlOrNever(at), attempt])
            if (at === null || at > later(180)) beyond++
          } catch {
            /* this one may not start */
          }
        }
        const [read, wanted] = [await asRead(id), await byHand(id)]
        expect(read.everyone).toEqual(wanted.everyone)
        for (const classes of [['c-tuesday'], ['c-saturday'], ['c-tuesday', 'c-saturday'], []])
          expect(read.ofClasses(classes)).toEqual(wanted.ofClasses(classes))
      },
    ),
    { numRuns: 40 },
  )
  expect(beyond).toBeGreaterThan(5)
})

it('what somebody needs counts from the moment it is set', async () => {
  const quiz = await openedQuiz(db, 'needs', { limit: 60, atClosing: 'clock' })
  const before = (await asRead(quiz)).everyone
  await setAccommodation(
    db,
    await person(db, 'p-maren'),
    'p-nell-ashdown',
    { ...noAccommodation, factor: 2, extraMinutes: 30, stretchWindow: true },
    later(1),
  )
  const after = (await asRead(quiz)).everyone
  expect(after).not.toEqual(before)
  expect(after).toEqual((await byHand(quiz)).everyone)
})

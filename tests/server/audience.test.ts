/** For whom a quiz is, and what is theirs in it alone: groups, students by name, accommodations for one quiz (semantics §5). */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { noAccommodation, type Rules, type Window } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { keepGroup, dropGroup } from '../../server/domain/classes/groups'
import { setAccommodation } from '../../server/domain/classes/needs'
import { register } from '../../server/domain/classes/register'
import { marksTable } from '../../server/domain/marks/marks'
import { checksFor } from '../../server/domain/quizzes/checks'
import { heldNow } from '../../server/domain/quizzes/held'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { loadAttempt } from '../../server/domain/sittings/attempts'
import { handIn } from '../../server/domain/sittings/hand-in'
import { beforeSitting, myQuizzes } from '../../server/domain/sittings/my-quizzes'
import { openSitting } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz, rulesEdit } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('audience', day)).db
})
afterAll(() => db.close())

const [nell, silas, petra] = ['p-nell-ashdown', 'p-silas-penn', 'p-petra-lund']
const maren = () => person(db, 'p-maren')
const window = (more: Partial<Window>): Window => ({
  id: 'w1',
  classes: [],
  groups: [],
  students: [],
  opens: day,
  closes: later(180),
  due: null,
  latestStart: null,
  closedAt: null,
  password: null,
  ...more,
})
const blank = { students: [], groups: [], instead: false, ...noAccommodation }
const sees = async (student: string, quiz: string, at = day) =>
  (await myQuizzes(db, await person(db, student), at)).quizzes.find(({ id }) => id === quiz)
const start = async (quiz: string, student: string, at = day) =>
  (await startSitting(db, await person(db, student), quiz, { device: 'd1' }, at)).attempt
async function change(quiz: string, rules: Partial<Rules>, at = day) {
  const { revision } = await loadQuiz(db, quiz)
  return makeEdit(db, await maren(), quiz, revision, `c.${quiz}.${revision}`, await rulesEdit(db, quiz, rules), at)
}
const group = async (name: string, members: string[]) =>
  (await keepGroup(db, await maren(), 'c-tuesday', { name, members }, day)).find((each) => each.name === name)!.id

describe('a window for a group, or for a student by name', () => {
  it('lets them sit it, and nobody else sees that there is one', async () => {
    const dinghies = await group('Dinghies', [nell!])
    const quiz = await openedQuiz(db, 'group', { windows: [window({ groups: [dinghies] })] })
    expect((await sees(nell!, quiz))?.may).toBe('start')
    expect(await sees(silas!, quiz)).toBeUndefined()
    await expect(start(quiz, silas!)).rejects.toMatchObject({ status: 404 })
    expect(await start(quiz, nell!)).toBeTruthy()
    await change(quiz, { windows: [window({ groups: [dinghies] }), window({ id: 'w2', students: [petra!] })] })
    expect((await sees(petra!, quiz))?.may).toBe('start')
    // Their teacher finds them there, and the quiz in the register of their class.
    expect((await marksTable(db, quiz, later(5))).students.map(({ name }) => name)).toEqual([
      'Nell Ashdown',
      'Petra Lund',
    ])
    const shown = await register(db, await maren(), 'c-tuesday', later(5))
    expect(shown.quizzes.some(({ id }) => id === quiz)).toBe(true)
    expect(shown.students.find(({ id }) => id === petra)!.inQuizzes).toEqual([
      { words: 'a window of their own', title: 'Quiz group' },
    ])
  })
  it('stands in place of their class’s: at another time, and for them alone', async () => {
    const quiz = await openedQuiz(db, 'own', {
      windows: [
        window({ classes: ['c-tuesday'] }),
        window({ id: 'w2', students: [nell!], opens: later(600), closes: later(700) }),
      ],
    })
    await expect(start(quiz, nell!)).rejects.toThrow(/opens/)
    expect(await start(quiz, nell!, later(610))).toBeTruthy()
    expect(await start(quiz, silas!)).toBeTruthy()
    await expect(start(quiz, petra!, later(610))).rejects.toThrow(/closed/)
  })
  it('a sitting that began in another window goes on in it', async () => {
    const quiz = await openedQuiz(db, 'moved')
    const attempt = await start(quiz, nell!)
    const before = (await loadAttempt(db, attempt)).limits
    await change(quiz, {
      windows: [window({ classes: ['c-tuesday'] }), window({ id: 'w2', students: [nell!], opens: later(600) })],
    })
    expect((await loadAttempt(db, attempt)).limits).toEqual(before)
    expect((await openSitting(db, nell!, attempt, 'd1', later(5))).clock.ended).toBe(false)
  })
  it('names nobody of another school, nor what is not there; a group that goes is told by the checks', async () => {
    const quiz = await openedQuiz(db, 'foreign')
    await db.run("INSERT INTO school (id, name, zone) VALUES ('far', 'Far', 'UTC')")
    await db.run("INSERT INTO class (id, school_id, name) VALUES ('c-far', 'far', 'Far')")
    await db.run("INSERT INTO class_group (id, class_id, name) VALUES ('g-far', 'c-far', 'Far')")
    await db.run(
      "INSERT INTO person (id, school_id, role, name, email, password_hash) VALUES ('p-far', 'far', 'student', 'Far Away', NULL, '')",
    )
    const tries: Partial<Rules>[] = [
      { windows: [window({ classes: ['c-far'] })] },
      { windows: [window({ groups: ['g-far'] })] },
      { windows: [window({ students: ['p-far'] })] },
      { windows: [window({ students: ['p-maren'] })] },
      { needs: [{ ...blank, id: 'n', students: ['p-far'] }] },
      { needs: [{ ...blank, id: 'n', groups: ['g-far'] }] },
    ]
    for (const rules of tries)
      await expect(change(quiz, rules)).rejects.toMatchObject({ status: 422, code: 'audience' })
    await expect(change(quiz, { windows: [window({})] })).rejects.toThrow(/at least one class, group or student/)

    const short = await group('Short', [silas!])
    await change(quiz, { windows: [window({ groups: [short] })] })
    await dropGroup(db, await maren(), 'c-tuesday', short, day)
    const row = await loadQuiz(db, quiz)
    const found = await checksFor(db, await maren(), row, await heldNow(db, row), day)
    expect(found.map(({ title }) => title)).toContain('A window is for a group that is gone')
  })
})

describe('for this quiz only', () => {
  it('reaches a paper under way at once, and no other quiz', async () => {
    const [quiz, other] = [await openedQuiz(db, 'only'), await openedQuiz(db, 'only-other')]
    const [attempt, elsewhere] = [await start(quiz, silas!), await start(other, silas!)]
    await change(quiz, { needs: [{ ...blank, id: 'n', students: [silas!], factor: 2, moreAttempts: 1 }] }, later(5))
    expect((await loadAttempt(db, attempt)).limits.deadline).toBe(later(120))
    expect((await loadAttempt(db, elsewhere)).limits.deadline).toBe(later(60))
    const { told } = await beforeSitting(db, await person(db, silas!), quiz, later(6))
    expect(told).toContain('You have up to 2 attempts.')
    await handIn(db, silas!, attempt, 1, [], later(10))
    expect((await sees(silas!, quiz, later(11)))?.may).toBe('start')
    expect(await start(quiz, silas!, later(11))).not.toBe(attempt)
    const once = await start(quiz, nell!)
    await handIn(db, nell!, once, 1, [], later(10))
    await expect(start(quiz, nell!, later(11))).rejects.toThrow(/one attempt/)
  })
  it('a later end moves the due time: what would be late is not', async () => {
    await setAccommodation(db, await maren(), petra!, { ...noAccommodation, laterMinutes: 24 * 60 }, day)
    const quiz = await openedQuiz(db, 'late', { windows: [window({ classes: ['c-tuesday'], due: later(30) })] })
    const late = async (student: string) => {
      const attempt = await start(quiz, student)
      await handIn(db, student, attempt, 1, [], later(40))
      return (await loadAttempt(db, attempt)).daysLate
    }
    expect([await late(nell!), await late(petra!)]).toEqual([1, 0])
    // The window is open for them a day longer, and for nobody else.
    const open = await openedQuiz(db, 'late-open')
    expect(await start(open, petra!, later(200))).toBeTruthy()
    await expect(start(open, nell!, later(200))).rejects.toThrow(/closed/)
  })
})

/** Who sits: links and guests, places, classes held back, papers without names, passwords of one session. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { usualRules, type Rules } from '../../core/quiz'
import { blankWindow } from '../../core/rules/windows'
import type { Database } from '../../server/database/database'
import { studentsByAddress } from '../../server/domain/classes/by-address'
import { joinClass } from '../../server/domain/classes/joining'
import { changeClass } from '../../server/domain/classes/keeping'
import { listClasses } from '../../server/domain/classes/classes'
import { register } from '../../server/domain/classes/register'
import { comeIn, lookAtLink } from '../../server/domain/links/come-in'
import { makeLink } from '../../server/domain/links/make-link'
import { markedPaper, marksTable } from '../../server/domain/marks/marks'
import { giveOwnData } from '../../server/domain/people/own-data'
import { listPeople, peopleQuery } from '../../server/domain/people/people'
import { studentPage } from '../../server/domain/people/student-page'
import { copyQuiz } from '../../server/domain/quizzes/copy'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { lookAtClosing } from '../../server/domain/quizzes/close'
import { loadQuiz, quizEndsNow } from '../../server/domain/quizzes/quizzes'
import { whyStudent } from '../../server/domain/quizzes/why'
import { giveRoster } from '../../server/domain/roster/give'
import { handIn } from '../../server/domain/sittings/hand-in'
import { beforeSitting, myQuizzes } from '../../server/domain/sittings/my-quizzes'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz, rulesEdit } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('who', day)).db
})
afterAll(() => db.close())

const [nell, petra, silas] = ['p-nell-ashdown', 'p-petra-lund', 'p-silas-penn']
const maren = () => person(db, 'p-maren')
const begin = async (quiz: string, student: string, at = later(1), more = {}) =>
  startSitting(db, await person(db, student), quiz, { device: `d-${student}`, ...more }, at)
const change = async (quiz: string, rules: Partial<Rules>, at = later(0)) => {
  const { revision } = await loadQuiz(db, quiz)
  return makeEdit(
    db,
    await maren(),
    quiz,
    revision,
    `who.${Math.random().toString(36).slice(2)}`,
    await rulesEdit(db, quiz, rules),
    at,
  )
}
const field = (id: string, name: string, over = {}) => ({
  id,
  name,
  sort: 'text' as const,
  required: true,
  unique: false,
  ...over,
})
/** A quiz with a link and a window for whoever has it. */
async function linked(name: string, link: Partial<NonNullable<Rules['link']>>, rules: Partial<Rules> = {}) {
  const quiz = await openedQuiz(db, name)
  const { audience, token } = await makeLink(db, await maren(), quiz, later(-30))
  const window = blankWindow({ id: 'wl', classes: [audience], opens: day, closes: later(240) })
  await change(quiz, { windows: [window], link: { audience, by: 'fields', fields: [], ...link }, ...rules })
  return { quiz, audience, token }
}
const from = '10.0.0.1'

describe('everyone with the link', () => {
  const fields = [
    field('entry-1', 'Name', { sort: 'name' }),
    field('entry-2', 'Number', { sort: 'number', unique: true }),
    field('entry-3', 'Born', { sort: 'date', required: false }),
  ]
  it('a guest writes who they are, sits, and stands in the marks; nobody comes in twice with a number', async () => {
    const { quiz, token, audience } = await linked('link', { fields })
    expect(await lookAtLink(db, null, token, from, later(1))).toMatchObject({ quiz, by: 'fields', isIn: false })
    const enter = (entries: Record<string, string>) => comeIn(db, null, token, { entries }, from, later(1))
    await expect(enter({ 'entry-1': ' ', 'entry-2': 'x', 'entry-3': '2020-02-30' })).rejects.toMatchObject({
      status: 422,
      more: { faults: [{ field: 'entry-1' }, { field: 'entry-2' }, { field: 'entry-3' }] },
    })
    const who = { 'entry-1': '  Ada   Quill ', 'entry-2': '0042' }
    const both = await Promise.allSettled([enter(who), enter(who)])
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    await expect(enter({ ...who, 'entry-1': 'Other' })).rejects.toMatchObject({ status: 409 })
    const guests = await db.rows<{ id: string; name: string }>('SELECT id, name FROM person WHERE guest = 1')
    expect(guests.map(({ name }) => name)).toEqual(['Ada Quill'])
    const guest = guests[0]!.id
    expect((await myQuizzes(db, await person(db, guest), later(2))).quizzes).toMatchObject([{ id: quiz, may: 'start' }])
    const { attempt } = await begin(quiz, guest)
    await handIn(db, guest, attempt, 1, [], later(3))
    expect((await marksTable(db, quiz, later(4))).students).toMatchObject([
      {
        name: 'Ada Quill',
        classes: ['Everyone with the link'],
        entries: [
          { name: 'Name', value: 'Ada Quill' },
          { name: 'Number', value: '0042' },
        ],
      },
    ])
    // A guest is in no list of the school, and the audience in none of its classes.
    expect(JSON.stringify(await listPeople(db, await maren(), peopleQuery.parse({})))).not.toContain('Ada Quill')
    expect((await listClasses(db, await maren())).some(({ id }) => id === audience)).toBe(false)
    const { bytes } = await giveRoster(db, await maren(), 'csv', null, later(4))
    expect(String(bytes)).not.toMatch(/Ada Quill|Everyone with the link/)
    // A guest is no student of the school: not by another link, nor by the code of a class.
    const signedIn = await linked('link-guest-signed', { by: 'signedIn' })
    const asGuest = await person(db, guest)
    expect(asGuest.guest).toBe(true)
    await expect(comeIn(db, asGuest, signedIn.token, { entries: {} }, from, later(4))).rejects.toMatchObject({
      status: 403,
    })
    await expect(joinClass(db, asGuest, 'BCDFG234', from, later(4))).rejects.toMatchObject({ status: 403 })
    // Their other quizzes are none.
    await expect(begin('quiz-buoys', guest)).rejects.toMatchObject({ status: 404 })
  })
  it('a student of the school comes in as who they are, once; where signing in is asked nobody else does', async () => {
    const { quiz, token } = await linked('link-signed', { by: 'signedIn' })
    await expect(comeIn(db, null, token, { entries: {} }, from, later(1))).rejects.toMatchObject({ status: 403 })
    const student = await person(db, silas)
    const twice = await Promise.all([1, 2].map(() => comeIn(db, student, token, { entries: {} }, from, later(1))))
    expect(twice).toEqual([1, 2].map(() => ({ person: silas, quiz, made: false })))
    expect(await lookAtLink(db, student, token, from, later(1))).toMatchObject({ isIn: true })
    expect((await begin(quiz, silas)).attempt).toBeTruthy()
  })
  it('a guessed word leads nowhere and is counted; another address ends the old one; a closed link says so', async () => {
    const { quiz, token } = await linked('link-guess', {})
    const other = await makeLink(db, await maren(), quiz, later(1))
    expect(other.token).not.toBe(token)
    await expect(lookAtLink(db, null, token, from, later(2))).rejects.toMatchObject({ status: 404 })
    expect((await lookAtLink(db, null, other.token, from, later(2))).quiz).toBe(quiz)
    await change(quiz, { windows: [blankWindow({ id: 'w2', classes: ['c-tuesday'], opens: day })] })
    await expect(lookAtLink(db, null, other.token, from, later(2))).rejects.toMatchObject({ status: 404 })
    const guesses = Array.from({ length: 320 }, (_, i) => i)
    const found = await Promise.allSettled(guesses.map((i) => lookAtLink(db, null, `guess${i}`, '10.9.9.9', later(3))))
    const statuses = found.map((each) =>
      each.status === 'rejected' ? (each.reason as { status: number }).status : 200,
    )
    expect(new Set(statuses)).toEqual(new Set([404, 429]))
    expect(statuses.filter((status) => status === 404).length).toBeLessThanOrEqual(300)
  })
  it('what waits for everyone done waits for whoever may still come', async () => {
    const { quiz } = await linked('link-ends', {})
    const row = await loadQuiz(db, quiz)
    expect((await quizEndsNow(db, row)).everyone).toEqual({ is: 'at', at: later(301) })
  })
  it('the link of one quiz is not another’s, and a copy has none', async () => {
    const { audience, quiz } = await linked('link-own', {})
    const other = await openedQuiz(db, 'link-other')
    const window = blankWindow({ id: 'wx', classes: [audience], opens: day })
    await expect(change(other, { windows: [window] })).rejects.toMatchObject({ status: 422 })
    await expect(change(other, { link: { audience, by: 'fields', fields: [] } })).rejects.toMatchObject({
      status: 422,
    })
    await expect(change(other, { link: { audience: 'c-tuesday', by: 'fields', fields: [] } })).rejects.toMatchObject({
      status: 422,
    })
    const copy = await copyQuiz(db, await maren(), quiz, { title: 'Copy', withRules: true, days: 0 }, later(5))
    expect((await loadQuiz(db, copy.id)).quiz.rules).toMatchObject({ link: null, windows: [] })
  })
})

describe('at most so many', () => {
  it('whoever begins first has a place: of many at once exactly so many get one', async () => {
    const quiz = await openedQuiz(db, 'places', { places: 3, attempts: { ...usualRules.attempts, count: 2 } })
    const students = await db.rows<{ id: string }>(
      "SELECT person_id AS id FROM enrolment WHERE class_id = 'c-tuesday' LIMIT 12",
    )
    const tries = await Promise.allSettled(students.map(({ id }) => begin(quiz, id)))
    expect(tries.filter(({ status }) => status === 'fulfilled')).toHaveLength(3)
    const [inside] = await db.rows<{ id: string }>('SELECT student_id AS id FROM attempt WHERE quiz_id = ?', [quiz])
    const outside = students.find((_, i) => tries[i]!.status === 'rejected')!.id
    expect(
      (await myQuizzes(db, await person(db, outside), later(2))).quizzes.find(({ id }) => id === quiz),
    ).toMatchObject({
      sentence: 'All places of this quiz are taken.',
    })
    const why = await whyStudent(db, await maren(), quiz, outside, later(2))
    expect(why).toMatchObject({ may: false, remedy: { label: 'Add a place' } })
    // Whoever has a place keeps it for a further attempt.
    const attempt = (await begin(quiz, inside!.id)).attempt
    await handIn(db, inside!.id, attempt, 1, [], later(3))
    await begin(quiz, inside!.id, later(4))
    await change(quiz, { places: 4 }, later(5))
    await begin(quiz, outside, later(6))
  })
})

describe('a class held back', () => {
  it('sees none of its quizzes and begins none; whoever has begun goes on; given again all is as it was', async () => {
    const [quiz, own] = [await openedQuiz(db, 'held'), await openedQuiz(db, 'held-own')]
    await change(own, {
      windows: [blankWindow({ id: 'wo', students: [petra], opens: day, closes: later(60) })],
    })
    const { attempt } = await begin(quiz, nell)
    await changeClass(db, await maren(), 'c-tuesday', { held: true }, later(2))
    const seen = async (student: string) =>
      (await myQuizzes(db, await person(db, student), later(3))).quizzes.map(({ id }) => id)
    expect(await seen(petra)).not.toContain(quiz)
    expect(await seen(petra)).toContain(own)
    expect(await seen(nell)).toContain(quiz)
    await expect(begin(quiz, petra, later(3))).rejects.toThrow(/holds this quiz back/)
    expect(await whyStudent(db, await maren(), quiz, petra, later(3))).toMatchObject({
      sees: false,
      may: false,
      told: '',
    })
    await handIn(db, nell, attempt, 1, [], later(4))
    expect((await register(db, await maren(), 'c-tuesday', later(4))).held).toBe(true)
    await changeClass(db, await maren(), 'c-tuesday', { held: false }, later(5))
    expect(await seen(petra)).toContain(quiz)
    await begin(quiz, petra, later(6))
  })
})

describe('without names', () => {
  it('papers are seen and marked, and nowhere whose they are; it cannot be lifted once somebody has begun', async () => {
    const quiz = await openedQuiz(db, 'nameless', { anonymous: true, counts: 'nothing' })
    expect((await beforeSitting(db, await person(db, nell), quiz, later(0))).told.join(' ')).toMatch(/anonymous/)
    await change(quiz, { anonymous: false })
    await change(quiz, { anonymous: true })
    const attempts = await Promise.all([nell, petra].map(async (each) => (await begin(quiz, each)).attempt))
    await handIn(db, nell, attempts[0]!, 1, [], later(2))
    await expect(change(quiz, { anonymous: false }, later(2))).rejects.toThrow(/cannot be lifted/)
    const table = await marksTable(db, quiz, later(3))
    // The one under way is counted, not listed: whoever watched the room would see whose it is.
    expect(table.students.map(({ id }) => id)).toEqual([attempts[0]])
    expect(table.sitting).toBe(1)
    const text = JSON.stringify([
      table,
      await markedPaper(db, quiz, attempts[0]!, later(3)),
      await lookAtClosing(db, quiz, { everybody: true }, later(3)),
    ])
    for (const name of [nell, petra, 'Ashdown', 'Lund', later(2)]) expect(text, name).not.toContain(name)
    expect((await whyStudent(db, await maren(), quiz, nell, later(3))).sentence).not.toMatch(/used|attempt 2/)
    const page = (await studentPage(db, await maren(), nell, later(3))).quizzes.find(({ id }) => id === quiz)
    expect(page).toMatchObject({ attempts: 0, grade: null, shown: false })
    const row = (await register(db, await maren(), 'c-tuesday', later(3))).students.find(({ id }) => id === nell)!
    expect(row.marks[quiz]).toBeUndefined()
    const { bytes } = await giveOwnData(db, await maren(), nell, later(3))
    expect(Buffer.from(bytes).toString('latin1')).not.toContain('Quiz nameless')
    // The student's own pages are as ever.
    expect(
      (await myQuizzes(db, await person(db, nell), later(3))).quizzes.find(({ id }) => id === quiz)!.attempts,
    ).toHaveLength(1)
  })
})

describe('a list of invited people', () => {
  it('is of students of the school, by their addresses in any form; others are named', async () => {
    const far = await db.run("INSERT INTO school (id, name, zone) VALUES ('far', 'Far', 'UTC')")
    expect(far).toBe(1)
    await db.run(
      "INSERT INTO person (id, school_id, role, name, email, password_hash) VALUES ('p-far', 'far', 'student', 'Far Off', 'far@far.example', '')",
    )
    const [known] = await db.rows<{ email: string }>('SELECT email FROM person WHERE id = ?', [nell])
    const list = `${known!.email.toUpperCase()}\nmaren@gannet.example\nfar@far.example\nnobody@gannet.example`
    const found = await studentsByAddress(db, await maren(), list)
    expect(found.students.map(({ id }) => id)).toEqual([nell])
    expect(found.unknown).toHaveLength(3)
  })
})

describe('a password of one session', () => {
  it('stands in place of the quiz’s in its window', async () => {
    const window = (id: string, classes: string[], password: string | null) => ({
      ...blankWindow({ id, classes, opens: day, closes: later(200) }),
      password,
    })
    const quiz = await openedQuiz(db, 'session-password', {
      password: 'of the quiz',
      windows: [window('w1', ['c-tuesday'], 'of tonight'), window('w2', ['c-saturday'], null)],
    })
    await expect(begin(quiz, nell, later(1), { password: 'of the quiz' })).rejects.toMatchObject({ status: 403 })
    await begin(quiz, nell, later(1), { password: 'of tonight' })
    const [saturday] = await db.rows<{ id: string }>(
      "SELECT person_id AS id FROM enrolment WHERE class_id = 'c-saturday' AND person_id NOT IN (SELECT person_id FROM enrolment WHERE class_id = 'c-tuesday') LIMIT 1",
    )
    await expect(begin(quiz, saturday!.id, later(1), { password: 'of tonight' })).rejects.toMatchObject({ status: 403 })
    await begin(quiz, saturday!.id, later(1), { password: 'of the quiz' })
    const copy = await copyQuiz(db, await maren(), quiz, { title: 'Copy of it', withRules: true, days: 7 }, later(5))
    expect((await loadQuiz(db, copy.id)).quiz.rules.windows.map(({ password }) => password)).toEqual([null, null])
  })
})

import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { iso, minute, plus } from '../../core/kit/time'
import { noAccommodation } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { addNamed } from '../../server/domain/classes/adding'
import { joinAsNew, joinClass } from '../../server/domain/classes/joining'
import { classByCode, endCode, renewCode } from '../../server/domain/classes/join-codes'
import { changeClass, makeClass } from '../../server/domain/classes/keeping'
import { dropGroup, groupsOf, keepGroup, setGroupAccommodation } from '../../server/domain/classes/groups'
import { bringBack, moveStudents, takeOut } from '../../server/domain/classes/members'
import { setNeeds } from '../../server/domain/classes/needs'
import { register } from '../../server/domain/classes/register'
import { studentsByIds } from '../../server/domain/classes/students'
import { dropTerm, keepTerm, listTerms } from '../../server/domain/classes/terms'
import { setTeacher, takeTeacherOut, teachersOf } from '../../server/domain/classes/teachers'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { quizView } from '../../server/domain/quizzes/view'
import { listLetters } from '../../server/domain/outbox'
import { studentPage } from '../../server/domain/people/student-page'
import { loadAttempt } from '../../server/domain/sittings/attempts'
import { handIn } from '../../server/domain/sittings/hand-in'
import { myQuizzes } from '../../server/domain/sittings/my-quizzes'
import { openSitting } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz, rulesEdit } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('classes', day)).db
})
afterAll(() => db.close())

const at = 'http://thistle.example'
const maren = () => person(db, 'p-maren')
const idris = () => person(db, 'p-idris')
const newClass = async (name: string) => (await makeClass(db, await maren(), { name }, day)).id
const add = async (classId: string, list: string, invite = false) =>
  addNamed(db, await maren(), classId, { list, invite }, at, day)
const openWindow = {
  id: 'w',
  opens: day,
  closes: null,
  due: null,
  latestStart: null,
  groups: [],
  students: [],
  closedAt: null,
  password: null,
}
const studentPageOf = async (id: string) => studentPage(db, await maren(), id, later(6))
const namesIn = async (classId: string) =>
  (await register(db, await maren(), classId, day)).students.map(({ name }) => name)

describe('a list', () => {
  it('makes who is new, finds who is known by their address, tells the rest', async () => {
    const klass = await newClass('Thursday')
    const list = [
      'Ada Brook',
      'ben.carr@new.example',
      'Nell <NELL.ASHDOWN@gannet.example>',
      'maren.holt@gannet.example',
      'x@y',
    ]
    const added = await add(klass, list.join('\n'), true)
    expect(added).toMatchObject({
      made: [{ name: 'Ada Brook', email: null }, { name: 'Ben Carr' }],
      joined: [{ id: 'p-nell-ashdown', name: 'Nell Ashdown' }],
      already: [],
      refused: [{ sentence: expect.stringMatching(/cannot be read/) }, { sentence: expect.stringMatching(/teacher/) }],
      // Nell has a password; Ada has no address.
      invited: 1,
    })
    expect(await namesIn(klass)).toEqual(['Ada Brook', 'Ben Carr', 'Nell Ashdown'])
    const [letter] = await listLetters(db, 'gannet')
    expect(letter).toMatchObject({
      to: 'ben.carr@new.example',
      body: expect.stringMatching(/thistle.example\/come-in\/[\w-]{43}\n/),
    })
    // The same again changes nothing.
    const again = await add(klass, list.join('\n'), false)
    expect([again.made, again.joined, again.already.map(({ name }) => name)]).toEqual([
      [],
      [],
      ['Nell Ashdown', 'Ben Carr', 'Ada Brook'].sort(),
    ])
    expect((await namesIn(klass)).length).toBe(3)
  })

  it('has two of one name told apart by their addresses', async () => {
    const klass = await newClass('Namesakes')
    await add(klass, 'Sam Reed <sam@one.example>\nSam Reed <sam@two.example>\nSam Rood')
    expect(
      (await register(db, await maren(), klass, day)).students.map(({ name, namesake }) => [name, namesake]),
    ).toEqual([
      ['Sam Reed', true],
      ['Sam Reed', true],
      ['Sam Rood', false],
    ])
  })

  it('does not use an address of another school, and says no more than that', async () => {
    await db.run("INSERT INTO school (id, name, zone) VALUES ('other', 'Other', 'UTC')")
    await db.run(
      "INSERT INTO person (id, school_id, role, name, email, password_hash) VALUES ('p-far', 'other', 'student', 'Far Away', 'far@other.example', '')",
    )
    const added = await add(await newClass('Far'), 'far@other.example')
    expect(added.refused).toEqual([
      {
        name: 'Far',
        email: 'far@other.example',
        sentence: 'This address cannot be used here. Take another one of theirs.',
      },
    ])
  })
})

it('students leave, move and come back without losing their papers', async () => {
  const [klass, other] = [await newClass('From'), await newClass('To')]
  await add(klass, 'silas.penn@gannet.example\nalba.quist@gannet.example')
  const quiz = await openedQuiz(db, 'moving')
  const silas = await person(db, 'p-silas-penn')
  const { attempt } = await startSitting(db, silas, quiz, { device: 'd1' }, day)
  const before = await loadAttempt(db, attempt)
  await keepGroup(db, await maren(), klass, { name: 'G', members: [silas.id] }, day)
  expect(await db.transaction(async (tx) => takeOut(tx, await maren(), klass, [silas.id, 'p-none'], later(1)))).toEqual(
    [silas.id],
  )
  const left = await register(db, await maren(), klass, later(2))
  expect(left.students.map(({ id }) => id)).toEqual(['p-alba-quist'])
  expect(left.left).toEqual([{ id: silas.id, name: 'Silas Penn', leftAt: later(1) }])
  expect(left.groups[0]!.members).toEqual([])
  expect(await loadAttempt(db, attempt)).toEqual(before)
  expect(await bringBack(db, await maren(), klass, [silas.id, 'p-petra-lund'], later(3))).toBe(1)
  expect(await moveStudents(db, await maren(), { from: klass, to: other }, [silas.id, 'p-none'], later(4))).toBe(1)
  expect(await namesIn(other)).toEqual(['Silas Penn'])
  expect((await register(db, await maren(), klass, later(5))).left.map(({ id }) => id)).toEqual([silas.id])
  expect(await loadAttempt(db, attempt)).toEqual(before)
})

it('who has left every class goes on with a paper under way, reads what they have sat, and stops nothing', async () => {
  const klass = await newClass('Only one')
  const added = await add(klass, 'Lone Reader')
  const lone = await person(db, added.made[0]!.id)
  const quiz = await openedQuiz(db, 'left-all', { limit: 40, windows: [{ ...openWindow, classes: [klass] }] })
  const { attempt } = await startSitting(db, lone, quiz, { device: 'd1' }, day)
  await db.transaction(async (tx) => takeOut(tx, await maren(), klass, [lone.id], later(1)))
  expect((await openSitting(db, lone.id, attempt, 'd1', later(2))).clock.deadline).toBe(later(40))
  // A change of the rules reaches whom it reaches.
  const { revision } = await loadQuiz(db, quiz)
  await makeEdit(db, await maren(), quiz, revision, 'left.1', await rulesEdit(db, quiz, { limit: 50 }), later(3))
  const mine = async () => (await myQuizzes(db, lone, later(4))).quizzes.map(({ id, may }) => [id, may])
  expect(await mine()).toEqual([[quiz, 'continue']])
  await handIn(db, lone.id, attempt, 1, [], later(5))
  expect(await mine()).toEqual([[quiz, 'done']])
  expect((await studentPageOf(lone.id)).quizzes).toMatchObject([{ id: quiz, attempts: 1 }])
})

it('papers begin in the language that a student needs where they are offered in it, and in larger type', async () => {
  const need = { ...noAccommodation, language: 'nl', largerType: true }
  await setNeeds(db, await maren(), 'c-tuesday', ['p-ines-corrado', 'p-greta-vance'], need, day)
  expect((await studentsByIds(db, ['p-greta-vance'])).get('p-greta-vance')!.accommodations).toEqual([noAccommodation])
  const begun = async (id: string, languages: string[]) => {
    const quiz = await openedQuiz(db, id, {}, { languages })
    const { attempt } = await startSitting(db, await person(db, 'p-ines-corrado'), quiz, { device: 'd1' }, day)
    const { largerType } = await openSitting(db, 'p-ines-corrado', attempt, 'd1', day)
    return [(await loadAttempt(db, attempt)).language, largerType]
  }
  expect(await begun('in-dutch', ['en', 'nl'])).toEqual(['nl', true])
  expect(await begun('in-english', ['en'])).toEqual([null, true])
})

it('what a group is given reaches its members and their papers under way, and leaves with it; nothing is shortened', async () => {
  const quiz = await openedQuiz(db, 'groups', { limit: 40 })
  const petra = 'p-oskar-brandt'
  const { attempt } = await startSitting(db, await person(db, petra), quiz, { device: 'd1' }, day)
  const deadline = async () => (await loadAttempt(db, attempt)).limits.deadline
  expect(await deadline()).toBe(later(40))
  const [group] = await keepGroup(
    db,
    await maren(),
    'c-tuesday',
    { name: 'Calm', members: [petra, 'p-greta-vance'] },
    day,
  )
  // Greta is in no class of this name.
  expect(group!.members).toEqual([petra])
  await setGroupAccommodation(
    db,
    await maren(),
    'c-tuesday',
    group!.id,
    { ...noAccommodation, factor: 1.5, largerType: true },
    later(1),
  )
  expect(await deadline()).toBe(later(60))
  expect((await studentsByIds(db, [petra])).get(petra)!.accommodations).toEqual([
    noAccommodation,
    { ...noAccommodation, factor: 1.5, largerType: true, by: { group: 'Calm' } },
  ])
  await dropGroup(db, await maren(), 'c-tuesday', group!.id, later(2))
  expect(await deadline()).toBe(later(60))
  expect((await studentsByIds(db, [petra])).get(petra)!.accommodations).toEqual([noAccommodation])
})

describe('a join code', () => {
  const from = { address: '10.0.0.1', person: null }
  it('lets students in until it is over, ended or renewed; twice is once', async () => {
    const klass = await newClass('Coded')
    const { code, until } = await renewCode(db, await maren(), klass, 3, day)
    expect(until).toBe(plus(day, 3 * 24 * 60 * minute))
    const typed = ` ${code.slice(0, 5).toLowerCase()}-${code.slice(5)}`
    const nell = await person(db, 'p-nell-ashdown')
    expect(await joinClass(db, nell, typed, '10.0.0.2', day)).toEqual({ name: 'Coded', already: false })
    expect(await joinClass(db, nell, typed, '10.0.0.2', day)).toEqual({ name: 'Coded', already: true })
    await expect(classByCode(db, code, from, until)).rejects.toThrow(/code is over/)
    const next = await renewCode(db, await maren(), klass, 3, day)
    await expect(classByCode(db, code, from, day)).rejects.toThrow(/No class has this code/)
    await endCode(db, await maren(), klass, day)
    await expect(classByCode(db, next.code, from, day)).rejects.toThrow(/No class has this code/)
    const last = await renewCode(db, await maren(), klass, 3, day)
    await changeClass(db, await maren(), klass, { filed: true }, day)
    await expect(classByCode(db, last.code, from, day)).rejects.toThrow(/No class has this code/)
    await expect(renewCode(db, await maren(), klass, 3, day)).rejects.toThrow(/filed away/)
  })

  it('lets somebody new in, once at a time; who has the address already is told to sign in', async () => {
    const klass = await newClass('Open')
    const { code } = await renewCode(db, await maren(), klass, 3, day)
    const who = { name: 'Juna Vale', email: 'Juna@vale.example', password: 'three quiet harbours' }
    const both = await Promise.allSettled([1, 2].map((n) => joinAsNew(db, code, who, `10.0.1.${n}`, day)))
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    expect(await namesIn(klass)).toEqual(['Juna Vale'])
    await expect(joinAsNew(db, code, who, '10.0.1.3', day)).rejects.toThrow(/sign in first/)
    await expect(joinAsNew(db, code, { ...who, email: 'j@v' }, '10.0.1.3', day)).rejects.toThrow(/e-mail address/)
    await expect(
      joinAsNew(db, code, { ...who, email: 'j@v.example', password: 'short' }, '10.0.1.3', day),
    ).rejects.toThrow(/at least 12/)
  })

  it('is not guessed: wrong ones are counted by person, by address and over all, also at once', async () => {
    const nell = await person(db, 'p-nell-ashdown')
    const tries = await Promise.allSettled(
      Array.from({ length: 30 }, () => classByCode(db, 'BCDFG999', { address: '10.0.2.1', person: nell }, later(60))),
    )
    const reasons = tries.map((each) => (each as PromiseRejectedResult).reason.status as number)
    expect(reasons.filter((status) => status === 422)).toHaveLength(8)
    expect(reasons.filter((status) => status === 429)).toHaveLength(22)
  }, 60_000)
})

const emailOf = (id: string) => (id === 'p-maren' ? 'maren.holt@gannet.example' : 'idris.quayle@gannet.example')
describe('teachers of a class', () => {
  it('teach it or help in it; somebody always teaches it, also when two leave at once', async () => {
    const klass = await newClass('Shared')
    await setTeacher(db, await maren(), klass, { email: 'idris.quayle@gannet.example', may: 'help' }, day)
    await expect(takeTeacherOut(db, await maren(), klass, 'p-maren', day)).rejects.toThrow(/Somebody has to teach/)
    await expect(
      setTeacher(db, await maren(), klass, { email: 'maren.holt@gannet.example', may: 'help' }, day),
    ).rejects.toThrow(/Somebody has to teach/)
    await expect(
      setTeacher(db, await maren(), klass, { email: 'nell.ashdown@gannet.example', may: 'teach' }, day),
    ).rejects.toThrow(/No teacher of this school/)
    await setTeacher(db, await maren(), klass, { email: 'idris.quayle@gannet.example', may: 'teach' }, day)
    const leaving = await Promise.allSettled([
      takeTeacherOut(db, await maren(), klass, 'p-maren', day),
      takeTeacherOut(db, await idris(), klass, 'p-idris', day),
    ])
    expect(leaving.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    // Who was refused teaches it still; both let go of it in the other way.
    const [left] = await teachersOf(db, klass)
    await setTeacher(
      db,
      await person(db, left!.id),
      klass,
      { email: emailOf(left!.id === 'p-maren' ? 'p-idris' : 'p-maren'), may: 'teach' },
      day,
    )
    const helping = await Promise.allSettled(
      ['p-maren', 'p-idris'].map(async (who) =>
        setTeacher(db, await person(db, who), klass, { email: emailOf(who), may: 'help' }, day),
      ),
    )
    expect(helping.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
  })

  it('read the reason of a need where they teach, not where they help', async () => {
    const klass = await newClass('Reasons')
    await add(klass, 'Ria Moss')
    const [student] = (await register(db, await maren(), klass, day)).students
    await db.run("UPDATE person SET need_reason = 'reads slowly' WHERE id = ?", [student!.id])
    await setTeacher(db, await maren(), klass, { email: 'idris.quayle@gannet.example', may: 'help' }, day)
    const reasons = async (who: string) =>
      (await register(db, await person(db, who), klass, day)).students.map(({ reason }) => reason)
    expect([await reasons('p-maren'), await reasons('p-idris')]).toEqual([['reads slowly'], ['']])
  })
})

it('terms have a name of their own, and are taken out only when no class is in them', async () => {
  const spec = { name: 'Autumn', starts: '2026-09-01', ends: '2026-12-20' }
  const [term] = await keepTerm(db, await maren(), spec, day)
  await expect(keepTerm(db, await maren(), spec, day)).rejects.toThrow(/Another term/)
  const klass = (await makeClass(db, await maren(), { name: 'In term', term: term!.id }, day)).id
  expect((await register(db, await maren(), klass, day)).term).toEqual({ id: term!.id, name: 'Autumn' })
  await expect(dropTerm(db, await maren(), term!.id, day)).rejects.toThrow(/Classes are in this term/)
  await changeClass(db, await maren(), klass, { term: null }, day)
  await dropTerm(db, await maren(), term!.id, day)
  expect(await listTerms(db, 'gannet')).toEqual([])
  await expect(changeClass(db, await maren(), klass, { term: 'none' }, day)).rejects.toThrow(/no longer there/)
})

it('a class that is filed away is offered to no quiz, and named in one that is meant for it', async () => {
  const klass = await newClass('Last year')
  await createQuiz(db, await maren(), 'Other', day, 'other-quiz')
  const quiz = await openedQuiz(db, 'for-last-year', { windows: [{ ...openWindow, classes: [klass] }] })
  await changeClass(db, await maren(), klass, { filed: true }, day)
  const offered = async (id: string) => (await quizView(db, await maren(), id, day)).classes.map((each) => each.id)
  expect(await offered(quiz)).toContain(klass)
  expect(await offered('other-quiz')).not.toContain(klass)
})

it('a student’s page tells what they can do in the words that they read, and takes nothing for seen', async () => {
  const page = await studentPage(db, await maren(), 'p-nell-ashdown', iso(Date.parse(day)))
  expect(page.quizzes.map(({ title }) => title)).toContain('Compass, speed and distance')
  expect(page.quizzes.every(({ sentence }) => sentence.length > 10)).toBe(true)
  const compass = page.quizzes.find(({ title }) => title.startsWith('Compass'))!
  expect(compass.grade!.percent).toMatch(/^\d/)
  const seen = await db.rows(
    "SELECT facet FROM viewed v JOIN attempt a ON a.id = v.attempt_id WHERE a.student_id = 'p-nell-ashdown'",
  )
  expect(seen).toEqual([])
  // Of a quiz that is not the teacher's own nothing is told.
  const idrisPage = await studentPage(db, await idris(), 'p-nell-ashdown', day)
  expect(idrisPage.quizzes.map(({ title }) => title)).not.toContain('Compass, speed and distance')
})

it('two groups of a class have two names, as a reader sees them', async () => {
  const klass = await newClass('Named groups')
  const make = async (name: string) => keepGroup(db, await maren(), klass, { name, members: [] }, day)
  await make('Straße')
  await expect(make('STRASSE')).rejects.toThrow(/has this name/)
  await expect(make('straße ')).rejects.toThrow(/has this name/)
  expect((await groupsOf(db, klass)).map(({ name }) => name)).toEqual(['Straße'])
})

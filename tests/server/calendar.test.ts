/** Calendars: what somebody's own pages tell, and nothing of others; an address that can be ended. */
import ICAL from 'ical.js'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Database } from '../../server/database/database'
import { calendarAt, calendarOf, endCalendarAddress, makeCalendarAddress } from '../../server/domain/people/calendar'
import { changePerson } from '../../server/domain/people/people'
import { myQuizzes } from '../../server/domain/sittings/my-quizzes'
import { setAccommodation } from '../../server/domain/classes/needs'
import { noAccommodation } from '../../core/quiz'
import { blankWindow } from '../../core/rules/windows'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('calendar', day)).db
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
const read = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent').map((each) => {
    const event = new ICAL.Event(each)
    return {
      title: event.summary,
      starts: event.startDate.toJSDate().toISOString(),
      ends: event.endDate.toJSDate().toISOString(),
    }
  })
const of = async (id: string) => read((await calendarOf(db, await person(db, id), day)).bytes)

it('a student’s has the quizzes that they see, with their own times', async () => {
  await openedQuiz(db, 'calendar')
  const later5 = { id: 'w1', classes: ['c-tuesday'], opens: later(300), closes: later(400) }
  await openedQuiz(db, 'hidden', { announced: false, windows: [blankWindow(later5)] })
  await setAccommodation(db, await person(db, 'p-maren'), nell, { ...noAccommodation, laterMinutes: 60 }, day)
  const mine = await of(nell)
  expect(mine).toContainEqual({ title: 'Quiz calendar', starts: day, ends: later(240) })
  const seen = new Set((await myQuizzes(db, await person(db, nell), day)).quizzes.map(({ title }) => title))
  expect(mine.every(({ title }) => seen.has(title.replace(/: (due|opens)$/, '')))).toBe(true)
  expect(mine.some(({ title }) => title.includes('hidden'))).toBe(false)
  expect((await of('p-kit-sorrel')).some(({ title }) => title === 'Quiz calendar')).toBe(false)
})

it('a teacher’s has the windows of their quizzes with whom they are for', async () => {
  expect((await of('p-maren')).map(({ title }) => title)).toContain('Quiz calendar (Tuesday evening)')
  expect((await of('p-idris')).map(({ title }) => title)).not.toContain('Quiz calendar (Tuesday evening)')
})

it('an address is read by whoever has it, until it is ended, another is made, or they have left', async () => {
  const student = await person(db, nell)
  const token = async () => (await makeCalendarAddress(db, student, day)).address.split('/').at(-1)!
  const first = await token()
  expect(read((await calendarAt(db, first, day)).bytes)).toEqual(await of(nell))
  const kept = await db.rows<{ token: string }>('SELECT token FROM calendar_address')
  expect(kept.some((row) => row.token === first)).toBe(false)
  const second = await token()
  await expect(calendarAt(db, first, day)).rejects.toMatchObject({ status: 404 })
  expect(await calendarAt(db, second, day)).toBeTruthy()
  await changePerson(db, await person(db, 'p-maren'), nell, { state: 'left' }, day)
  await expect(calendarAt(db, second, day)).rejects.toMatchObject({ status: 404 })
  await changePerson(db, await person(db, 'p-maren'), nell, { state: 'here' }, day)
  await endCalendarAddress(db, student, day)
  await expect(calendarAt(db, second, day)).rejects.toMatchObject({ status: 404 })
})

/** What the day line promises, found in a student's session at the times that it names: set by the test's clock. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { eventsOf, type DayEvent } from '../../core/day-line/events'
import { dayLine } from '../../core/day-line/day-line'
import { day, iso, minute, ms, plus, type Instant } from '../../core/kit/time'
import { editTo, newRow, newSection, usualRules } from '../../core/quiz'
import { blankWindow } from '../../core/rules/windows'
import { scheduleFor, studentOfClass } from '../../core/schedule'
import type { Database } from '../../server/database/database'
import { assignedTo } from '../../server/domain/classes/assigned'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { freshDatabase, person } from '../support/database'
import { startServer, type RunningServer } from '../support/server'

let db: Database
let server: RunningServer
let student: Visitor
const id = 'quiz-promised'
const hour = 60 * minute
/** Whole minutes, as the line has them. */
const now = iso(Math.ceil(Date.now() / minute) * minute)
beforeAll(async () => {
  const fresh = await freshDatabase('e2e_promised', now)
  db = fresh.db
  const maren = await person(db, 'p-maren')
  await createQuiz(db, maren, 'As promised', now, id)
  const { quiz } = await loadQuiz(db, id)
  const row = (question: string) => newRow({ type: 'question', id: `r-${question}`, question, points: 1 })
  const shown = (at: 'handIn' | 'windowClosed' | 'everyoneDone', offset = 0) => ({
    from: { at, offset },
    until: null,
    once: false,
    ifPassed: false,
    wrongOnly: false,
  })
  const whole = {
    content: {
      ...quiz.content,
      sections: [newSection({ id: 's1', title: 'Tides', order: 'kept', rows: [row('q-cover'), row('q-clearing')] })],
    },
    rules: {
      ...quiz.rules,
      limit: 30,
      grace: 0,
      windows: [
        blankWindow({ id: 'w1', classes: ['c-tuesday'], opens: plus(now, 2 * hour), closes: plus(now, 4 * hour) }),
        blankWindow({ id: 'w2', classes: ['c-saturday'], opens: plus(now, day), closes: plus(now, day + 2 * hour) }),
      ],
      release: {
        ...usualRules.release,
        score: shown('handIn'),
        questions: shown('windowClosed', 15),
        answers: shown('windowClosed', 15),
        marks: shown('everyoneDone'),
        key: shown('everyoneDone'),
        comments: shown('everyoneDone'),
      },
    },
  }
  await makeEdit(db, maren, id, 0, 'promised.1', editTo(quiz, whole)!, now)
  await openQuiz(db, maren, id, now)
  server = await startServer(fresh.url)
  student = await visitor(server.address, 'Nell Ashdown')
})
afterAll(async () => {
  await closeBrowser()
  await server.stop()
  await db.close()
})

/** The line as the teacher's page draws it, as its list of what happens when. */
async function promised(): Promise<DayEvent[]> {
  const { quiz } = await loadQuiz(db, id)
  const classes = [
    { id: 'c-saturday', name: 'Saturday morning', students: 11 },
    { id: 'c-tuesday', name: 'Tuesday evening', students: 14 },
  ]
  const ofClass = (each: string) => scheduleFor(quiz.rules, studentOfClass(each))
  return eventsOf(dayLine(quiz.rules, classes, await assignedTo(db, quiz.rules), ofClass, now))
}
const setTo = (at: Instant) => server.setClock(ms(at) - Date.now())

it('opens, closes and shows when the line says so, and not a minute before', async () => {
  const { page } = student
  const events = await promised()
  const when = (words: string | RegExp, who = 'Tuesday evening'): Instant => {
    const found = events.find((event) => event.words.match(words) && event.who.includes(who))
    expect(found, `the line tells of ${words}`).toBeDefined()
    return found!.at
  }
  // The teacher's page, as a list on a phone, says the same.
  const teacher = await visitor(server.address, 'Maren Holt', { width: 390, height: 800 })
  await teacher.page.goto(`/quizzes/${id}/rules`)
  await teacher.page
    .getByText(/may start$/)
    .first()
    .waitFor()
  for (const { who, words } of events)
    expect(
      await teacher.page.getByText(`${who}: ${words}`, { exact: true }).count(),
      `${who}: ${words}`,
    ).toBeGreaterThan(0)

  const row = () => page.locator('li').filter({ hasText: 'As promised' })
  const canStart = async (at: Instant) => {
    setTo(at)
    await page.goto('/my')
    await row().waitFor()
    return row().getByRole('link', { name: 'Look, then start' }).count()
  }
  const opens = when('may start')
  expect(opens).toBe(plus(now, 2 * hour))
  expect(await canStart(plus(opens, -minute))).toBe(0)
  expect(await canStart(plus(opens, minute / 6))).toBe(1)
  const closes = when('the window closes')
  expect(await canStart(plus(closes, -minute))).toBe(1)
  expect(await canStart(plus(closes, minute / 6))).toBe(0)

  // Begun in the last minute, their clock reaches as far beyond the window as the line says.
  await canStart(plus(closes, -minute))
  await row().getByRole('link', { name: 'Look, then start' }).click()
  await page.getByRole('button', { name: 'Start now' }).click()
  await page.locator('article').first().waitFor()
  await page.locator('article').first().getByRole('textbox').fill('2.3')
  await page.getByText(/All answers kept/).waitFor()
  setTo(plus(when(/running clock ends/), -2 * minute))
  await page.reload()
  await page.getByRole('button', { name: 'Hand in…' }).first().click()
  await page.getByRole('dialog').getByRole('button', { name: 'Hand in', exact: true }).click()
  await page.waitForURL('**/review/*')

  const reads = async (at: Instant, words: RegExp) => {
    setTo(at)
    await page.reload()
    await page.getByText('Score of this attempt').waitFor()
    return page.getByText(words).count()
  }
  const facets: [RegExp, RegExp][] = [
    [/^questions may be seen/, /height of tide|depth/i],
    [/^correct answers may be seen/, /2\.3 ± 0\.05/],
  ]
  for (const [event, words] of facets) {
    const at = when(event)
    expect(await reads(plus(at, -minute), words), `${event} a minute before`).toBe(0)
    expect(await reads(plus(at, minute / 6), words), `${event} from then on`).toBeGreaterThan(0)
  }
  server.setClock(0)
  expect(student.faults).toEqual([])
}, 120_000)

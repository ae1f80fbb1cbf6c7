/** Breaks stop the clock of a sitting, cover its questions, and give no time beyond what was granted (semantics §5). */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { noAccommodation, usualRules, type Accommodation, type Rules } from '../../core/quiz'
import { minute, ms, type Instant } from '../../core/kit/time'
import type { Database } from '../../server/database/database'
import { setAccommodation } from '../../server/domain/classes/needs'
import { closeNow } from '../../server/domain/quizzes/close'
import { loadAttempt, loadAnswers } from '../../server/domain/sittings/attempts'
import { beginBreak, endBreak } from '../../server/domain/sittings/breaks'
import { settle } from '../../server/domain/sittings/end'
import { enterSection } from '../../server/domain/sittings/enter-section'
import { handIn } from '../../server/domain/sittings/hand-in'
import { saveAnswers } from '../../server/domain/sittings/save'
import { enteredSections } from '../../server/domain/sittings/section-clocks'
import { openSitting } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz, rulesEdit } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('breaks', day)).db
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
const give = async (more: Partial<Accommodation>, at: Instant = day, student = nell) =>
  setAccommodation(db, await person(db, 'p-maren'), student, { ...noAccommodation, ...more }, at)
const begin = async (quiz: string, at: Instant = day, student = nell) => {
  const { attempt } = await startSitting(db, await person(db, student), quiz, { device: 'd1' }, at)
  const { lease } = await openSitting(db, student, attempt, 'd1', at)
  return { attempt, lease }
}
const limits = async (attempt: string) => (await loadAttempt(db, attempt)).limits
const left = async (attempt: string, at: Instant) => {
  const opened = await openSitting(db, nell, attempt, 'd1', at)
  return { minutes: opened.breakLeft / minute, lease: opened.lease }
}

describe('a break', () => {
  it('stops the clock by its own length, in as many parts as one likes, up to what was given', async () => {
    await give({ breakMinutes: 15 })
    const { attempt, lease } = await begin(await openedQuiz(db, 'breaks'))
    expect(await beginBreak(db, nell, attempt, lease, later(10))).toMatchObject({ until: later(25) })
    // It may take them all: nothing ends it before it is known.
    expect((await limits(attempt)).deadline).toBe(later(75))
    await endBreak(db, nell, attempt, later(14))
    expect((await limits(attempt)).deadline).toBe(later(64))
    const again = await left(attempt, later(14))
    expect(again.minutes).toBe(11)
    expect(await beginBreak(db, nell, attempt, again.lease, later(20))).toMatchObject({ until: later(31) })
    // Nobody ends it: it is over when there is none left.
    expect((await left(attempt, later(40))).minutes).toBe(0)
    expect((await limits(attempt)).deadline).toBe(later(75))
    const { lease: last } = await left(attempt, later(41))
    await expect(beginBreak(db, nell, attempt, last, later(42))).rejects.toThrow('There is no break left to take.')
    await endBreak(db, nell, attempt, later(43))
    expect((await limits(attempt)).deadline).toBe(later(75))
  })
  it('covers the questions and takes no answer: what comes meanwhile is set aside', async () => {
    await give({ breakMinutes: 15 })
    const { attempt, lease } = await begin(await openedQuiz(db, 'covered'))
    const { item } = (await itemsOf(db, attempt))['q-cover']!
    await beginBreak(db, nell, attempt, lease, later(1))
    await expect(openSitting(db, nell, attempt, 'd1', later(2))).rejects.toMatchObject({ code: 'break' })
    const answer = { item, seq: 1, response: { text: '3' }, flagged: false }
    const reply = await saveAnswers(db, nell, attempt, lease, [answer], later(2))
    expect(reply.refused).toMatchObject([{ item, reason: 'lease' }])
    expect((await loadAnswers(db, attempt)).every(({ response }) => response === null)).toBe(true)
    await endBreak(db, nell, attempt, later(3))
    const opened = await openSitting(db, nell, attempt, 'd1', later(3))
    expect((await saveAnswers(db, nell, attempt, opened.lease, [answer], later(4))).kept).toEqual([item])
  })
  it('begins and ends once, however often and at once it is asked', async () => {
    await give({ breakMinutes: 15 })
    const { attempt, lease } = await begin(await openedQuiz(db, 'once'))
    const begun = await Promise.allSettled([1, 2, 3, 4].map(() => beginBreak(db, nell, attempt, lease, later(5))))
    expect(begun.filter(({ status }) => status === 'fulfilled')).toHaveLength(4)
    expect((await limits(attempt)).deadline).toBe(later(75))
    await Promise.all([1, 2, 3, 4].map(() => endBreak(db, nell, attempt, later(9))))
    expect((await limits(attempt)).deadline).toBe(later(64))
    const rows = await db.rows('SELECT number FROM attempt_break WHERE attempt_id = ?', [attempt])
    expect(rows).toHaveLength(1)
  })
  it('that begins just before another device takes the lease wins over it', async () => {
    await give({ breakMinutes: 15 })
    const { attempt, lease } = await begin(await openedQuiz(db, 'in-between'))
    let begun = 0
    const between: Database = {
      ...db,
      async run(sql, values) {
        if (/^UPDATE attempt SET lease/.test(sql) && !begun++) await beginBreak(db, nell, attempt, lease, later(1))
        return db.run(sql, values)
      },
    }
    await expect(openSitting(between, nell, attempt, 'd2', later(1))).rejects.toMatchObject({ code: 'break' })
    expect([begun, (await loadAttempt(db, attempt)).device]).toEqual([1, ''])
  })
  it('begins on one device while another opens the paper: one of the two, never a paper to write on in a break', async () => {
    await give({ breakMinutes: 15 })
    const quiz = await openedQuiz(db, 'two-devices', { attempts: { ...usualRules.attempts, count: 20 } })
    for (let i = 0; i < 12; i++) {
      const { attempt, lease } = await begin(quiz, later(i * 2))
      const [rest, ...opened] = await Promise.allSettled([
        beginBreak(db, nell, attempt, lease, later(i * 2 + 1)),
        ...['d2', 'd3', 'd4'].map((device) => openSitting(db, nell, attempt, device, later(i * 2 + 1))),
      ])
      const { lease: last, device } = await loadAttempt(db, attempt)
      const { item } = (await itemsOf(db, attempt))['q-cover']!
      const answer = { item, seq: 1, response: { text: '3' }, flagged: false }
      const leases = opened.flatMap((each) => (each.status === 'fulfilled' ? each.value.lease : []))
      if (rest.status === 'fulfilled') {
        // Whoever opened before the break has lost the lease to it; nobody has one now.
        expect([device, leases.includes(last)]).toEqual(['', false])
        for (const old of leases)
          expect((await saveAnswers(db, nell, attempt, old, [answer], later(i * 2 + 1))).kept).toEqual([])
      } else expect(leases).toContain(last)
      if (rest.status === 'fulfilled') await endBreak(db, nell, attempt, later(i * 2 + 1))
      const { lease: now } = await openSitting(db, nell, attempt, 'd1', later(i * 2 + 1))
      await handIn(db, nell, attempt, now, [], later(i * 2 + 1))
    }
  })
  it('is not another student’s, nor another device’s, nor there where none was given', async () => {
    await give({})
    const { attempt, lease } = await begin(await openedQuiz(db, 'none'))
    await expect(beginBreak(db, nell, attempt, lease, later(1))).rejects.toThrow('There are no breaks on this paper.')
    await expect(beginBreak(db, 'p-silas-penn', attempt, lease, later(1))).rejects.toMatchObject({ status: 404 })
    await expect(endBreak(db, 'p-silas-penn', attempt, later(1))).rejects.toMatchObject({ status: 404 })
    await give({ breakMinutes: 5 })
    await openSitting(db, nell, attempt, 'd2', later(2))
    await expect(beginBreak(db, nell, attempt, lease, later(2))).rejects.toMatchObject({ code: 'lease' })
  })
})

describe('what else changes meanwhile', () => {
  it('a window that wins is not passed; more time that is given counts during the break and after it', async () => {
    await give({ breakMinutes: 30 })
    const closing = await openedQuiz(db, 'wins', { atClosing: 'window' })
    const first = await begin(closing, later(130))
    await beginBreak(db, nell, first.attempt, first.lease, later(140))
    expect((await limits(first.attempt)).deadline).toBe(later(180))
    await endBreak(db, nell, first.attempt, later(150))
    expect((await limits(first.attempt)).deadline).toBe(later(180))

    const { attempt, lease } = await begin(await openedQuiz(db, 'more'))
    await beginBreak(db, nell, attempt, lease, later(10))
    await give({ breakMinutes: 30, extraMinutes: 20 }, later(12))
    expect((await limits(attempt)).deadline).toBe(later(110))
    await endBreak(db, nell, attempt, later(14))
    expect((await limits(attempt)).deadline).toBe(later(84))
  })
  it('a limit that was shortened since shortens nothing, also when the break ends', async () => {
    await give({ breakMinutes: 30 })
    const quiz = await openedQuiz(db, 'shorter')
    const { attempt, lease } = await begin(quiz)
    await beginBreak(db, nell, attempt, lease, later(10))
    const edit = await rulesEdit(db, quiz, { limit: 20 } satisfies Partial<Rules>)
    const { revision } = await loadQuiz(db, quiz)
    await makeEdit(db, await person(db, 'p-maren'), quiz, revision, 'shorter.1', edit, later(11))
    await endBreak(db, nell, attempt, later(15))
    expect((await limits(attempt)).deadline).toBe(later(60))
  })
  it('a quiz that is closed meanwhile stays closed', async () => {
    await give({ breakMinutes: 30 })
    const quiz = await openedQuiz(db, 'closed')
    const { attempt, lease } = await begin(quiz)
    await beginBreak(db, nell, attempt, lease, later(10))
    await closeNow(db, await person(db, 'p-maren'), quiz, { everybody: true }, later(12))
    await expect(endBreak(db, nell, attempt, later(13))).rejects.toMatchObject({ code: 'ended' })
    await settle(db, { quiz }, later(13))
    expect(await loadAttempt(db, attempt)).toMatchObject({ state: 'handed', handedInAt: later(12) })
  })
  it('the clock of a section stands as well', async () => {
    await give({ breakMinutes: 10 })
    const quiz = await openedQuiz(db, 'section')
    const { quiz: document, revision } = await loadQuiz(db, quiz)
    const section = document.content.sections[0]!.id
    await makeEdit(
      db,
      await person(db, 'p-maren'),
      quiz,
      revision,
      'section.1',
      { do: 'set', path: ['content', 'sections', section, 'limit'], was: null, value: 20 },
      later(-30),
    )
    await openQuiz(db, await person(db, 'p-maren'), quiz, later(-20))
    const { attempt, lease } = await begin(quiz)
    await enterSection(db, nell, attempt, lease, 0, later(1))
    const stops = async () => (await enteredSections(db, attempt))[0]!.deadline
    expect(await stops()).toBe(later(21))
    await beginBreak(db, nell, attempt, lease, later(5))
    expect(await stops()).toBe(later(31))
    await give({ breakMinutes: 10, extraMinutes: 4 }, later(6))
    expect(await stops()).toBe(later(35))
    await endBreak(db, nell, attempt, later(8))
    expect(await stops()).toBe(later(28))
    const answers = await db.rows<{ stops_at: string }>('SELECT stops_at FROM answer WHERE attempt_id = ?', [attempt])
    const { stops: last } = (await enteredSections(db, attempt))[0]!
    expect(new Set(answers.map((row) => Date.parse(`${row.stops_at.replace(' ', 'T')}Z`)))).toEqual(new Set([ms(last)]))
  })
})

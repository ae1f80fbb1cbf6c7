import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { usualRules, type Rules } from '../../core/quiz'
import type { FacetName, Moment } from '../../core/release'
import { toSql } from '../../server/database/codec'
import type { Database } from '../../server/database/database'
import { setAccommodation } from '../../server/domain/classes/needs'
import { marksTable } from '../../server/domain/marks/marks'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { releaseTo, unrelease } from '../../server/domain/quizzes/open'
import { listQuizzes } from '../../server/domain/quizzes/list'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { quizView } from '../../server/domain/quizzes/view'
import { reviewFor } from '../../server/domain/reviews/review'
import { loadAttempts } from '../../server/domain/sittings/attempts'
import { settle } from '../../server/domain/sittings/end'
import { handIn } from '../../server/domain/sittings/hand-in'
import { myQuizzes } from '../../server/domain/sittings/my-quizzes'
import { saveAnswers } from '../../server/domain/sittings/save'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz, rulesEdit } from '../support/quiz'
import { noAccommodation } from '../../core/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('review', day)).db
})
afterAll(() => db.close())

const nell = { id: 'p-nell-ashdown', name: 'Nell Ashdown', zone: 'Europe/London' }
const release = (over: Partial<Record<FacetName, Moment>>): Rules['release'] => ({
  ...usualRules.release,
  ...Object.fromEntries(
    Object.entries(over).map(([name, from]) => [
      name,
      { from, until: null, once: false, ifPassed: false, wrongOnly: false },
    ]),
  ),
})

/** One paper with one of three right, handed in after ten minutes. */
async function sat(quiz: string, student = nell.id, right = 1): Promise<string> {
  const { attempt } = await startSitting(db, await person(db, student), quiz, { device: 'd1' }, day)
  const items = await itemsOf(db, attempt)
  const answers = [
    { item: items['q-cover']!.item, response: { text: '2.3' }, flagged: false, seq: 1 },
    { item: items['q-clearing']!.item, response: { text: 'clearing' }, flagged: false, seq: 2 },
  ].slice(0, right)
  await saveAnswers(db, student, attempt, 1, answers, later(5))
  await handIn(db, student, attempt, 1, [], later(10))
  return attempt
}

describe('a review holds exactly what is released', () => {
  it('nothing of a facet that is not shown is in the reply', async () => {
    const never = Object.fromEntries(Object.keys(usualRules.release).map((name) => [name, { at: 'never' }])) as Record<
      FacetName,
      Moment
    >
    const review = await reviewFor(
      db,
      nell,
      await sat(await openedQuiz(db, 'nothing', { release: release(never) })),
      later(500),
    )
    expect(review).toMatchObject({
      score: null,
      grade: null,
      sections: [],
      classFigures: null,
      certificate: null,
      changesAt: null,
    })
  })
  it.each<[FacetName, string]>([
    ['questions', 'question'],
    ['answers', 'answer'],
    ['marks', 'mark'],
    ['key', 'key'],
    ['comments', 'comments'],
  ])('%s alone fills only its own part', async (facet, part) => {
    const only = Object.fromEntries(
      Object.keys(usualRules.release).map((name) => [
        name,
        name === facet ? { at: 'handIn', offset: 0 } : { at: 'never' },
      ]),
    ) as Record<FacetName, Moment>
    const { sections } = await reviewFor(
      db,
      nell,
      await sat(await openedQuiz(db, `only-${facet}`, { release: release(only) })),
      later(11),
    )
    for (const question of sections[0]!.questions) {
      for (const name of ['question', 'answer', 'mark', 'key', 'comments'] as const)
        expect(question[name] === null, `${name} with ${facet}`).toBe(name !== part)
    }
  })
  it('a score that may be seen and waits for marks is said to wait; one that may not be seen is not named', async () => {
    const waits = async (quiz: string, at: Moment) => {
      const attempt = await sat(await openedQuiz(db, quiz, { release: release({ score: at }) }))
      const marked = await reviewFor(db, nell, attempt, later(11))
      await db.run('UPDATE attempt SET score = NULL WHERE id = ?', [attempt])
      const waiting = await reviewFor(db, nell, attempt, later(11))
      return [marked.scoreWaits, waiting.scoreWaits, waiting.score]
    }
    expect(await waits('waits-shown', { at: 'handIn', offset: 0 })).toEqual([false, true, null])
    expect(await waits('waits-hidden', { at: 'never' })).toEqual([false, false, null])
  })
  it('keys come when everyone is done, and an extension granted meanwhile moves that', async () => {
    const quiz = await openedQuiz(db, 'everyone', { release: release({ key: { at: 'everyoneDone', offset: 0 } }) })
    const attempt = await sat(quiz)
    // The window ends at 180; a start then may run for 60 minutes, time and a half for one of the class, and a minute of grace.
    const shown = async (minutes: number) => (await reviewFor(db, nell, attempt, later(minutes))).facets.key
    expect(await shown(270)).toMatchObject({ shown: false, from: later(271) })
    expect((await shown(271)).shown).toBe(true)
    await setAccommodation(
      db,
      await person(db, 'p-maren'),
      'p-silas-penn',
      { ...noAccommodation, factor: 2, extraMinutes: 0, stretchWindow: false },
      later(100),
    )
    expect(await shown(271)).toMatchObject({ shown: false, from: later(301) })
    await setAccommodation(
      db,
      await person(db, 'p-maren'),
      'p-silas-penn',
      { ...noAccommodation, factor: 1, extraMinutes: 0, stretchWindow: false },
      later(100),
    )
  })
  it('by hand: for the class released to, and taken back', async () => {
    const quiz = await openedQuiz(db, 'by-hand', { release: release({ key: { at: 'teacher' } }) })
    const attempt = await sat(quiz)
    const maren = await person(db, 'p-maren')
    const shown = async () => (await reviewFor(db, nell, attempt, later(20))).facets.key.shown
    expect(await shown()).toBe(false)
    await releaseTo(db, maren, quiz, 'c-saturday', later(11))
    expect(await shown()).toBe(false)
    await releaseTo(db, maren, quiz, 'c-tuesday', later(12))
    expect(await shown()).toBe(true)
    await unrelease(db, maren, quiz, 'c-tuesday', later(13))
    expect(await shown()).toBe(false)
  })
  it('one viewing is one viewing', async () => {
    const quiz = await openedQuiz(db, 'once', {
      release: {
        ...usualRules.release,
        key: { from: { at: 'handIn', offset: 0 }, until: null, once: true, ifPassed: false, wrongOnly: false },
      },
    })
    const attempt = await sat(quiz)
    const keys = async (minutes: number) =>
      (await reviewFor(db, nell, attempt, later(minutes))).sections.flatMap((section) =>
        section.questions.map((question) => question.key),
      )
    expect((await keys(11)).every(Boolean)).toBe(true)
    expect((await keys(12)).some(Boolean)).toBe(false)
  })
  it('only when passed', async () => {
    const rules = {
      release: {
        ...usualRules.release,
        key: { from: { at: 'handIn' as const, offset: 0 }, until: null, once: false, ifPassed: true, wrongOnly: false },
      },
    }
    const failed = await reviewFor(db, nell, await sat(await openedQuiz(db, 'failed', rules)), later(11))
    expect([failed.grade?.passed, failed.facets.key.shown]).toEqual([false, false])
    const passed = await reviewFor(db, nell, await sat(await openedQuiz(db, 'passed', rules), nell.id, 2), later(11))
    expect([passed.grade?.passed, passed.facets.key.shown]).toEqual([true, true])
  })
})

describe('one release rule governs every place that shows a score', () => {
  it('the list of quizzes shows a grade only when the review does', async () => {
    const quiz = await openedQuiz(db, 'everywhere', { release: release({ grade: { at: 'windowClosed', offset: 0 } }) })
    const attempt = await sat(quiz)
    for (const minutes of [11, 200, 270, 271, 400]) {
      const now = later(minutes)
      const listed =
        (await myQuizzes(db, await person(db, nell.id), now)).quizzes.find((each) => each.id === quiz)!.grade !== null
      expect(listed).toBe((await reviewFor(db, nell, attempt, now)).grade !== null)
    }
  })
  it('a grade that may be viewed once is viewed in the review, and no list shows it', async () => {
    const quiz = await openedQuiz(db, 'grade-once', {
      release: {
        ...usualRules.release,
        grade: { from: { at: 'handIn', offset: 0 }, until: null, once: true, ifPassed: false, wrongOnly: false },
      },
    })
    const attempt = await sat(quiz)
    const listed = async (minutes: number) =>
      (await myQuizzes(db, await person(db, nell.id), later(minutes))).quizzes.find((each) => each.id === quiz)!.grade
    const reviewed = async (minutes: number) => (await reviewFor(db, nell, attempt, later(minutes))).grade?.text ?? null
    expect(await listed(11)).toBeNull()
    expect([await reviewed(12), await reviewed(13)]).toEqual(['33.3 %', null])
    expect(await listed(14)).toBeNull()
  })
  it('a grade seen in the list is a first viewing', async () => {
    const quiz = await openedQuiz(db, 'grade-logged', { release: release({ grade: { at: 'handIn', offset: 0 } }) })
    const attempt = await sat(quiz)
    await myQuizzes(db, await person(db, nell.id), later(11))
    await myQuizzes(db, await person(db, nell.id), later(15))
    expect(await db.rows('SELECT facet, at FROM viewed WHERE attempt_id = ?', [attempt])).toEqual([
      { facet: 'grade', at: toSql(later(11)) },
    ])
  })
  it('every page says the same state while a clock runs past the window', async () => {
    const quiz = await openedQuiz(db, 'state')
    const maren = await person(db, 'p-maren')
    const listed = async (minutes: number) =>
      (await listQuizzes(db, maren, later(minutes))).quizzes.find((each) => each.id === quiz)!.state
    const viewed = async (minutes: number) => (await quizView(db, maren, quiz, later(minutes))).state
    for (const [minutes, state] of [
      [-1, 'scheduled'],
      [0, 'open'],
      [181, 'open'],
      [270, 'open'],
      [271, 'closed'],
    ] as const) {
      expect([await listed(minutes), await viewed(minutes)], `${minutes} minutes`).toEqual([state, state])
    }
  })
  it('a sitting that outlasts a limit shortened since keeps the quiz open', async () => {
    const quiz = await openedQuiz(db, 'outlasts')
    const maren = await person(db, 'p-maren')
    const { attempt } = await startSitting(db, await person(db, nell.id), quiz, { device: 'd1' }, later(170))
    await makeEdit(db, maren, quiz, 1, 'short.1', await rulesEdit(db, quiz, { limit: 5 }), later(171))
    const { hardStop } = (await loadAttempts(db, { ids: [attempt] }))[0]!.limits
    expect(hardStop).toBe(later(231))
    for (const [minutes, state] of [
      [230, 'open'],
      [231, 'closed'],
    ] as const) {
      expect((await listQuizzes(db, maren, later(minutes))).quizzes.find((each) => each.id === quiz)!.state).toBe(state)
      expect((await quizView(db, maren, quiz, later(minutes))).state).toBe(state)
    }
  })
  it('a class that is taken out of the rules keeps its papers, its review and its list', async () => {
    const quiz = await openedQuiz(db, 'taken-out')
    const attempt = await sat(quiz)
    const { revision } = await loadQuiz(db, quiz)
    const windows = [
      {
        id: 'w1',
        classes: ['c-saturday'],
        opens: day,
        closes: later(180),
        due: null,
        latestStart: null,
        groups: [],
        students: [],
        closedAt: null,
        password: null,
      },
    ]
    await makeEdit(
      db,
      await person(db, 'p-maren'),
      quiz,
      revision,
      'out.1',
      await rulesEdit(db, quiz, { windows }),
      later(20),
    )
    for (const at of [later(30), later(500)]) {
      expect((await reviewFor(db, nell, attempt, at)).score).not.toBeNull()
      const listed = (await myQuizzes(db, await person(db, nell.id), at)).quizzes.find(({ id }) => id === quiz)
      expect(listed).toMatchObject({ may: 'done', sentence: 'This quiz is not meant for you.' })
    }
  })
  it('a paper that cannot be marked stops neither the sweep nor who reads its quiz', async () => {
    const quiz = await openedQuiz(db, 'stuck')
    const { attempt } = await startSitting(db, await person(db, nell.id), quiz, { device: 'd1' }, day)
    const petra = await person(db, 'p-petra-lund')
    const { attempt: other } = await startSitting(db, petra, quiz, { device: 'd1' }, day)
    await db.run("UPDATE attempt SET paper = 'nonsense' WHERE id = ?", [attempt])
    expect(await settle(db, { quiz }, later(400))).toBe(1)
    expect(await settle(db, { quiz }, later(400))).toBe(0)
    expect(await loadAttempts(db, { ids: [attempt, other] })).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ id: attempt, state: 'open' }),
        expect.objectContaining({ id: other, state: 'handed' }),
      ]),
    )
    expect((await myQuizzes(db, petra, later(401))).quizzes.some(({ id }) => id === quiz)).toBe(true)
  })
  it('a teacher sees marks whatever is released', async () => {
    const table = await marksTable(db, 'everywhere', later(12))
    expect(table.students.find((student) => student.id === nell.id)).toMatchObject({
      percent: '33.3',
      passed: false,
      attempts: [{ score: '1', possible: '3', how: { counts: true } }],
    })
  })
  it('class figures stay hidden below eight grades', async () => {
    const quiz = await openedQuiz(db, 'class', { release: release({ class: { at: 'handIn', offset: 0 } }) })
    const students = (
      await db.rows<{ person_id: string }>(
        "SELECT person_id FROM enrolment WHERE class_id = 'c-tuesday' AND person_id <> ?",
        [nell.id],
      )
    ).map((each) => each.person_id)
    const attempt = await sat(quiz)
    for (const student of students.slice(0, 6)) await sat(quiz, student)
    expect((await reviewFor(db, nell, attempt, later(11))).classFigures).toBeNull()
    await sat(quiz, students[6]!, 2)
    expect((await reviewFor(db, nell, attempt, later(11))).classFigures).toEqual({
      students: 8,
      mean: '37.5',
      highest: '66.7',
    })
  })
})

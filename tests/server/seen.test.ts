/** What is seen afterwards: only the wrong ones, best results, receipts. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { applyEdit, usualRules, type Rules } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { lookAtChecks } from '../../server/domain/quizzes/checks'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { reviewFor } from '../../server/domain/reviews/review'
import { handIn } from '../../server/domain/sittings/hand-in'
import { saveAnswers } from '../../server/domain/sittings/save'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('seen', day)).db
})
afterAll(() => db.close())

const nell = 'p-nell-ashdown'
const at = (moment: 'handIn' | 'everyoneDone' | 'never', over = {}) => ({
  from: moment === 'never' ? { at: moment } : { at: moment, offset: 0 },
  until: null,
  once: false,
  ifPassed: false,
  wrongOnly: false,
  ...over,
})
async function sat(quiz: string, student: string, words: Record<string, string>, minutes = 1) {
  const { attempt } = await startSitting(
    db,
    await person(db, student),
    quiz,
    { device: `d-${student}` },
    later(minutes),
  )
  const items = await itemsOf(db, attempt)
  const answers = Object.entries(words).map(([question, text], i) => ({
    item: items[question]!.item,
    response: { text },
    flagged: false,
    seq: i + 1,
  }))
  if (answers.length) await saveAnswers(db, student, attempt, 1, answers, later(minutes + 1))
  await handIn(db, student, attempt, 1, [], later(minutes + 2))
  return { attempt, items }
}
const rulesWith = (release: Partial<Rules['release']>, more: Partial<Rules> = {}): Partial<Rules> => ({
  release: { ...usualRules.release, ...release },
  ...more,
})

describe('only the wrong ones', () => {
  it('a facet is shown of what was not fully right, and of nothing else; that gives marks away, and is told', async () => {
    const wrongOnly = { wrongOnly: true }
    const quiz = await openedQuiz(
      db,
      'wrong-only',
      rulesWith({
        questions: at('handIn', wrongOnly),
        answers: at('handIn'),
        key: at('handIn', wrongOnly),
        marks: at('never'),
      }),
    )
    const { attempt, items } = await sat(quiz, nell, { 'q-cover': '2.3', 'q-clearing': 'no' })
    const review = await reviewFor(db, await person(db, nell), attempt, later(5))
    const shown = Object.fromEntries(
      review.sections.flatMap(({ questions }) =>
        questions.map(({ item, question, answer, key, mark }) => [
          item,
          [question !== null, answer !== null, key !== null, mark],
        ]),
      ),
    )
    expect(shown[items['q-cover']!.item]).toEqual([false, true, false, null])
    expect(shown[items['q-clearing']!.item]).toEqual([true, true, true, null])
    expect(shown[items['q-datum']!.item]).toEqual([true, true, true, null])
    const { checks } = await lookAtChecks(db, await person(db, 'p-maren'), quiz, '', later(0))
    expect(checks.map(({ code }) => code)).toContain('leak')
  })
  it('shows nothing before the paper is final', async () => {
    const quiz = await openedQuiz(
      db,
      'wrong-again',
      rulesWith({ answers: at('handIn', { wrongOnly: true }) }, { attempts: { ...usualRules.attempts, again: true } }),
    )
    const { attempt } = await sat(quiz, nell, {})
    expect((await reviewFor(db, await person(db, nell), attempt, later(5))).facets.answers).toMatchObject({
      shown: false,
      from: later(61),
    })
  })
})

describe('best results', () => {
  it('are told to those of the class when their facet is, in the form that the rules say; never without names', async () => {
    const quiz = await openedQuiz(db, 'best', rulesWith({ best: at('handIn') }, { best: 'initials' }))
    const students = await db.rows<{ id: string }>(
      "SELECT person_id AS id FROM enrolment WHERE class_id = 'c-tuesday' ORDER BY person_id LIMIT 9",
    )
    const papers: string[] = []
    for (const [i, { id }] of students.entries())
      papers.push((await sat(quiz, id, i % 2 ? { 'q-cover': '2.3' } : {}, 1)).attempt)
    const { best } = await reviewFor(db, await person(db, students[1]!.id), papers[1]!, later(6))
    expect(best).toMatchObject({ place: 1, of: 9 })
    expect(best!.list.every(({ who }) => /^(\p{Lu}\. ?)+$/u.test(who))).toBe(true)
    expect(best!.list.filter(({ own }) => own)).toHaveLength(1)
    const hidden = await openedQuiz(db, 'best-anonymous', rulesWith({ best: at('handIn') }, { anonymous: true }))
    const { attempt } = await sat(hidden, nell, {})
    expect((await reviewFor(db, await person(db, nell), attempt, later(6))).best).toBeNull()
  })
})

describe('a receipt', () => {
  it('says what was handed in; its code is of what was kept; with answers it is a weaker leak', async () => {
    const receipt = async (name: string, kind: Rules['receipt'], words: Record<string, string>) => {
      const quiz = await openedQuiz(db, name, { receipt: kind })
      const { attempt } = await sat(quiz, nell, words)
      const read = async () => (await reviewFor(db, await person(db, nell), attempt, later(6))).receipt
      expect(await read()).toEqual(await read())
      return read()
    }
    expect(await receipt('receipt-none', 'none', {})).toBeNull()
    const plain = await receipt('receipt-plain', 'handedIn', { 'q-cover': '2.3' })
    expect(plain).toMatchObject({ at: later(3), answered: 1, questions: 3, answers: null })
    expect(plain!.code).toMatch(/^[0-9a-f]{12}$/)
    const full = await receipt('receipt-full', 'answers', { 'q-cover': '2.3' })
    expect(full!.answers!.map(({ text }) => text)).toContain('2.3 m')
    expect(full!.code).not.toBe(plain!.code)
    const { checks } = await lookAtChecks(db, await person(db, 'p-maren'), 'receipt-full', '', later(0))
    const early = checks.find(({ code }) => code === 'questions-early')!
    expect(early.sentence).toMatch(/by a receipt/)
    const { quiz } = await loadQuiz(db, 'receipt-full')
    const { remedy } = early as { remedy: { edit: Parameters<typeof applyEdit>[1] } }
    const mended = applyEdit(quiz, remedy.edit).quiz
    expect(mended.rules.receipt).toBe('handedIn')
  })
})

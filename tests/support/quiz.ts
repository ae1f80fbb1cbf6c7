import { minute, plus, type Instant } from '../../core/kit/time'
import {
  editTo,
  newRow,
  usualRules,
  type Content,
  type Edit,
  type Quiz,
  type Rules,
  type Section,
} from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { loadPaper } from '../../server/domain/sittings/attempts'
import { person } from './database'

/** An instant at which the demo school's own quizzes of these tests are laid out. */
export const day = '2030-05-14T09:00:00.000Z'
export const later = (minutes: number, from: Instant = day) => plus(from, minutes * minute)

/** Three questions on the open, whose answers tests can give: a choice, a number, a text. */
export const threeRows: Section['rows'] = ['q-datum', 'q-cover', 'q-clearing'].map((question) =>
  newRow({ type: 'question', id: `r-${question}`, question, points: 1 }),
)

/** The edit that gives a quiz other rules, as it stands. */
export async function rulesEdit(db: Database, id: string, rules: Partial<Rules>): Promise<Edit> {
  const { quiz } = await loadQuiz(db, id)
  return editTo(quiz, { ...quiz, rules: { ...quiz.rules, ...rules } })!
}

/** A quiz for Tuesday evening, open from `day` for three hours with a limit of 60 minutes unless said otherwise. */
export async function openedQuiz(
  db: Database,
  id: string,
  rules: Partial<Rules> = {},
  content: Partial<Content> = {},
  rows = threeRows,
): Promise<string> {
  const maren = await person(db, 'p-maren')
  await createQuiz(db, maren, `Quiz ${id}`, later(-60), id)
  const { quiz } = await loadQuiz(db, id)
  const { content: blank } = quiz
  const whole: Quiz = {
    content: { ...blank, shuffleOptions: false, sections: [{ ...blank.sections[0]!, rows }], ...content },
    rules: {
      ...usualRules,
      windows: [
        {
          id: 'w1',
          classes: ['c-tuesday'],
          opens: day,
          closes: later(180),
          due: null,
          latestStart: null,
          groups: [],
          students: [],
          closedAt: null,
          password: null,
        },
      ],
      limit: 60,
      ...rules,
    },
  }
  await makeEdit(db, maren, id, 0, 'test.1', editTo(quiz, whole)!, later(-50))
  await openQuiz(db, maren, id, later(-40))
  return id
}

/** Item ids of an attempt by question. */
export async function itemsOf(
  db: Database,
  attempt: string,
): Promise<Record<string, { item: string; options: Record<string, string> }>> {
  const paper = await loadPaper(db, attempt)
  return Object.fromEntries(
    paper.items.map((item) => [
      item.question,
      { item: item.id, options: Object.fromEntries(item.options.map((option) => [option.option, option.id])) },
    ]),
  )
}

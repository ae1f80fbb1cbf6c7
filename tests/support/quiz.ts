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
  type Window,
} from '../../core/quiz'
import { blankWindow } from '../../core/rules/windows'
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

/** A window of three hours from `day` on. */
export const threeHours = (...classes: string[]): Window =>
  blankWindow({ id: 'w1', classes, opens: day, closes: later(180) })

/** A draft of Maren's for Tuesday evening, for three hours from `day` on with a limit of 60 minutes unless said otherwise. */
export async function draftQuiz(
  db: Database,
  id: string,
  rules: Partial<Rules> = {},
  content: Partial<Content> = {},
  rows = threeRows,
): Promise<string> {
  const maren = await person(db, 'p-maren')
  await createQuiz(db, maren, `Quiz ${id}`, later(-60), id)
  const { quiz } = await loadQuiz(db, id)
  const { content: begun } = quiz
  const whole: Quiz = {
    content: { ...begun, shuffleOptions: false, sections: [{ ...begun.sections[0]!, rows }], ...content },
    rules: { ...usualRules, windows: [threeHours('c-tuesday')], limit: 60, ...rules },
  }
  await makeEdit(db, maren, id, 0, 'test.1', editTo(quiz, whole)!, later(-50))
  return id
}

/** The same, opened. */
export async function openedQuiz(...[db, id, ...more]: Parameters<typeof draftQuiz>): Promise<string> {
  await draftQuiz(db, id, ...more)
  await openQuiz(db, await person(db, 'p-maren'), id, later(-40))
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

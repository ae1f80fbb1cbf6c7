import { z } from 'zod'
import {
  gives,
  newQuiz,
  newRow,
  newSection,
  questionsUsed,
  withHeld,
  type Content,
  type Quiz,
  type Row,
} from '../../../core/quiz'
import type { Instant } from '../../../core/kit/time'
import { textRow, type PortableRow, type PortableTest } from '../../../formats'
import type { Db } from '../../database/database'
import { cleanHtml } from '../bank/material/clean-html'
import { loadQuestions } from '../bank/questions/questions'
import { newId } from '../ids'
import type { Person } from '../../people/people'
import { Problem } from '../problem'
import { pinnedIn } from '../quizzes/edition'
import { heldNow } from '../quizzes/held'
import { createQuizzes, loadQuiz } from '../quizzes/quizzes'
import { formatOf, giveFile } from './give'

export const giveQuizRequest = z.strictObject({ as: formatOf('quiz') })

/** What is known of the questions that a test's items have become. */
export type Taken = ReadonlyMap<string, { id: string; points: number; stimulus: string | null }>

function rowOf(row: PortableRow, taken: Taken): Row[] {
  if (row.text !== undefined) return [newRow({ type: 'text', id: newId(), html: cleanHtml(row.text) })]
  const found = row.items.flatMap((item) => taken.get(item) ?? [])
  const [first] = found
  if (!first) return []
  const points = row.points ?? first.points
  const questions = found.map(({ id }) => id)
  if (row.items.length === 1)
    return [
      newRow({ type: 'question', id: newId(), question: first.id, points, fixed: row.fixed, required: row.required }),
    ]
  const draw = Math.min(row.draw, questions.length)
  if (row.together && first.stimulus !== null && found.every((each) => each.stimulus === first.stimulus))
    return [
      newRow({
        type: 'stimulus',
        id: newId(),
        stimulus: first.stimulus,
        questions,
        draw,
        order: row.order,
        points,
        fixed: row.fixed,
      }),
    ]
  if (draw === questions.length)
    return found.map((each) =>
      newRow({
        type: 'question',
        id: newId(),
        question: each.id,
        points: row.points ?? each.points,
        fixed: row.fixed,
      }),
    )
  return [newRow({ type: 'pool', id: newId(), questions, draw, points, fixed: row.fixed })]
}

/** A test of a file as a quiz in draft; rows whose items did not come are left out. */
export function quizFrom(test: PortableTest, taken: Taken): Quiz {
  const blank = newQuiz(test.title, newId())
  const sections = test.sections
    .map((section) => {
      const { title, order, limit = null } = section
      const rows = section.rows.flatMap((row) => rowOf(row, taken))
      return newSection({ id: newId(), title, intro: cleanHtml(section.intro), order, limit, rows })
    })
    .filter((section) => section.rows.some(gives))
  return {
    content: {
      ...blank.content,
      intro: cleanHtml(test.intro ?? ''),
      movement: test.movement,
      sections: sections.length ? sections : blank.content.sections,
    },
    rules: { ...blank.rules, limit: test.limit, atDeadline: test.mayOverrun ? 'finish' : 'handIn' },
  }
}

/** Makes the quizzes of an import. @returns their ids */
export async function makeQuizzes(
  db: Db,
  person: Person,
  tests: readonly PortableTest[],
  taken: Taken,
  now: Instant,
): Promise<string[]> {
  const quizzes = tests
    .map((test) => ({ id: newId(), title: test.title, quiz: quizFrom(test, taken) }))
    .filter(({ quiz }) => questionsUsed(quiz.content).length)
  await createQuizzes(db, person, quizzes, now)
  return quizzes.map(({ id }) => id)
}

/** A quiz's running order as a test of a file, its questions named by their ids. */
export function portableTest(content: Content, rules: Pick<Quiz['rules'], 'limit' | 'atDeadline'>): PortableTest {
  const rowOut = (row: Row): PortableRow[] => {
    if (row.type === 'text') return [textRow(row.html)]
    if (!gives(row)) return []
    const base = { points: row.points, fixed: row.fixed, required: row.required }
    if (row.type === 'question') return [{ ...base, items: [row.question], draw: 1, together: false, order: 'kept' }]
    return [
      {
        ...base,
        items: row.questions,
        draw: Math.min(row.draw, row.questions.length),
        together: row.type === 'stimulus',
        order: row.type === 'stimulus' ? row.order : 'shuffled',
      },
    ]
  }
  return {
    title: content.title,
    intro: content.intro,
    limit: rules.limit,
    mayOverrun: rules.atDeadline === 'finish',
    // A section that is closed when it is left has no like there: within it students move freely.
    movement: content.movement === 'forward' ? 'forward' : 'free',
    notes: [],
    sections: content.sections.map((section) => ({
      title: section.title,
      intro: section.intro,
      order: section.order,
      limit: section.limit,
      rows: section.rows.flatMap(rowOut),
    })),
  }
}

/** A quiz with its questions as a package of QTI. Windows, release and the rest of its rules have no place there. */
export async function giveQuiz(
  db: Db,
  person: Person,
  quizId: string,
  { as }: z.infer<typeof giveQuizRequest>,
): Promise<Awaited<ReturnType<typeof giveFile>>> {
  const row = await loadQuiz(db, quizId)
  const quiz = { ...row.quiz, content: withHeld(row.quiz.content, await heldNow(db, row)) }
  const used = [...(await loadQuestions(db, person.school, questionsUsed(quiz.content))).keys()]
  if (!used.length) throw new Problem(422, 'nothing', 'There is no question in this quiz yet.')
  return giveFile(db, person, { questions: used, as }, portableTest(quiz.content, quiz.rules), await pinnedIn(db, quiz))
}

import { createHash } from 'node:crypto'
import type { QuizTeacherRow } from '../../database/tables'
import { allRows, hasConditions, mostHeld, type Condition, type Held } from '../../../core/quiz'
import type { Db, Value } from '../../database/database'
import type { Person } from '../../people/people'
import { hitsFor, type Hit } from '../bank/finding/hits'
import { idsMatching } from '../bank/finding/search'
import { searchQuery } from '../bank/finding/search-query'
import type { LoadedQuiz } from './quizzes'

type Where = { sql: string; values: Value[] }

/** Everybody who works in a quiz, its owner first. */
async function teachersOf(db: Db, { id, owner }: Pick<LoadedQuiz, 'id' | 'owner'>): Promise<string[]> {
  const rows = await db.rows<Pick<QuizTeacherRow, 'person_id'>>(
    "SELECT person_id FROM quiz_teacher WHERE quiz_id = ? AND may = 'write'",
    [id],
  )
  return [owner, ...rows.map((row) => row.person_id)]
}

/** Questions of quizzes: only those of quizzes that somebody who works in this one works in. */
const inQuizzes = (quizzes: readonly string[], teachers: readonly string[]): Where => ({
  sql: 'q.id IN (SELECT u.question_id FROM quiz_question u JOIN quiz z ON z.id = u.quiz_id WHERE z.id IN (?) AND (z.owner_id IN (?) OR EXISTS (SELECT 1 FROM quiz_teacher t WHERE t.quiz_id = z.id AND t.person_id IN (?))))',
  values: [[...quizzes], [...teachers], [...teachers]],
})

function questionsFor(db: Db, school: string, teachers: readonly string[], by: Condition): Promise<string[]> {
  const { quizzes, unusedSince, except, ...filters } = by
  const query = searchQuery.parse({ ...filters, state: 'usable', unusedSince: unusedSince ?? '' })
  const [owner, ...others] = teachers
  const further: Where[] = [
    ...(quizzes.length ? [inQuizzes(quizzes, teachers)] : []),
    ...(except.length ? [{ sql: 'q.id NOT IN (?)', values: [except] }] : []),
  ]
  // A condition finds nothing that somebody who works in the quiz may not see: it would be shown to them.
  return idsMatching(db, { id: owner!, school }, query, { seenBy: others, further, most: mostHeld })
}

/** What the pools of a quiz that have a condition hold now: of what can be used, and what all who work in it may see. */
export async function heldNow(db: Db, row: Pick<LoadedQuiz, 'id' | 'owner' | 'school' | 'quiz'>): Promise<Held> {
  if (!hasConditions(row.quiz.content)) return new Map()
  const teachers = await teachersOf(db, row)
  const pools = allRows(row.quiz.content).flatMap((each) =>
    each.type === 'pool' && each.condition ? [{ id: each.id, by: each.condition }] : [],
  )
  const found = await Promise.all(pools.map(({ by }) => questionsFor(db, row.school, teachers, by)))
  return new Map(pools.map(({ id }, i) => [id, found[i]!]))
}

/** Stands for what is held: the same while the same is. */
export const stampOf = (held: Held): string =>
  held.size
    ? createHash('sha256')
        .update(JSON.stringify([...held]))
        .digest('base64url')
        .slice(0, 16)
    : ''

/** What pools with a condition hold, as a page needs it. */
export interface HeldReply {
  stamp: string
  pools: { row: string; questions: string[] }[]
  questions: Hit[]
}

export async function heldReply(db: Db, person: Pick<Person, 'school'>, held: Held): Promise<HeldReply> {
  return {
    stamp: stampOf(held),
    pools: [...held].map(([row, questions]) => ({ row, questions: [...questions] })),
    questions: await hitsFor(db, person, [...new Set([...held.values()].flat())]),
  }
}

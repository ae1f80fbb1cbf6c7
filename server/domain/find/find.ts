import type { ClassRow, PersonRow, QuestionRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import type { Database, Db, Value } from '../../database/database'
import { like, searchQuery } from '../bank/finding/search-query'
import { wordsOf } from '../bank/finding/entries'
import { firstFound } from '../bank/finding/search'
import { quizzesNamed } from '../quizzes/list'
import { quizzesOf } from '../sittings/my-quizzes'
import type { Person } from '../../people/people'

/** Something that was found by typing: where it is, and what it is called. */
export interface FoundThing {
  sort: 'question' | 'quiz' | 'student' | 'class'
  id: string
  name: string
  /** What tells it from others of the same name. */
  note: string
  /** Its page. */
  to: string
}

/** So many of each sort are told: who looks for one of many types on. */
const mostOfEach = 6

/** Each word has to stand somewhere in a column. */
function named(column: string, words: string): { sql: string; values: Value[] } {
  const each = words.split(/\s+/).filter(Boolean).slice(0, 8)
  return {
    sql: each.map(() => ` AND ${column} LIKE ?`).join(''),
    values: each.map((word) => `%${like(word)}`),
  }
}

async function questions(db: Db, person: Person, words: string): Promise<FoundThing[]> {
  if (!wordsOf(words).length) return []
  const ids = await firstFound(db, person, searchQuery.parse({ words, take: mostOfEach }))
  if (!ids.length) return []
  const rows = await db.rows<Pick<QuestionRow, 'id' | 'title' | 'internal_name'>>(
    'SELECT id, title, internal_name FROM question WHERE id IN (?)',
    [ids],
  )
  const known = new Map(rows.map((row) => [row.id, row]))
  return ids.flatMap((id): FoundThing[] => {
    const row = known.get(id)
    if (!row) return []
    const name = row.internal_name || row.title
    return [{ sort: 'question', id, name, note: row.internal_name ? row.title : '', to: `/bank/${id}` }]
  })
}

async function quizzes(db: Db, person: Person, words: string): Promise<FoundThing[]> {
  return (await quizzesNamed(db, person, words, mostOfEach)).map(({ id, title, mayWrite }) => ({
    sort: 'quiz',
    id,
    name: title,
    note: mayWrite ? '' : 'to look at',
    to: mayWrite ? `/quizzes/${id}/compose` : `/quizzes?look=${id}`,
  }))
}

/** Students of the classes that a teacher teaches: their pages are for nobody else. */
async function students(db: Db, person: Person, words: string): Promise<FoundThing[]> {
  const by = named('p.name', words)
  const rows = await db.rows<Pick<PersonRow, 'id' | 'name'> & { classes: string }>(
    `SELECT p.id, p.name, GROUP_CONCAT(DISTINCT c.name ORDER BY c.name SEPARATOR ', ') AS classes
    FROM class_teacher t JOIN class c ON c.id = t.class_id JOIN enrolment e ON e.class_id = c.id JOIN person p ON p.id = e.person_id
    WHERE t.person_id = ? AND t.may = 'teach' AND p.state = 'here' AND p.guest = 0${by.sql}
    GROUP BY p.id, p.name ORDER BY p.name, p.id LIMIT ?`,
    [person.id, ...by.values, mostOfEach],
  )
  return rows.map(({ id, name, classes }) => ({ sort: 'student', id, name, note: classes, to: `/students/${id}` }))
}

async function classes(db: Db, person: Person, words: string): Promise<FoundThing[]> {
  const by = named('c.name', words)
  const rows = await db.rows<Pick<ClassRow, 'id' | 'name'> & { term: string | null }>(
    `SELECT c.id, c.name, x.name AS term FROM class_teacher t JOIN class c ON c.id = t.class_id LEFT JOIN term x ON x.id = c.term_id
    WHERE t.person_id = ? AND c.link_of IS NULL${by.sql} ORDER BY c.filed, c.name, c.id LIMIT ?`,
    [person.id, ...by.values, mostOfEach],
  )
  return rows.map(({ id, name, term }) => ({ sort: 'class', id, name, note: term ?? '', to: `/classes/${id}` }))
}

/** A student's own quizzes, as their list has them; nothing is taken for seen by it. */
async function ownQuizzes(database: Database, person: Person, words: string, now: Instant): Promise<FoundThing[]> {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean)
  const { listed } = await quizzesOf(database, person, now)
  return listed
    .filter(({ quiz }) => wanted.every((word) => quiz.title.toLowerCase().includes(word)))
    .slice(0, mostOfEach)
    .map(({ quiz }) => {
      const last = quiz.attempts.at(-1)
      const to = quiz.sitting
        ? `/sit/${quiz.sitting}`
        : last && quiz.may === 'done'
          ? `/review/${last.id}`
          : `/my/${quiz.id}`
      return { sort: 'quiz', id: quiz.id, name: quiz.title, note: quiz.sentence, to }
    })
}

/** What somebody finds by typing: of questions, quizzes, students and classes only what they may see. */
export async function find(database: Database, person: Person, words: string, now: Instant): Promise<FoundThing[]> {
  if (!words.trim()) return []
  if (person.role === 'student') return ownQuizzes(database, person, words, now)
  const found = await Promise.all([
    quizzes(database, person, words),
    students(database, person, words),
    classes(database, person, words),
    questions(database, person, words),
  ])
  return found.flat()
}

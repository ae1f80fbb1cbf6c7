import type { EditionRow, ObjectiveRow, PersonRow, QuestionRow, QuizAsideRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { readingOf, type Reading } from '../../../core/question'
import {
  checkQuiz,
  questionsUsed,
  withHeld,
  type Held,
  type Check,
  type CheckContext,
  type CheckedQuestion,
  type Quiz,
} from '../../../core/quiz'
import { toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { Remembered } from '../../database/remembered'
import { recordLine } from '../record'
import { Problem } from '../problem'
import type { Person } from '../../people/people'
import { assignedTo } from '../classes/assigned'
import { namedIn, assignedTo as assignedAmong, stillToCome } from '../../../core/schedule'
import { listScales } from '../people/scales'
import { audienceNames } from '../classes/classes'
import { hitsFor, type Hit } from '../bank/finding/hits'
import { loadVersions } from '../bank/questions/rows'
import { loadEdition } from './edition'
import { heldNow, heldReply, stampOf, type HeldReply } from './held'
import { othersWith, seenOf } from './shared-questions'
import { ensureTeaches, loadQuiz, type LoadedQuiz } from './quizzes'

/** What versions say, which never changes: the last few thousand that were read. */
const readings = new Remembered<Reading>(5000)

/** The words of questions in their newest versions. Only what was not read before is read. */
async function readingsOf(db: Db, hits: readonly Hit[]): Promise<Map<string, Reading>> {
  const key = ({ id, version }: Pick<Hit, 'id' | 'version'>) => `${id}:${version}`
  const bodies = await loadVersions(
    db,
    hits.filter((hit) => !readings.get(key(hit))),
  )
  return new Map(
    hits.flatMap((hit) => {
      const body = bodies.get(hit.id)
      const reading = readings.get(key(hit)) ?? (body && readingOf(body))
      if (!reading) return []
      readings.set(key(hit), reading)
      return [[hit.id, reading] as const]
    }),
  )
}

/** Questions of a quiz with all that the checks read of them. */
async function checkedQuestions(
  db: Db,
  person: Pick<Person, 'school'>,
  quiz: Quiz,
  edition: EditionRow['id'] | null,
): Promise<Map<string, CheckedQuestion>> {
  const ids = questionsUsed(quiz.content)
  if (!ids.length) return new Map()
  const [hits, near, frozen] = await Promise.all([
    hitsFor(db, person, ids),
    db.rows<Pick<QuestionRow, 'id' | 'near_key'>>('SELECT id, near_key FROM question WHERE id IN (?)', [ids]),
    edition ? loadEdition(db, edition) : null,
  ])
  const words = await readingsOf(db, hits)
  const nearOf = new Map(near.map((row) => [row.id, row.near_key]))
  return new Map(
    hits.map((hit) => {
      const sat = frozen?.questions[hit.id]?.version
      return [
        hit.id,
        {
          title: hit.title,
          version: hit.version,
          usable: hit.state === 'usable' && hit.sharing !== 'outside',
          doubts: hit.doubts,
          near: nearOf.get(hit.id) ?? '',
          newer: sat !== undefined && sat < hit.version,
          reading: words.get(hit.id) ?? null,
          facts: hit,
        },
      ]
    }),
  )
}

/** The school's objectives, where a quiz names some. */
async function objectivesOf(db: Db, school: string, { content }: Quiz): Promise<CheckContext['objectives']> {
  if (!content.objectives.length && !content.sections.some((section) => section.objectives.length)) return new Map()
  const rows = await db.rows<Pick<ObjectiveRow, 'id' | 'title' | 'parent_id'>>(
    'SELECT id, title, parent_id FROM objective WHERE school_id = ?',
    [school],
  )
  return new Map(rows.map((row) => [row.id, { title: row.title, parent: row.parent_id }]))
}

/** Runs core's checks with what the database knows. @param held what its conditions find (heldNow) */
export async function checksFor(
  db: Db,
  person: Pick<Person, 'id' | 'school' | 'zone'>,
  { id, quiz: kept, edition }: Pick<LoadedQuiz, 'id' | 'quiz' | 'edition'>,
  held: Held,
  now: Instant,
): Promise<Check[]> {
  const quiz = { ...kept, content: withHeld(kept.content, held) }
  const [questions, names, scales, objectives, students, others, seen, aside] = await Promise.all([
    checkedQuestions(db, person, quiz, edition),
    audienceNames(db, person.school, namedIn(quiz.rules)),
    listScales(db, person.school),
    objectivesOf(db, person.school, quiz),
    assignedTo(db, quiz.rules).then((all) => [...all, ...assignedAmong(stillToCome(quiz.rules), quiz.rules)]),
    othersWith(db, person, id, now),
    // Of an anonymous quiz it is not told who has seen anything.
    edition && !quiz.rules.anonymous ? seenOf(db, id) : {},
    db.rows<Pick<QuizAsideRow, 'code' | 'reason'> & Pick<PersonRow, 'name'>>(
      'SELECT a.code, a.reason, p.name FROM quiz_aside a JOIN person p ON p.id = a.person_id WHERE a.quiz_id = ?',
      [id],
    ),
  ])
  const asideOf = new Map(aside.map(({ code, reason, name }) => [code, { reason, by: name }]))
  const context = { now, zone: person.zone, students, questions, objectives, names, scales, others, ...seen }
  return checkQuiz(quiz, context).map((check) => {
    const set = check.level === 'look' ? asideOf.get(check.code) : undefined
    return set ? { ...check, aside: set } : check
  })
}

export interface CheckReply {
  checks: Check[]
  held: HeldReply | null
}

/** The checks of a quiz as it stands, and what its conditions find. @param known stamp of what the page knows to be held: the same is not sent again */
export async function lookAtChecks(
  db: Db,
  person: Person,
  quiz: string,
  known: string,
  now: Instant,
): Promise<CheckReply> {
  const row = await loadQuiz(db, quiz)
  const held = await heldNow(db, row)
  const [checks, reply] = await Promise.all([
    checksFor(db, person, row, held, now),
    stampOf(held) === known ? null : heldReply(db, person, held),
  ])
  return { checks, held: reply }
}

/** So many checks of one quiz may be set aside. */
const mostAside = 300

/** Sets a check aside, with a reason that is kept; null takes it up again. What stops opening is never set aside. */
export async function setAside(
  database: Database,
  person: Person,
  quiz: string,
  { code, reason }: { code: string; reason: string | null },
  now: Instant,
): Promise<{ code: string; reason: string | null }> {
  await database.transaction(async (db) => {
    await ensureTeaches(db, person, quiz)
    if (reason === null) await db.run('DELETE FROM quiz_aside WHERE quiz_id = ? AND code = ?', [quiz, code])
    else {
      const there = await db.one<{ n: number }>('SELECT COUNT(*) AS n FROM quiz_aside WHERE quiz_id = ?', [quiz])
      if (Number(there?.n) >= mostAside)
        throw new Problem(422, 'too-many', `${mostAside} checks are set aside already. Take some up again first.`)
      await db.run(
        'INSERT INTO quiz_aside (quiz_id, code, reason, person_id, made_at) VALUES (?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE reason = VALUES(reason), person_id = VALUES(person_id), made_at = VALUES(made_at)',
        [quiz, code, reason, person.id, toSql(now)],
      )
    }
    await recordLine(db, now, person.id, reason === null ? 'check taken up' : 'check set aside', quiz, { code, reason })
  })
  return { code, reason }
}

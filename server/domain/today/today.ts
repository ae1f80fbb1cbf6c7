import type { AttemptRow, QuizRow } from '../../database/tables'
import { count, few, sentenceTime } from '../../../core/kit/phrases'
import { minute, plus, type Instant } from '../../../core/kit/time'
import { releasedByHand } from '../../../core/release'
import { isShutOut } from '../../../core/rules'
import type { Check, Rules } from '../../../core/quiz'
import { mapInOrder } from '../../database/batches'
import { fromSql, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { audienceNames } from '../classes/classes'
import { grouped } from '../grouped'
import { waitingForMarks } from '../marks/waiting'
import { checksFor } from '../quizzes/checks'
import { heldNow } from '../quizzes/held'
import { quizDocuments } from '../quizzes/known-documents'
import { currentState, loadQuiz, quizEndsNow, type LoadedQuiz } from '../quizzes/quizzes'
import { loadReleases } from '../quizzes/releases'
import { breaksOf, endOf } from '../sittings/break-facts'

/** Something that needs a hand now, with where it is done. */
export interface ToDo {
  sort: 'mark' | 'release' | 'let in' | 'leak' | 'stops' | 'look'
  quiz: string
  title: string
  /** What there is, in a sentence. */
  words: string
  /** What its button says, and the page that it goes to. */
  action: string
  to: string
}

type Row = Pick<QuizRow, 'id' | 'title' | 'state' | 'revision' | 'changed_at'>

/** Quizzes in which a teacher works, changed last first: older ones ask for nothing any more. */
const mostQuizzes = 300
/** Checks are run of so many: those that open next. */
const mostChecked = 8
/** Quizzes that open within this time have their checks looked at. */
const soon = 7 * 24 * 60 * minute

async function ownQuizzes(db: Db, person: string): Promise<Row[]> {
  return db.rows<Row>(
    `SELECT q.id, q.title, q.state, q.revision, q.changed_at FROM quiz q
    WHERE q.state IN ('published', 'draft') AND (q.owner_id = ? OR q.id IN (SELECT quiz_id FROM quiz_teacher WHERE person_id = ? AND may = 'write'))
    ORDER BY q.changed_at DESC, q.id LIMIT ?`,
    [person, person, mostQuizzes],
  )
}

/** Papers that wait for a mark by hand. */
async function toMark(db: Db, quizzes: readonly Row[]): Promise<ToDo[]> {
  const waiting = await waitingForMarks(
    db,
    quizzes.map(({ id }) => id),
  )
  return quizzes.flatMap(({ id, title }): ToDo[] => {
    const n = waiting.get(id)?.papers
    return n
      ? [
          {
            sort: 'mark',
            quiz: id,
            title,
            words: `${count(n, 'paper')} ${n === 1 ? 'waits' : 'wait'} for a mark by hand.`,
            action: 'Mark',
            to: `/quizzes/${id}/marks`,
          },
        ]
      : []
  })
}

/** Classes that wait for what their teacher releases: something of theirs is handed in, and the quiz is over for now. */
async function toRelease(
  database: Database,
  person: Person,
  quizzes: readonly LoadedQuiz[],
  now: Instant,
): Promise<ToDo[]> {
  const asked = quizzes.filter(({ quiz }) => releasedByHand(quiz.rules))
  if (!asked.length) return []
  const ids = asked.map(({ id }) => id)
  const [released, names, handed] = await Promise.all([
    loadReleases(database, ids),
    audienceNames(database, person.school, []),
    database.rows<{ quiz_id: string; class_id: string }>(
      "SELECT DISTINCT a.quiz_id, e.class_id FROM attempt a JOIN enrolment e ON e.person_id = a.student_id WHERE a.quiz_id IN (?) AND a.state <> 'open'",
      [ids],
    ),
  ])
  const of = grouped(handed, (row) => row.quiz_id)
  const found = await mapInOrder(asked, async (row): Promise<ToDo[]> => {
    const meant = new Set(row.quiz.rules.windows.flatMap((window) => window.classes))
    const waiting = (of.get(row.id) ?? [])
      .map((each) => each.class_id)
      .filter((each) => meant.has(each) && !released.get(row.id)?.has(each))
    if (!waiting.length || currentState(row, await quizEndsNow(database, row), now) !== 'closed') return []
    return [
      {
        sort: 'release',
        quiz: row.id,
        title: row.quiz.content.title,
        words: `It is over, and waits for your release to ${few(waiting.map((each) => names.get(each) ?? 'a class'))}.`,
        action: 'Release',
        to: `/quizzes/${row.id}/marks`,
      },
    ]
  })
  return found.flat()
}

/** Students who were away from a paper in one sitting, and wait to be let in. */
async function toLetIn(database: Database, quizzes: readonly LoadedQuiz[], now: Instant): Promise<ToDo[]> {
  const asked = quizzes.filter(({ quiz }) => quiz.rules.oneSitting !== null)
  if (!asked.length) return []
  const rows = await database.rows<Pick<AttemptRow, 'id' | 'quiz_id' | 'seen_at'>>(
    "SELECT id, quiz_id, seen_at FROM attempt WHERE quiz_id IN (?) AND state = 'open' AND hard_stop >= ?",
    [asked.map(({ id }) => id), toSql(now)],
  )
  const breaks = await breaksOf(
    database,
    rows.map(({ id }) => id),
  )
  const open = grouped(rows, (row) => row.quiz_id)
  return asked.flatMap((row): ToDo[] => {
    const out = (open.get(row.id) ?? []).filter(({ id, seen_at: seenAt }) =>
      isShutOut(row.quiz.rules.oneSitting, seenAt && fromSql(seenAt), (breaks.get(id) ?? []).map(endOf), now),
    ).length
    return out
      ? [
          {
            sort: 'let in',
            quiz: row.id,
            title: row.quiz.content.title,
            words: `${count(out, 'student')} ${out === 1 ? 'was' : 'were'} away for longer than one sitting allows, and cannot go on.`,
            action: 'Let them in',
            to: `/quizzes/${row.id}/marks`,
          },
        ]
      : []
  })
}

const isLeak = ({ code }: Check) => code.startsWith('leak') || code.startsWith('shared-') || code === 'seen-already'

/** Whether a window of a quiz is open, or has yet to open. */
const isToCome = ({ windows }: Pick<Rules, 'windows'>, now: Instant): boolean =>
  windows.some(({ closes }) => closes === null || closes >= now)

/** What the checks of quizzes that open soon, or are open, have found. */
async function toMend(
  database: Database,
  person: Person,
  quizzes: readonly LoadedQuiz[],
  now: Instant,
): Promise<ToDo[]> {
  const until = plus(now, soon)
  const openings = await database.rows<{ quiz_id: string }>('SELECT quiz_id FROM quiz_opening WHERE quiz_id IN (?)', [
    quizzes.map(({ id }) => id),
  ])
  /** Those that open by themselves. */
  const opensAt = new Set(openings.map((row) => row.quiz_id))
  const opens = ({ quiz }: LoadedQuiz) => quiz.rules.windows.map((window) => window.opens).sort()[0]
  const next = quizzes
    .flatMap((row) => {
      const first = opens(row)
      const isSoon = first !== undefined && first <= until && isToCome(row.quiz.rules, now)
      return isSoon && (row.stored === 'published' || opensAt.has(row.id) || first > now) ? [{ row, first }] : []
    })
    .sort((a, b) => (a.first < b.first ? -1 : 1))
    .slice(0, mostChecked)
  const found = await mapInOrder(next, async ({ row, first }): Promise<ToDo[]> => {
    const checks = (await checksFor(database, person, row, await heldNow(database, row), now)).filter(
      ({ aside }) => !aside,
    )
    const [leaks, stops] = [checks.filter(isLeak), checks.filter(({ level }) => level === 'stop')]
    const looks = checks.length - leaks.length - stops.length
    const at = `${first > now ? 'opens' : 'opened'} ${sentenceTime(first, person.zone)}`
    const base = { quiz: row.id, title: row.quiz.content.title }
    const isDraft = row.stored === 'draft'
    return [
      ...(stops.length
        ? [
            {
              ...base,
              sort: 'stops' as const,
              words: `Its window ${at}; ${count(stops.length, 'thing')} ${stops.length === 1 ? 'keeps' : 'keep'} it from opening: ${stops[0]!.title.toLowerCase()}.`,
              action: 'Mend',
              to: `/quizzes/${row.id}/${stops[0]!.where}`,
            },
          ]
        : []),
      ...(isDraft && !stops.length && !opensAt.has(row.id)
        ? [
            {
              ...base,
              sort: 'stops' as const,
              words: `Its window ${at}, and it is a draft: nobody can sit it until you open it.`,
              action: 'Look',
              to: `/quizzes/${row.id}/rules`,
            },
          ]
        : []),
      ...(leaks.length
        ? [
            {
              ...base,
              sort: 'leak' as const,
              words: `${leaks[0]!.title}. ${leaks[0]!.sentence}`,
              action: 'Look',
              to: `/quizzes/${row.id}/rules`,
            },
          ]
        : []),
      ...(looks && first > now
        ? [
            {
              ...base,
              sort: 'look' as const,
              words: `It ${at}; ${count(looks, 'thing')} ${looks === 1 ? 'is' : 'are'} worth a look.`,
              action: 'Look',
              to: `/quizzes/${row.id}/rules`,
            },
          ]
        : []),
    ]
  })
  return found.flat()
}

/** What needs a teacher's hand now, most pressing first, each with its place. */
export async function needsAHand(database: Database, person: Person, now: Instant): Promise<ToDo[]> {
  const rows = await ownQuizzes(database, person.id)
  if (!rows.length) return []
  // Only those that can still ask for something are read whole.
  const documents = await quizDocuments(database, rows)
  const asks = rows.filter(({ id }) => {
    const rules = documents.get(id)?.rules
    if (!rules) return false
    return rules.oneSitting !== null || releasedByHand(rules) || isToCome(rules, now)
  })
  const loaded = await mapInOrder(asks, ({ id }) => loadQuiz(database, id))
  const published = loaded.filter(({ stored }) => stored === 'published')
  const [letIn, mark, release, mend] = [
    await toLetIn(database, published, now),
    await toMark(database, rows),
    await toRelease(database, person, published, now),
    loaded.length ? await toMend(database, person, loaded, now) : [],
  ]
  const pressing = (sort: ToDo['sort']) => mend.filter((each) => each.sort === sort)
  return [...letIn, ...pressing('stops'), ...pressing('leak'), ...mark, ...release, ...pressing('look')]
}

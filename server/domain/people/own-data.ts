import { zip } from '../../../formats/zip'
import { encode } from '../../../formats/format'
import type { PersonRow } from '../../database/tables'
import { escapeHtml } from '../../../core/kit/escape'
import { sentenceTime } from '../../../core/kit/phrases'
import type { Instant } from '../../../core/kit/time'
import { needWords } from '../../../core/people'
import { plainText } from '../../../core/question'
import { questionOnPaper } from '../../../core/paper'
import { fromSql } from '../../database/codec'
import { mapInOrder } from '../../database/batches'
import type { Database, Db } from '../../database/database'
import { readAccommodation, readQuiz } from '../../documents/read'
import type { Person } from '../../people/people'
import { notFound } from '../problem'
import { listFields, valuesOf } from './own-fields'
import { loadEdition } from '../quizzes/edition'
import { answerWords } from '../reviews/paper-view'
import { loadMarks } from '../reviews/review'
import { loadAway } from '../sittings/away'
import { loadNotes } from '../sittings/notes'
import { breaksOf } from '../sittings/break-facts'
import { loadAnswers, loadAttempts, loadPaper, type Attempt } from '../sittings/attempts'

/** One paper of somebody's, in words: what was asked, what they answered, what it earned. No key is in it. */
interface OwnPaper {
  quiz: string
  attempt: number
  state: string
  startedAt: Instant
  handedInAt: Instant | null
  breaks: { beganAt: Instant; endedAt: Instant }[]
  score: string | null
  possible: string | null
  answers: {
    question: string
    answer: string
    response: unknown
    keptAt: Instant | null
    points: string | null
    possible: string | null
    comment: string | null
    /** Their own note on it. */
    note: string
  }[]
  /** When they left the page of a supervised sitting. */
  away: { leftAt: Instant; seconds: number }[]
}

async function ownPaper(database: Database, attempt: Attempt): Promise<OwnPaper> {
  const [paper, edition, breaks, answers, marks] = [
    await loadPaper(database, attempt.id),
    await loadEdition(database, attempt.edition),
    (await breaksOf(database, [attempt.id])).get(attempt.id) ?? [],
    await loadAnswers(database, attempt.id),
    await loadMarks(database, attempt.id),
  ]
  const [notes, away] = [await loadNotes(database, attempt.id), await loadAway(database, attempt.id)]
  const [kept, marked] = [
    new Map(answers.map((each) => [each.item, each])),
    new Map(marks.map((each) => [each.item, each])),
  ]
  return {
    quiz: edition.content.title,
    attempt: attempt.number,
    state: attempt.state,
    startedAt: attempt.startedAt,
    handedInAt: attempt.handedInAt,
    breaks: breaks.map(({ beganAt, endedAt, until }) => ({ beganAt, endedAt: endedAt ?? until })),
    away,
    score: attempt.score,
    possible: attempt.possible,
    answers: paper.items.map((item) => {
      const answer = kept.get(item.id)
      const mark = marked.get(item.id)
      return {
        question: plainText(questionOnPaper(edition, item, attempt.language).stem),
        answer: answerWords(paper, edition, item.id, answer?.response ?? null, attempt.language),
        response: answer?.response ?? null,
        keptAt: answer?.keptAt ?? null,
        points: mark?.points ?? null,
        possible: mark?.possible ?? null,
        comment: mark?.comment ?? null,
        note: notes[item.id]?.note ?? '',
      }
    }),
  }
}

/** Quizzes without names: whoever gives somebody their data sees neither those papers nor when they were sat. */
async function namelessAmong(db: Db, quizzes: readonly string[]): Promise<Set<string>> {
  const rows = quizzes.length
    ? await db.rows<{ id: string; body: string }>('SELECT id, body FROM quiz WHERE id IN (?)', [[...new Set(quizzes)]])
    : []
  return new Set(rows.filter(({ body }) => readQuiz(body).rules.anonymous).map(({ id }) => id))
}

/**
 * All that is stored of a student, as JSON and as pages to read, in one archive: who they are, their classes, what they are
 * given, every paper with its answers and marks. No key is in it, and no reason of an accommodation.
 */
export async function giveOwnData(
  database: Database,
  person: Person,
  id: string,
  now: Instant,
): Promise<{ name: string; type: string; bytes: Uint8Array }> {
  const row = await database.one<
    Pick<PersonRow, 'name' | 'email' | 'accommodation' | 'state' | 'outside_id' | 'reminders'>
  >(
    "SELECT name, email, accommodation, state, outside_id, reminders FROM person WHERE id = ? AND school_id = ? AND role = 'student'",
    [id, person.school],
  )
  if (!row) throw notFound('This student')
  const classes = await database.rows<{ name: string; since: string | null; left_at: string | null }>(
    `SELECT c.name, e.since, NULL AS left_at FROM enrolment e JOIN class c ON c.id = e.class_id WHERE e.person_id = ?
    UNION ALL SELECT c.name, l.since, l.left_at FROM left_class l JOIN class c ON c.id = l.class_id WHERE l.person_id = ?`,
    [id, id],
  )
  const [fields, values] = [await listFields(database, person.school), (await valuesOf(database, [id])).get(id) ?? {}]
  const groups = await database.rows<{ name: string }>(
    'SELECT g.name FROM class_group_member m JOIN class_group g ON g.id = m.group_id WHERE m.person_id = ? ORDER BY g.name',
    [id],
  )
  const named = await database.rows<{ body: string }>('SELECT body FROM quiz WHERE school_id = ? AND body LIKE ?', [
    person.school,
    `%"${id}"%`,
  ])
  const forOneQuiz = named.flatMap(({ body }) => {
    const { content, rules } = readQuiz(body)
    const own = rules.windows.filter((window) => window.students.includes(id))
    const needs = rules.needs.filter((need) => need.students.includes(id))
    return own.length || needs.length
      ? [
          {
            quiz: content.title,
            windows: own.map(({ opens, closes, due }) => ({ opens, closes, due })),
            given: needs.map(({ id: _id, students: _students, groups: _groups, ...need }) => need),
          },
        ]
      : []
  })
  const all = await loadAttempts(database, { student: id })
  const nameless = await namelessAmong(
    database,
    all.map(({ quiz }) => quiz),
  )
  const attempts = all.filter(({ quiz }) => !nameless.has(quiz))
  const record = await database.rows<{ at: string; what: string }>(
    `SELECT r.at, r.what FROM record r LEFT JOIN attempt a ON a.id = r.subject
    WHERE (r.subject = ? OR r.who = ?) AND (a.id IS NULL OR a.quiz_id NOT IN (?)) ORDER BY r.at, r.id LIMIT 5000`,
    [id, id, ['-', ...nameless]],
  )
  const told = await database.rows<{ title: string; name: string; at: string }>(
    'SELECT q.title, t.name, t.at FROM told t JOIN quiz q ON q.id = t.quiz_id WHERE t.person_id = ? ORDER BY t.at, t.name LIMIT 5000',
    [id],
  )
  const claim = await database.one<{ name: string; at: string }>('SELECT name, at FROM claim WHERE person_id = ?', [id])
  const data = {
    writtenAt: now,
    person: {
      id,
      name: row.name,
      email: row.email,
      outsideId: row.outside_id,
      state: row.state,
      reminders: Boolean(row.reminders),
      accommodation: readAccommodation(row.accommodation),
      fields: Object.fromEntries(fields.flatMap(({ id: key, name }) => (values[key] ? [[name, values[key]]] : []))),
    },
    /** That they signed up with a join code, and as whom. */
    signedUp: claim ? { as: claim.name, at: fromSql(claim.at) } : null,
    groups: groups.map((each) => each.name),
    forOneQuiz,
    classes: classes.map(({ name, since, left_at: left }) => ({
      name,
      since: since && fromSql(since),
      leftAt: left && fromSql(left),
    })),
    papers: await mapInOrder(attempts, (attempt) => ownPaper(database, attempt)),
    record: record.map(({ at, what }) => ({ at: fromSql(at), what })),
    told: told.map(({ title, name, at }) => ({ quiz: title, what: name, at: fromSql(at) })),
  }
  const files = new Map([
    ['data.json', encode(JSON.stringify(data, null, 2))],
    ['pages.html', encode(pages(data, person.zone))],
  ])
  return { name: 'student-data.zip', type: 'application/zip', bytes: zip(files) }
}

type Data = {
  person: { name: string; email: string | null; accommodation: ReturnType<typeof readAccommodation> }
  classes: { name: string }[]
  papers: OwnPaper[]
  writtenAt: Instant
}

function pages({ person, classes, papers, writtenAt }: Data, zone: string): string {
  const when = (at: Instant | null) => (at === null ? '' : sentenceTime(at, zone))
  const need = needWords(person.accommodation)
  const paper = (each: OwnPaper) => `<h2>${escapeHtml(each.quiz)}, attempt ${each.attempt}</h2>
<p>Started ${when(each.startedAt)}${each.handedInAt ? `, handed in ${when(each.handedInAt)}` : ''}${each.score === null ? '' : `; ${each.score} of ${each.possible ?? ''} points`}.</p>
<ol>${each.answers
    .map(
      ({ question, answer, points, possible, comment }) =>
        `<li><p>${escapeHtml(question)}</p><p><strong>${escapeHtml(answer) || 'no answer'}</strong>${points === null ? '' : `, ${points} of ${possible ?? ''} points`}${comment ? `: ${escapeHtml(comment)}` : ''}</p></li>`,
    )
    .join('\n')}</ol>`
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escapeHtml(person.name)}</title>
<style>body{font:1rem/1.5 Georgia,serif;max-width:44rem;margin:2rem auto;padding:0 1rem;color:#1c2a2d}h2{border-bottom:1px solid #1c2a2d;margin-top:2rem}</style></head><body>
<h1>${escapeHtml(person.name)}</h1><p>${escapeHtml(person.email ?? 'without an address')}. Written ${when(writtenAt)}.</p>
<p>Classes: ${escapeHtml(classes.map(({ name }) => name).join(', ')) || 'none'}.${need.length ? ` Given: ${escapeHtml(need.join(', '))}.` : ''}</p>
${papers.map(paper).join('\n')}</body></html>
`
}

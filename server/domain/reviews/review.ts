import type { AnswerRow, HandMarkRow, MarkRow } from '../../database/tables'
import { pointsText } from '../../../core/kit/exact'
import type { Instant } from '../../../core/kit/time'
import { bestResults, classFiguresForStudents, scorePercent, type BestResults } from '../../../core/marking'
import { sentenceTime } from '../../../core/kit/phrases'
import { bandAt, wordsFor, type ClosingValues, type Rules } from '../../../core/quiz'
import { classmates, facetNames, type FacetName, type FacetSight } from '../../../core/release'
import type { Database, Db } from '../../database/database'
import { grouped } from '../grouped'
import { loadEdition } from '../quizzes/edition'
import { loadQuiz, quizEndsNow } from '../quizzes/quizzes'
import { loadReleases } from '../quizzes/releases'
import { assignedTo } from '../classes/assigned'
import { studentsByIds } from '../classes/students'
import { loadAnswers, loadAttempts, loadPaper, type Attempt } from '../sittings/attempts'
import { againFor } from '../sittings/again'
import { ownAttempt } from '../sittings/own-attempt'
import { settle } from '../sittings/end'
import { satOf, textOf } from '../sittings/sat'
import { quizMoments, sightOf } from './context'
import { loadViewings, noteViewings } from './viewings'
import { receiptFor, type Receipt } from './receipt'
import { reviewedSections, type KeptMark, type ReviewedSection, type Shown } from './paper-view'

export interface ShownGrade {
  /** As the quiz's scale tells it. */
  text: string
  points: string | null
  possible: string | null
  passed: boolean | null
  method: string
  counted: number[]
  /** Sections with pass marks of their own. */
  sections: { title: string; percent: string; needed: number; reached: boolean }[]
}

export interface Review {
  attempt: string
  quiz: string
  title: string
  number: number
  studentName: string
  state: 'open' | 'handed' | 'unsent'
  startedAt: Instant
  handedInAt: Instant | null
  daysLate: number
  minutesOver: number
  facets: Record<FacetName, FacetSight>
  /** When to ask again; null when nothing changes by itself. */
  changesAt: Instant | null
  now: Instant
  score: { points: string; possible: string; percent: string } | null
  /** The score may be seen, and there is none until somebody has marked what waits for it. */
  scoreWaits: boolean
  grade: ShownGrade | null
  sections: ReviewedSection[]
  /** What to do next, and the closing words of the band that the score is in, as far as the score is shown. */
  closing: { after: string; words: string }
  classFigures: { students: number; mean: string; highest: string } | null
  /** Best results of the class. */
  best: BestResults | null
  /** What they have in hand that they have handed in. */
  receipt: Receipt | null
  certificate: { name: string; quiz: string; grade: string; at: Instant } | null
  attempts: { id: string; number: number; state: string; handedInAt: Instant | null }[]
  /** It may be taken up again now, until an instant or (null) without an end; undefined where it may not. */
  again?: { until: Instant | null }
}

/**
 * The marks of an attempt, one an item, with a marker’s comment; points as exact decimals in text. Empty before
 * marking.
 */
export async function loadMarks(db: Db, attempt: string): Promise<KeptMark[]> {
  const rows = await db.rows<
    Pick<MarkRow, 'item' | 'answered' | 'fraction' | 'points' | 'possible'> &
      Pick<HandMarkRow, 'comment'> &
      Pick<AnswerRow, 'checks' | 'hints'>
  >(
    'SELECT m.item, m.answered, m.fraction, m.points, m.possible, h.comment, w.checks, w.hints FROM mark m JOIN answer w ON w.attempt_id = m.attempt_id AND w.item = m.item LEFT JOIN hand_mark h ON h.attempt_id = m.attempt_id AND h.item = m.item WHERE m.attempt_id = ?',
    [attempt],
  )
  return rows.map((row) => ({ ...row, answered: Boolean(row.answered) }))
}

/** A student's review of their own attempt: exactly the facets that the rules release at this instant (semantics §7). */
export async function reviewFor(
  database: Database,
  student: { id: string; name: string; zone: string },
  id: string,
  now: Instant,
): Promise<Review> {
  const attempt = await ownAttempt(database, student.id, id, now)
  await settle(database, { quiz: attempt.quiz }, now)
  const row = await loadQuiz(database, attempt.quiz)
  const { quiz } = row
  const [ends, students, all, viewed, released] = await Promise.all([
    quizEndsNow(database, row),
    studentsByIds(database, [student.id]),
    loadAttempts(database, { quizzes: [attempt.quiz], student: student.id }),
    loadViewings(database, [id]),
    loadReleases(database, [attempt.quiz]),
  ])
  const own = students.get(student.id)!
  const moments = quizMoments(quiz.rules, ends, own, released.get(attempt.quiz)!)
  const { visible, grade } = sightOf(moments, attempt, all, viewed.get(id) ?? [], now)
  const shows = (name: FacetName) => visible.facets[name].shown
  const sees = (name: FacetName): Shown => (shows(name) && visible.facets[name].wrongOnly ? 'wrong' : shows(name))
  await noteViewings(
    database,
    viewed,
    facetNames.filter(shows).map((facet) => ({ attempt: id, facet })),
    now,
  )
  const again = await againFor(database, row, own, attempt, all, now)
  const ofClass = () => gradesOfClass(database, attempt, moments.classes, quiz.rules)
  const percent = scorePercent(attempt, quiz.rules.grade.decimals)
  const score =
    shows('score') && percent !== null
      ? { points: pointsText(attempt.score!), possible: pointsText(attempt.possible!), percent: `${percent} %` }
      : null
  return {
    ...(again.may ? { again: { until: again.until } } : {}),
    attempt: id,
    quiz: attempt.quiz,
    title: quiz.content.title,
    number: attempt.number,
    studentName: student.name,
    state: attempt.state,
    startedAt: attempt.startedAt,
    handedInAt: attempt.handedInAt,
    daysLate: attempt.daysLate,
    minutesOver: attempt.minutesOver,
    facets: visible.facets,
    changesAt: visible.changesAt,
    now,
    score,
    scoreWaits: shows('score') && attempt.state === 'handed' && attempt.score === null,
    closing: await closingFor(database, attempt, score && Number(percent), {
      name: student.name,
      quiz: quiz.content.title,
      score: score && score.percent,
      grade: shows('grade') ? textOf(grade, quiz.rules) : null,
      date: attempt.handedInAt ? sentenceTime(attempt.handedInAt, student.zone) : '',
    }),
    grade:
      shows('grade') && grade.percent !== null
        ? {
            text: textOf(grade, quiz.rules)!,
            points: grade.points,
            possible: grade.possible && pointsText(grade.possible),
            passed: grade.passed,
            method: quiz.rules.grade.method,
            counted: grade.counted,
            sections: grade.sections.map(({ section, ...rest }) => ({
              title: quiz.content.sections.find(({ id: each }) => each === section)?.title ?? 'A section',
              ...rest,
            })),
          }
        : null,
    sections: await sectionsFor(database, attempt, {
      questions: sees('questions'),
      answers: sees('answers'),
      marks: sees('marks'),
      key: sees('key'),
      comments: sees('comments'),
    }),
    classFigures: shows('class') ? figuresOfClass(await ofClass(), quiz.rules) : null,
    best: shows('best') ? bestResults(await ofClass(), student.id, quiz.rules.best, quiz.rules.grade.decimals) : null,
    receipt: await receiptFor(database, attempt, quiz),
    certificate:
      shows('certificate') && grade.percent !== null && grade.passed !== false
        ? { name: student.name, quiz: quiz.content.title, grade: textOf(grade, quiz.rules)!, at: attempt.handedInAt! }
        : null,
    attempts: all.map((each) => ({ id: each.id, number: each.number, state: each.state, handedInAt: each.handedInAt })),
  }
}

/** @param percent the score as it is shown, where it is */
async function closingFor(
  database: Database,
  attempt: Attempt,
  percent: number | null,
  values: ClosingValues,
): Promise<Review['closing']> {
  if (attempt.state === 'open') return { after: '', words: '' }
  const { after, closing } = (await loadEdition(database, attempt.edition)).content
  const band = percent === null ? null : bandAt(closing, percent)
  return { after: wordsFor(after, values), words: band ? wordsFor(band.html, values) : '' }
}

async function sectionsFor(
  database: Database,
  attempt: Attempt,
  sight: Parameters<typeof reviewedSections>[4],
): Promise<ReviewedSection[]> {
  if (attempt.state === 'open' || !Object.values(sight).some(Boolean)) return []
  const [paper, edition, answers, marks] = await Promise.all([
    loadPaper(database, attempt.id),
    loadEdition(database, attempt.edition),
    loadAnswers(database, attempt.id),
    loadMarks(database, attempt.id),
  ])
  return reviewedSections(paper, edition, answers, marks, sight, attempt.language)
}

/** Figures of the class; null where there are too few grades to tell any. */
function figuresOfClass(grades: Parameters<typeof classFiguresForStudents>[0], rules: Rules): Review['classFigures'] {
  const figures = classFiguresForStudents(grades, rules.grade.decimals)
  return figures && { students: figures.graded, mean: figures.mean!, highest: figures.highest! }
}

/** The counting grades of those who share a class with the student. */
async function gradesOfClass(database: Database, { quiz }: Attempt, classes: readonly string[], rules: Rules) {
  const mates = classmates(await assignedTo(database, rules), classes)
  const byStudent = grouped(await loadAttempts(database, { quizzes: [quiz] }), (each) => each.student)
  return mates.map(({ id, name }) => ({ id, name, ...satOf(byStudent.get(id) ?? [], rules).grade }))
}

import { factsFrom, factsOf, type Facts } from '../../core/figures'
import { seededRandom, type Random } from '../../core/kit/random'
import type { Instant } from '../../core/kit/time'
import type { PaperItem } from '../../core/paper'
import { instanceOf, kindOf, type Question } from '../../core/question'
import { answerForNothing, anyAnswer, chanceFor, rightAnswer } from '../../core/trial'
import type { Database } from '../database/database'
import { hitsFor } from '../domain/bank/finding/hits'
import { loadEdition } from '../domain/quizzes/edition'
import { notFound } from '../domain/problem'
import { loadAttempts, loadPaper } from '../domain/sittings/attempts'
import type { Person } from '../people/people'
import type { Act, Filling } from './schema'

const fine = 1_000_000

/** An answer in authored ids; null for none. */
function answerOf(question: Question, how: Filling['how'], facts: Facts, item: PaperItem, random: Random): unknown {
  if (how === 'right') return rightAnswer(question)
  if (how === 'wrong') return answerForNothing(question, random)
  if (how === 'random') return anyAnswer(question, random)
  const knows = random.below(fine) < chanceFor(factsOf(facts, item.question), how.ability) * fine
  return knows ? rightAnswer(question) : answerForNothing(question, random)
}

/** Answers are sent by so many at once. */
const atOnce = 100

/**
 * What fills a paper in: the device of the rehearsal takes it and sends an answer to each of its questions, as a page
 * would.
 */
export async function fillIn(
  db: Database,
  teacher: Person,
  quiz: string,
  { attempt: id, how }: Filling,
  at: Instant,
): Promise<Act[]> {
  const [attempt] = await loadAttempts(db, { ids: [id], quizzes: [quiz] })
  if (!attempt) throw notFound('This paper')
  const [paper, edition] = [await loadPaper(db, id), await loadEdition(db, attempt.edition)]
  const known =
    typeof how === 'object' ? await hitsFor(db, teacher, [...new Set(paper.items.map((item) => item.question))]) : []
  const facts: Facts = new Map(known.map((hit) => [hit.id, factsFrom(hit)]))
  const random = seededRandom(edition.secret, ['filled in', id, JSON.stringify(how), at])
  const answers = paper.items.flatMap((item, i) => {
    const { question } = edition.questions[item.question]!
    // Nobody speaks in a rehearsal.
    if (question.kind === 'recording') return []
    const answer = answerOf(instanceOf(question, item.values ?? {}), how, facts, item, random)
    if (answer === null) return []
    return [{ item: item.id, response: kindOf(question.kind).close(answer, item.options), flagged: false, seq: i + 1 }]
  })
  const base = { at, query: {}, method: 'POST' as const }
  const batches = Array.from({ length: Math.ceil(answers.length / atOnce) }, (_, i) =>
    answers.slice(i * atOnce, (i + 1) * atOnce),
  )
  return [
    { ...base, path: `sittings/${id}/open`, body: { device: 'filling-in' } },
    ...batches.map((batch) => ({
      ...base,
      path: `sittings/${id}/answers`,
      body: { lease: attempt.lease + (attempt.device === 'filling-in' ? 0 : 1), answers: batch },
    })),
  ]
}

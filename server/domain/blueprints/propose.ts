import { solveBlueprint, type Blueprint, type Proposal, type Sort } from '../../../core/blueprint'
import type { Instant } from '../../../core/kit/time'
import { questionsUsed } from '../../../core/quiz'
import type { Db } from '../../database/database'
import type { Person } from '../../people/people'
import { highs } from '../../work/highs'
import { hitsFor, type Hit } from '../bank/finding/hits'
import { loadQuiz } from '../quizzes/quizzes'
import { candidatesFor, mostCandidates, sortsFor, type Scope } from './candidates'

export interface ProposalView extends Proposal {
  /** The questions proposed, as lists show them. */
  questions: Hit[]
  /** Questions that fit the part of the bank; `more` where not all of them were looked at. */
  candidates: number
  more: boolean
  seconds: number
}

const usedIn = async (db: Db, quiz: string) => new Set(questionsUsed((await loadQuiz(db, quiz)).quiz.content))

/** What a part of the bank holds for a quiz, by sort: without what the quiz holds already. */
export async function sortsIn(
  db: Db,
  person: Person,
  quiz: string,
  within: Scope,
  now: Instant,
): Promise<{ sorts: Sort[]; total: number }> {
  const sorts = await sortsFor(db, person, within, [...(await usedIn(db, quiz))], now)
  return { sorts, total: sorts.reduce((all, { n }) => all + n, 0) }
}

/**
 * Questions for a quiz by a blueprint, out of a part of the bank. What the quiz holds already is not proposed again,
 * unless the blueprint says that it has to be in.
 * @param seed changes which of alike questions are chosen; null takes those that were used longest ago
 */
export async function proposeFor(
  db: Db,
  person: Person,
  quiz: string,
  asked: { blueprint: Blueprint; within: Scope; seed: number | null },
  now: Instant,
): Promise<ProposalView> {
  const began = performance.now()
  const { blueprint, within, seed } = asked
  const used = await usedIn(db, quiz)
  const must = new Set(blueprint.must)
  const all = await candidatesFor(db, person, { ...within, unusedSince: blueprint.unusedSince ?? '' }, seed, now)
  const candidates = all.filter(({ id }) => !used.has(id) || must.has(id))
  // What has to be in is in wherever it lies and whenever it was used.
  const known = new Set(candidates.map(({ id }) => id))
  const absent = blueprint.must.filter((id) => !known.has(id))
  if (absent.length) {
    const anywhere = await candidatesFor(
      db,
      person,
      { ...within, words: '', folder: [], tag: [], owner: '' },
      seed,
      now,
    )
    candidates.push(...anywhere.filter(({ id }) => absent.includes(id)))
  }
  const proposal = await solveBlueprint(blueprint, candidates, highs)
  return {
    ...proposal,
    questions: await hitsFor(db, person, [...new Set(proposal.forms.flat())]),
    candidates: candidates.length,
    more: all.length >= mostCandidates,
    seconds: (performance.now() - began) / 1000,
  }
}

import { figuresFor, workingTime, type Facts, type Figures } from '../../figures'
import { chance, duration } from '../../kit/phrases'
import { makesGrade } from '../../rules/counts'
import { releaseOf } from '../../release/under-rules'
import { setAt, together } from '../edits/make'
import type { PoolRow, Quiz } from '../schema'
import { allRows, questionsUsed } from '../walk'
import { look, type CheckContext, type Found } from './check'

/** Checks of what the figures say: how fair papers are to one another, and whether time suffices. */

/** By how many points in a hundred the easiest and the hardest paper may differ, and a score by the draw alone. */
export const spreadBound = 10
export const luckBound = 2.5
/** Sittings that are simulated for the check of time. */
const sittings = 1500

function factsIn(quiz: Quiz, context: CheckContext): Facts {
  return new Map(
    questionsUsed(quiz.content).flatMap((id) => {
      const facts = context.questions.get(id)?.facts
      return facts ? [[id, facts] as const] : []
    }),
  )
}

/** Pools that are not spread over difficulty and hold questions of more than one. */
function uneven(quiz: Quiz, facts: Facts): PoolRow[] {
  return allRows(quiz.content).filter(
    (row): row is PoolRow =>
      row.type === 'pool' &&
      row.draw < row.questions.length &&
      (row.spread === 'none' || row.spread === 'objectives') &&
      new Set(row.questions.map((id) => facts.get(id)?.difficulty)).size > 1,
  )
}

/** What the figures say of how fair papers are, and of guessing; they are worked out once for both. */
export function figureChecks(quiz: Quiz, context: CheckContext): Found {
  const facts = factsIn(quiz, context)
  if (quiz.rules.counts === 'survey' || !facts.size) return []
  const hasPools = allRows(quiz.content).some((row) => row.type === 'pool')
  if (!hasPools && quiz.rules.grade.pass === null) return []
  const figures = figuresFor(quiz.content, quiz.rules, facts)
  return [...(hasPools ? fairness(quiz, facts, figures) : []), ...guessingReaches(quiz, figures)]
}

function fairness(quiz: Quiz, facts: Facts, { spread, forecast }: Figures): Found {
  if (!spread || !forecast) return []
  const pools = uneven(quiz, facts)
  const remedy = pools.length
    ? {
        label: pools.length === 1 ? 'Spread the pool over difficulty' : `Spread ${pools.length} pools over difficulty`,
        edit: together(
          pools.map((row) =>
            setAt(quiz, ['rows', row.id, 'spread'], row.spread === 'objectives' ? 'both' : 'difficulty'),
          ),
        )!,
      }
    : null
  const apart = Math.round((spread.easiest - spread.hardest) * 100)
  const luck = forecast.luck.deviation * 100
  const found: Found = []
  if (apart > spreadBound)
    found.push(
      look(
        'uneven-papers',
        'compose',
        'Papers differ in difficulty',
        `The same student would get ${Math.round(spread.hardest * 100)} % on the hardest set that can be drawn and ${Math.round(spread.easiest * 100)} % on the easiest: ${apart} points in 100.`,
        remedy,
      ),
    )
  if (luck > luckBound)
    found.push(
      look(
        'luck',
        'compose',
        'Much is luck of the draw',
        `Which questions are drawn moves a score by about ${Math.round(luck)} points in 100, whatever a student knows.`,
        remedy,
      ),
    )
  return found
}

export function timeChecks(quiz: Quiz, context: CheckContext): Found {
  const { limit } = quiz.rules
  const facts = factsIn(quiz, context)
  if (limit === null || !facts.size) return []
  const time = workingTime(quiz.content, facts, sittings)
  const needed = time ? Math.ceil(time.ninety / 60) : 0
  if (needed <= limit) return []
  return [
    look(
      'too-little-time',
      'rules',
      'Time is short',
      `Nine in ten students are done within ${duration(needed)}; the limit is ${duration(limit)}.`,
      { label: `Give ${duration(needed)}`, edit: setAt(quiz, ['rules', 'limit'], needed) },
    ),
  ]
}

/** Sections whose own clock is shorter than nine in ten students need for them. */
export function sectionTimeChecks(quiz: Quiz, context: CheckContext): Found {
  const facts = factsIn(quiz, context)
  if (!facts.size) return []
  return quiz.content.sections.flatMap((section) => {
    if (section.limit === null) return []
    const time = workingTime({ ...quiz.content, sections: [section] }, facts, sittings)
    const needed = time ? Math.ceil(time.ninety / 60) : 0
    if (needed <= section.limit) return []
    return [
      look(
        `section-time:${section.id}`,
        'compose',
        `Time is short in “${section.title}”`,
        `Nine in ten students are done with it within ${duration(needed)}; its clock gives ${duration(section.limit)}.`,
        { label: `Give ${duration(needed)}`, edit: setAt(quiz, ['sections', section.id, 'limit'], needed) },
      ),
    ]
  })
}

/** Common practice (from memory): a test that one in twenty passes by guessing tells little. */
export const guessBound = 0.05

/** A pass mark that guessing reaches. */
function guessingReaches(quiz: Quiz, { guessing }: Figures): Found {
  if (!makesGrade(quiz.rules.counts) || quiz.rules.counts === 'completion') return []
  if (guessing.passes === null || guessing.passes < guessBound) return []
  const often =
    guessing.attempts === null || guessing.attempts === 1 ? 'in one attempt' : `in ${guessing.attempts} attempts`
  return [
    look(
      'guessing-passes',
      'rules',
      'Guessing passes',
      `Who only guesses passes with a chance of ${chance(guessing.passes)} ${often}. A higher pass mark, more questions or a cost of wrong answers lowers it.`,
    ),
  ]
}

/** A score at once is promised, and somebody has to mark first. */
export function handMarkChecks(quiz: Quiz, context: CheckContext): Found {
  const byHand = questionsUsed(quiz.content).filter((id) => context.questions.get(id)?.reading?.byHand)
  const { score, grade } = releaseOf(quiz.rules)
  const promised = [score, grade].filter(({ from }) => from.at === 'handIn')
  if (!byHand.length || !promised.length) return []
  return [
    look(
      'marked-by-hand',
      'rules',
      'A score at once, but somebody has to mark',
      `${byHand.length === 1 ? 'One question is' : `${byHand.length} questions are`} marked by hand: there is no score on handing in.`,
      {
        label: 'Show it when it is marked',
        edit: together(
          (['score', 'grade'] as const)
            .filter((name) => quiz.rules.release[name].from.at === 'handIn')
            .map((name) => setAt(quiz, ['rules', 'release', name, 'from'], { at: 'marked', offset: 0 })),
        )!,
      },
    ),
  ]
}

/** Common practice: more than five questions at once make people scroll and lose their place. */
export const mostToAPage = 5

export function pageChecks(quiz: Quiz): Found {
  const { pages, sections } = quiz.content
  const ways = [
    { code: 'long-pages', pages, path: ['content', 'pages'], where: '', at: 'rules' as const },
    ...sections.flatMap((section) =>
      section.pages
        ? [
            {
              code: `long-pages:${section.id}`,
              pages: section.pages,
              path: ['sections', section.id, 'pages'],
              where: ` of “${section.title}”`,
              at: 'compose' as const,
            },
          ]
        : [],
    ),
  ]
  return ways.flatMap((way) => {
    if (way.pages.by !== 'count' || way.pages.count <= mostToAPage) return []
    return [
      look(
        way.code,
        way.at,
        'Many questions to a page',
        `${way.pages.count} stand on each page${way.where}. Common practice is at most ${mostToAPage}; with more, people lose their place.`,
        { label: `${mostToAPage} to a page`, edit: setAt(quiz, way.path, { by: 'count', count: mostToAPage }) },
      ),
    ]
  })
}

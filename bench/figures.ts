/** All figures of 100 rows with 20 pools over 1,000 questions, without the simulated ones: pools that are disjoint, and pools that overlap. */
import { figuresFor, type QuestionFacts } from '../core/figures'
import { usualRules, type Content } from '../core/quiz'
import { seededRandom } from '../core/kit/random'
import { poolRow, questionRow, sampleContent } from '../tests/fixtures/core'

const random = seededRandom('00', ['figures'])
const ids = Array.from({ length: 1000 }, (_, i) => `q${i}`)
const guesses: QuestionFacts['guesses'][] = [2, 3, 4, 5].map((k) => [
  { value: '0', chance: 1 - 1 / k },
  { value: '1', chance: 1 / k },
])
guesses.push([{ value: '0', chance: 1 }])
const facts = new Map(
  ids.map((id): [string, QuestionFacts] => [
    id,
    {
      objectives: [`o${random.below(12)}`],
      seconds: 30 + random.below(120),
      difficulty: 1 + random.below(5),
      right: random.below(2) ? { share: random.below(100) / 100, n: 30 } : null,
      guesses: guesses[random.below(guesses.length)]!,
      options: 4,
    },
  ]),
)

/** 80 rows of one question and 20 pools. @param step how far the pools' beginnings lie apart: 46 for disjoint ones of 46 */
function quiz(step: number): Content {
  const fixed = ids.slice(920).map((id) => questionRow(id))
  const pools = Array.from({ length: 20 }, (_, i) =>
    poolRow(`p${i}`, ids.slice(i * step, i * step + 46), 4, { points: 1 + (i % 2), spread: i % 4 ? 'none' : 'both' }),
  )
  return sampleContent([...fixed, ...pools])
}

/** Milliseconds of the middle one of some calls. */
function middle(content: Content): number {
  const times = Array.from({ length: 9 }, () => {
    const began = performance.now()
    figuresFor(content, usualRules, facts)
    return performance.now() - began
  })
  return times.sort((a, b) => a - b)[4]!
}

console.log(
  JSON.stringify({
    'figures.time': { value: Number(middle(quiz(46)).toFixed(1)), unit: 'ms' },
    'figures.overlap': { value: Number(middle(quiz(40)).toFixed(1)), unit: 'ms' },
  }),
)

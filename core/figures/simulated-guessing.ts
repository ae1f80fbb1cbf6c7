import type { Chances } from '../kit/chances'
import { exact } from '../kit/exact'
import { seededRandom, type Random } from '../kit/random'
import type { Papers, Worth } from './papers'
import { leastPassingShare, partKept, type GradeRules } from './passing'
import type { SectionMark } from './section-marks'

/** Guessers that are simulated. */
const guessers = 4000
const fine = 1_000_000

/** What the paper of one guesser holds. */
function paperFor({ fixed, pools, overlap }: Papers, drawn: readonly Worth[][] | null, random: Random): Worth[] {
  if (overlap && drawn?.length) return [...fixed, ...drawn[random.below(drawn.length)]!]
  return [
    ...fixed,
    ...pools.flatMap(({ ways }) => {
      let place = random.below(fine) / fine
      const way = ways.find(({ chance }) => (place -= chance) < 0) ?? ways.at(-1)
      return (way?.draws ?? []).flatMap(({ from, n }) => {
        const left = [...from]
        return Array.from({ length: n }, () => left.splice(random.below(left.length), 1)[0]!)
      })
    }),
  ]
}

function guess(outcomes: readonly (readonly [share: number, chance: number])[], random: Random): number {
  let place = random.below(fine) / fine
  return (outcomes.find(([, chance]) => (place -= chance) < 0) ?? outcomes.at(-1)!)[0]
}

/**
 * The chance to pass by guessing where no closed form is at hand: the same simulated guessers each time.
 * @param outcomes what a question earns in one attempt, as a share of its points
 * @param attempts that are used
 * @returns the chance, and twice its standard error
 */
export function simulatedGuessing(
  papers: Papers,
  drawn: readonly Worth[][] | null,
  outcomes: (worth: Worth) => Chances,
  possible: number,
  attempts: number,
  rules: GradeRules,
  marks: readonly SectionMark[],
): { passes: number; error: number } {
  const random = seededRandom('00', ['guessing'])
  const least = leastPassingShare(possible, rules)
  if (least === null) return { passes: 0, error: 0 }
  const known = new Map<string, (readonly [number, number])[]>()
  const outcomesOf = (worth: Worth) => {
    const key = `${worth.question}|${worth.points}`
    const there =
      known.get(key) ?? outcomes(worth).map(({ value, chance }) => [exact(value).valueOf(), chance] as const)
    known.set(key, there)
    return there
  }
  const { method } = rules.grade
  const onlyMissed = rules.attempts.draw === 'missed'
  // As marking rounds: half a step below the mark is read as the mark.
  const reaches = ({ percent, decimals }: SectionMark, share: number) =>
    share * 100 >= percent - 0.5 / 10 ** decimals - 1e-9
  let passed = 0
  for (let guesser = 0; guesser < guessers; guesser++) {
    let paper = paperFor(papers, drawn, random)
    const best = paper.map(() => -Infinity)
    const sat = Array.from({ length: attempts }, (_, i) => {
      if (i > 0 && rules.attempts.draw === 'fresh') paper = paperFor(papers, drawn, random)
      const shares = paper.map((worth, at) => {
        if (!onlyMissed) return guess(outcomesOf(worth), random)
        if (best[at]! < 1) best[at] = Math.max(best[at]!, guess(outcomesOf(worth), random))
        return best[at]!
      })
      const total = (of: (worth: Worth) => boolean) => {
        let [points, all] = [0, 0]
        paper.forEach((worth, at) => {
          if (!of(worth)) return
          points += shares[at]! * worth.points
          all += worth.points
        })
        return all > 0 ? Math.max(0, points) / all : null
      }
      return {
        share: (total(() => true) ?? 0) * (partKept(i + 1, rules) / 10_000),
        sections: marks.map(({ section }) => total((worth) => worth.section === section)),
      }
    })
    const extreme = (better: (a: number, b: number) => boolean) =>
      sat.reduce((found, each) => (better(each.share, found.share) ? each : found))
    const counted =
      method === 'average'
        ? sat
        : method === 'first'
          ? [sat[0]!]
          : method === 'latest'
            ? [sat.at(-1)!]
            : [extreme(method === 'highest' ? (a, b) => a > b + 1e-12 : (a, b) => a < b - 1e-12)]
    const share = counted.reduce((sum, each) => sum + each.share, 0) / counted.length
    const isThrough = marks.every((mark, at) => {
      const own = counted.flatMap((each) => each.sections[at] ?? [])
      return !own.length || reaches(mark, own.reduce((a, b) => a + b, 0) / own.length)
    })
    if (share >= least - 1e-9 && isThrough) passed++
  }
  const passes = passed / guessers
  return { passes, error: 2 * Math.sqrt(Math.max(passes * (1 - passes), 1 / guessers) / guessers) }
}

import { noBounds } from '../../../../core/question/kinds/credits'
import { boundsOf, creditScale, scaledBounds } from '../credits'
import { hundredths } from '../reading'
import type { Entry, Sides } from './sides'

/** A box of a matching or of a grid: what it earns in the file, and whether it is of the key. */
export interface Cell {
  a: Entry
  b: Entry
  worth: number
  keyed: boolean
}

/** What cells earn, as one of the rules that pairs and ticks have. */
export interface Rule {
  rule: 'share' | 'credits'
  wrongCost: number
  lower: number
  upper: number | null
  /** What a cell adds under “credits” where that is not what a wrong one costs. */
  credits: (cell: Cell) => number | undefined
  /** What is worth everything in the file. */
  most: number
}

/**
 * A share for each that is right and one cost for each that is wrong; or the credit of each, within bounds.
 * @param alike right ones have to earn the same under “share”; else they may weigh differently
 * @param mayCredit false where the kind cannot take credits of single ones; a note says what is lost
 */
export function ruleOf(
  { context, response, whole }: Sides,
  cells: readonly Cell[],
  alike: boolean,
  mayCredit: boolean,
): Rule {
  const keyed = cells.filter((cell) => cell.keyed).map(({ worth }) => worth)
  const others = cells.filter((cell) => !cell.keyed).map(({ worth }) => worth)
  const all = keyed.reduce((sum, each) => sum + each, 0)
  const bounds = whole ? noBounds : boundsOf(context, response)
  const same = (values: readonly number[]) => values.every((each) => Math.abs(each - values[0]!) < 1e-6)
  const [cost = 0] = others
  const isShare =
    cost <= 0 &&
    same(others) &&
    (!alike || same(keyed)) &&
    (cost === 0 || bounds.lower === 0) &&
    (bounds.upper === null || bounds.upper > all - 1e-6)
  if (isShare || !mayCredit) {
    if (!isShare)
      context.notes.add(
        'Its pairs have credits of their own, which so large a matching cannot have here: each right one earns a share.',
      )
    const average = all / Math.max(1, keyed.length)
    const wrongCost = Math.min(10, hundredths(-Math.min(0, ...others) / (average || 1)))
    return { rule: 'share', wrongCost, ...noBounds, credits: () => undefined, most: all }
  }
  const scale = creditScale(
    cells.map(({ worth }) => worth),
    bounds,
  )
  const usual = commonest(others.filter((each) => each <= 0)) ?? 0
  return {
    rule: 'credits',
    wrongCost: hundredths(-usual / scale),
    ...scaledBounds(bounds, scale, all),
    credits: ({ worth }) => (worth === usual ? undefined : hundredths(worth / scale)),
    most: bounds.upper === null ? all : Math.min(all, bounds.upper),
  }
}

function commonest(values: readonly number[]): number | undefined {
  const counts = new Map<number, number>()
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1)
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0]
}

export const creditsOf = (rule: Rule, cells: readonly Cell[]) =>
  rule.rule === 'credits'
    ? {
        credits: Object.fromEntries(
          cells.flatMap((cell): [string, number][] => {
            const credit = rule.credits(cell)
            return credit === undefined ? [] : [[cell.b.id, credit]]
          }),
        ),
      }
    : {}

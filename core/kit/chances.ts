import { Fraction, exact, exactText, type Exact } from './exact'

/** What may come of something, each with its chance; chances add up to 1. */
export type Chances = { value: Exact; chance: number }[]

/** Outcomes of one value made one, in rising order; what has no chance falls away. */
export function gathered(outcomes: Iterable<readonly [Fraction, number]>): Chances {
  const byValue = new Map<Exact, { value: Fraction; chance: number }>()
  for (const [value, chance] of outcomes) {
    const text = exactText(value)
    const before = byValue.get(text)
    if (before) before.chance += chance
    else byValue.set(text, { value, chance })
  }
  return [...byValue]
    .filter(([, { chance }]) => chance > 0)
    .map(([value, { value: exactly, chance }]) => ({ size: exactly.valueOf(), value, chance }))
    .sort((a, b) => a.size - b.size)
    .map(({ value, chance }) => ({ value, chance }))
}

/** Nothing but this value. */
export const certain = (value: number): Chances => [{ value: exactText(new Fraction(value)), chance: 1 }]

/** Different values that a sum of independent things may have before they are put on a grid. */
const mostValues = 400
/** A grid's cells a unit: no value is moved by more than half of one. */
const cells = 400

/** Outcomes given as whole numbers of 1/unit; more than 400 different ones are moved to the nearest of 400 steps. */
export function wholes(outcomes: ReadonlyMap<number, number>, unit: number): Chances {
  const made = (counts: ReadonlyMap<number, number>, of: number) =>
    gathered([...counts].map(([n, chance]) => [new Fraction(n, of), chance]))
  if (outcomes.size <= mostValues) return made(outcomes, unit)
  const grid = new Map<number, number>()
  for (const [n, chance] of outcomes) {
    const cell = Math.round((n * cells) / unit)
    grid.set(cell, (grid.get(cell) ?? 0) + chance)
  }
  return made(grid, cells)
}

const onGrid = (chances: Chances) =>
  chances.map(({ value, chance }) => [Math.round(exact(value).valueOf() * cells), chance] as const)

/** The sum of two independent outcomes; where there are very many, each is moved to the nearest thousandth. */
export function added(a: Chances, b: Chances): Chances {
  if (a.length * b.length <= 2 * mostValues)
    return gathered(
      a.flatMap((left) =>
        b.map((right) => [exact(left.value).add(exact(right.value)), left.chance * right.chance] as const),
      ),
    )
  const sums = new Map<number, number>()
  const others = onGrid(b)
  for (const [x, chance] of onGrid(a))
    for (const [y, other] of others) sums.set(x + y, (sums.get(x + y) ?? 0) + chance * other)
  return wholes(sums, cells)
}

/**
 * The sum of independent parts in whole steps, exactly.
 * @param parts what each may add, with its chance
 * @returns sums that have a chance, in rising order
 */
export function summed(parts: readonly (readonly (readonly [step: number, chance: number])[])[]): [number, number][] {
  const reach = (part: (typeof parts)[number], far: (...steps: number[]) => number) =>
    far(...part.map(([step]) => step))
  const low = parts.reduce((sum, part) => sum + reach(part, Math.min), 0)
  const high = parts.reduce((sum, part) => sum + reach(part, Math.max), 0)
  // Counted from the lowest sum there is so far, so that no index falls below 0.
  let sums = new Float64Array(high - low + 1)
  sums[0] = 1
  let width = 1
  for (const part of parts) {
    const least = reach(part, Math.min)
    const next = new Float64Array(sums.length)
    for (const [step, chance] of part) for (let at = 0; at < width; at++) next[at + step - least]! += sums[at]! * chance
    width += reach(part, Math.max) - least
    sums = next
  }
  return [...sums].flatMap((chance, at): [number, number][] => (chance > 0 ? [[at + low, chance]] : []))
}

/** Every outcome changed by one function. */
export const mapped = (chances: Chances, change: (value: Fraction) => Fraction): Chances =>
  gathered(chances.map(({ value, chance }) => [change(exact(value)), chance]))

export const meanOf = (chances: Chances): number =>
  chances.reduce((total, { value, chance }) => total + exact(value).valueOf() * chance, 0)

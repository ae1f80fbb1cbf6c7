import { hundredths, type Context, type Declaration } from './reading'

/** Bounds of what one response earns: of a score that is of it alone, or of its mapping; null where there is none. */
export interface Bounds {
  lower: number | null
  upper: number | null
}
export function boundsOf({ score }: Context, { identifier, mapping }: Declaration): Bounds {
  const own = score?.terms.filter((term) => term.responses.includes(identifier)) ?? []
  const mapped = score ? (own.length === 1 && own[0]!.node.name === 'mapResponse' ? own[0]!.factor : null) : 1
  const scaled = (bound: number | null | undefined) =>
    bound === null || bound === undefined || mapped === null ? null : bound * mapped
  const whole = score && own.length === score.terms.length ? score : null
  return { lower: whole?.lower ?? scaled(mapping?.lower), upper: whole?.upper ?? scaled(mapping?.upper) }
}

/**
 * What credits of a file and their bounds are divided by to stand here, which leaves their shares as they are: credits go
 * up to 10, bounds up to 100, in hundredths. Thirds become whole numbers where they can.
 */
export function creditScale(worths: readonly number[], { lower, upper }: Bounds): number {
  const sizesOf = (values: readonly (number | null)[]) => values.map((each) => Math.abs(each ?? 0)).filter(Boolean)
  const credits = [...new Set(sizesOf(worths))]
  if (!credits.length) return 1
  const sizes = [...credits, ...sizesOf([lower, upper])]
  const most = Math.max(...credits)
  const least = Math.max(1, most / 10)
  const fits = (scale: number) =>
    most / scale <= 10 &&
    sizes.every((size) => isHundredths(size / scale, last / scale + (size / scale) * (last / most)))
  const simple = [least, Math.min(...credits), most].find(fits)
  if (simple !== undefined) return simple
  // The largest as one, two, three … hundredths, until all others are whole hundredths too; then as large as it can be.
  const n = Array.from({ length: 1000 }, (_, i) => i + 1).find((each) => fits((most / each) * 100))
  return n === undefined ? least : (most / n) * (n <= 10 ? 1 : n <= 100 ? 10 : 100)
}
/** A file's thirds are written with six decimals: one more or less of the last is no difference. */
const last = 1e-6
const isHundredths = (credit: number, room: number) => Math.abs(credit - hundredths(credit)) < room

/** Bounds beside credits that were divided. @param all what is worth everything in the file, without bounds */
export function scaledBounds(
  { lower, upper }: Bounds,
  scale: number,
  all: number,
): { lower: number; upper: number | null } {
  return {
    lower: Math.max(-100, Math.min(0, hundredths((lower ?? -100 * scale) / scale))),
    upper: upper === null || upper >= all ? null : Math.max(0, hundredths(upper / scale)),
  }
}

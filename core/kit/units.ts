import { Fraction } from './exact'

interface Unit {
  quantity: string
  factor: Fraction
  also: readonly string[]
}

const of = (quantity: string, factor: string, also: readonly string[] = []): Unit => ({
  quantity,
  factor: new Fraction(factor),
  also,
})

/**
 * Exact factors to the first unit of each quantity. Metre multiples, minute and hour: SI Brochure, 9th ed. (2019),
 * table 8 and prefixes. Nautical mile 1852 m: SI Brochure 8th ed., table 8. Foot 0.3048 m (exact since 1959) and
 * fathom of six feet: NIST Handbook 44, appendix C. Knot: one nautical mile an hour.
 */
const units: Record<string, Unit> = {
  m: of('length', '1', ['metre', 'metres', 'meter', 'meters']),
  mm: of('length', '1/1000', ['millimetres']),
  cm: of('length', '1/100', ['centimetres']),
  km: of('length', '1000', ['kilometres']),
  ft: of('length', '0.3048', ['foot', 'feet']),
  fathom: of('length', '1.8288', ['fathoms', 'fm']),
  nm: of('length', '1852', ['nautical mile', 'nautical miles', 'sea mile', 'sea miles', 'M', 'NM']),
  s: of('time', '1', ['sec', 'second', 'seconds']),
  min: of('time', '60', ['minute', 'minutes']),
  h: of('time', '3600', ['hour', 'hours', 'hr', 'hrs']),
  'm/s': of('speed', '1', ['metres per second']),
  'km/h': of('speed', '5/18', ['kilometres per hour']),
  kn: of('speed', '463/900', ['knot', 'knots', 'kt', 'kts']),
  kg: of('mass', '1', ['kilogram', 'kilograms']),
  g: of('mass', '1/1000', ['gram', 'grams']),
  t: of('mass', '1000', ['tonne', 'tonnes']),
  Pa: of('pressure', '1', ['pascal', 'pascals']),
  hPa: of('pressure', '100', ['mbar', 'millibar', 'millibars']),
  bar: of('pressure', '100000', ['bars']),
  '°': of('angle', '1', ['deg', 'degree', 'degrees']),
  '%': of('share', '1', ['percent', 'per cent']),
}

export const unitNames = Object.keys(units)

/** Symbols that are another unit's in another case: Nm and kN are a torque and a force, Mm and Cm no lengths of these. */
const exactCase = new Set(['nm', 'kn', 'mm', 'cm', 'Pa'])
const inCapitals: Record<string, string> = { KM: 'km', CM: 'cm', MM: 'mm' }

/** The unit that somebody wrote, or undefined. Symbols keep their case where another unit is written so; words do not. */
export function unitNamed(written: string): string | undefined {
  if (Object.hasOwn(units, written)) return written
  const exactName = Object.entries(units).find(([, unit]) => unit.also.includes(written))
  if (exactName) return exactName[0]
  if (Object.hasOwn(inCapitals, written)) return inCapitals[written]
  const small = written.toLowerCase()
  return Object.entries(units).find(
    ([name, unit]) =>
      (name.length > 1 && name.toLowerCase() === small && !exactCase.has(name)) ||
      unit.also.some((word) => word.length > 2 && word.toLowerCase() === small),
  )?.[0]
}

/** The value in another unit of the same quantity, exactly; undefined when the quantities differ. */
export function convert(value: Fraction, from: string, to: string): Fraction | undefined {
  const source = units[from]
  const target = units[to]
  if (!source || !target || source.quantity !== target.quantity) return undefined
  return value.mul(source.factor).div(target.factor)
}

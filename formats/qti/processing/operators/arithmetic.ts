import { Fraction } from '../../../../core/kit/exact'
import type { XmlElement } from '../../../xml'
import { NotProven } from '../not-proven'
import { amount, asNumber, handy, isNumber, real, type Value } from '../values'
import type { Operators } from './operator'

/** All numbers of all values, or null where one of them is NULL (QTI: then the result is NULL). */
function numbers(of: readonly Value[]): Fraction[] | null {
  if (of.some((each) => each === null)) return null
  return of.flatMap((each) =>
    each!.of.map((one) => {
      if (!isNumber(one)) throw new NotProven('It computes with something that is not a number.')
      return one
    }),
  )
}

const over =
  (compute: (all: Fraction[]) => Value) =>
  (_node: XmlElement, of: readonly Value[]): Value => {
    const all = numbers(of)
    return all?.length ? compute(all) : null
  }
const two = (compute: (a: Fraction, b: Fraction) => Value) => over(([a, b]) => (a && b ? compute(a, b) : null))
const one = (compute: (a: Fraction) => Value) => over(([a]) => (a ? compute(a) : null))
const least = (all: readonly Fraction[]) => all.reduce((a, b) => (a.compare(b) <= 0 ? a : b))
const most = (all: readonly Fraction[]) => all.reduce((a, b) => (a.compare(b) >= 0 ? a : b))
const added = (all: readonly Fraction[]) => all.reduce((a, b) => handy(a.add(b)), new Fraction(0))

/** To the nearest at so many decimals, half away from zero. */
function toDecimals(value: Fraction, digits: number): Fraction {
  const scale = new Fraction(10).pow(digits)!
  const size = value.abs().mul(scale).add(new Fraction(1, 2)).floor().div(scale)
  return value.compare(0) < 0 ? size.neg() : size
}

/** Rounded as roundTo and equalRounded say. @param mode significantFigures or decimalPlaces @throws NotProven */
export function roundedTo(value: Fraction, mode: string | undefined, figures: string | undefined): Fraction {
  const digits = Number(figures)
  if (!Number.isInteger(digits) || digits < 0 || digits > 30)
    throw new NotProven('A rounding lacks its figures in digits.')
  if (mode === 'decimalPlaces') return toDecimals(value, digits)
  if (mode !== 'significantFigures' && mode !== undefined) throw new NotProven(`It rounds by “${mode}”.`)
  if (digits < 1) throw new NotProven('It rounds to no figure at all.')
  if (value.equals(0)) return value
  let place = 0
  while (value.abs().compare(new Fraction(10).pow(place + 1)!) >= 0) place++
  while (value.abs().compare(new Fraction(10).pow(place)!) < 0) place--
  const unit = new Fraction(10).pow(place - digits + 1)!
  return toDecimals(value.div(unit), 0).mul(unit)
}

const ofDoubles = new Map<string, (...of: number[]) => number>(
  Object.entries({
    sin: Math.sin,
    cos: Math.cos,
    tan: Math.tan,
    sec: (a: number) => 1 / Math.cos(a),
    csc: (a: number) => 1 / Math.sin(a),
    cot: (a: number) => 1 / Math.tan(a),
    asin: Math.asin,
    acos: Math.acos,
    atan: Math.atan,
    atan2: (y: number, x: number) => Math.atan2(y, x),
    asec: (a: number) => Math.acos(1 / a),
    acsc: (a: number) => Math.asin(1 / a),
    acot: (a: number) => Math.PI / 2 - Math.atan(a),
    sinh: Math.sinh,
    cosh: Math.cosh,
    tanh: Math.tanh,
    sech: (a: number) => 1 / Math.cosh(a),
    csch: (a: number) => 1 / Math.sinh(a),
    coth: (a: number) => 1 / Math.tanh(a),
    log: (a: number) => (a < 0 ? NaN : Math.log10(a)),
    ln: (a: number) => (a < 0 ? NaN : Math.log(a)),
    exp: Math.exp,
    toRadians: (a: number) => (a * Math.PI) / 180,
    toDegrees: (a: number) => (a * 180) / Math.PI,
  }),
)
const exactly = new Map<string, (a: Fraction) => Fraction>(
  Object.entries({
    abs: (a: Fraction) => a.abs(),
    floor: (a: Fraction) => a.floor(),
    ceil: (a: Fraction) => a.ceil(),
    signum: (a: Fraction) => new Fraction(a.compare(0)),
  }),
)

const squares = (all: readonly Fraction[]) => {
  const mean = added(all).div(all.length)
  return added(all.map((each) => each.sub(mean).mul(each.sub(mean))))
}
const statistics = new Map<string, (all: readonly Fraction[]) => Value>(
  Object.entries({
    mean: (all: readonly Fraction[]): Value => amount(added(all).div(all.length)),
    popVariance: (all: readonly Fraction[]): Value => amount(squares(all).div(all.length)),
    popSD: (all: readonly Fraction[]): Value => real(Math.sqrt(squares(all).div(all.length).valueOf())),
    sampleVariance: (all: readonly Fraction[]): Value =>
      all.length < 2 ? null : amount(squares(all).div(all.length - 1)),
    sampleSD: (all: readonly Fraction[]): Value =>
      all.length < 2
        ? null
        : real(
            Math.sqrt(
              squares(all)
                .div(all.length - 1)
                .valueOf(),
            ),
          ),
  }),
)

/** Numbers (QTI 2.1 §15.3 and 3.0: sum … mathOperator, statsOperator); a NULL among them makes the result NULL. */
export const arithmetic: Operators = {
  sum: over((all) => amount(added(all))),
  product: over((all) => amount(all.reduce((a, b) => handy(a.mul(b)), new Fraction(1)))),
  subtract: two((a, b) => amount(a.sub(b))),
  divide: two((a, b) => (b.equals(0) ? null : amount(a.div(b)))),
  power: two((a, b) => {
    const whole = b.equals(b.floor()) && b.abs().compare(1000) <= 0
    if (!whole) return real(a.valueOf() ** b.valueOf())
    if (a.equals(0) && b.compare(0) < 0) return null
    let power = new Fraction(1)
    for (let i = 0; i < Math.abs(b.valueOf()); i++) power = handy(power.mul(a))
    return amount(b.compare(0) < 0 ? power.inverse() : power)
  }),
  integerDivide: two((a, b) => (b.equals(0) ? null : amount(a.div(b).floor()))),
  integerModulus: two((a, b) => (b.equals(0) ? null : amount(a.sub(b.mul(a.div(b).floor()))))),
  truncate: one((a) => amount(a.compare(0) < 0 ? a.ceil() : a.floor())),
  /** The integer n for which n − 0.5 ≤ x < n + 0.5. */
  round: one((a) => amount(a.add(new Fraction(1, 2)).floor())),
  integerToFloat: one((a) => amount(a)),
  roundTo: (node, [value = null]) =>
    value === null ? null : amount(roundedTo(asNumber(value), node.attributes.roundingMode, node.attributes.figures)),
  min: over((all) => amount(least(all))),
  max: over((all) => amount(most(all))),
  gcd: over((all) => amount(all.reduce((a, b) => a.gcd(b)))),
  lcm: over((all) => amount(all.some((each) => each.equals(0)) ? 0 : all.reduce((a, b) => handy(a.lcm(b))))),
  mathOperator(node, of) {
    const name = node.attributes.name ?? ''
    const all = numbers(of)
    const [whole, compute] = [exactly.get(name), ofDoubles.get(name)]
    if (whole) return all?.length ? amount(whole(all[0]!)) : null
    if (!compute) throw new NotProven(`It uses the function “${name}”.`)
    return all?.length ? real(compute(...all.map((each) => each.valueOf()))) : null
  },
  statsOperator(node, of) {
    const compute = statistics.get(node.attributes.name ?? '')
    if (!compute) throw new NotProven(`It uses the statistic “${node.attributes.name ?? ''}”.`)
    const all = numbers(of)
    return all?.length ? compute(all) : null
  },
}

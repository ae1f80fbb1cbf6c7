import { NotProven } from '../not-proven'
import { asTruth, truth, type Value } from '../values'
import type { Operators } from './operator'

const known = (of: readonly Value[]) => of.map((each) => (each === null ? null : asTruth(each)))

/** Logic with three values: what is NULL is not known (QTI 2.1 §15.3 and, or, not, anyN, isNull). */
export const logic: Operators = {
  isNull: (_node, [value = null]) => truth(value === null),
  not: (_node, [value = null]) => (value === null ? null : truth(!asTruth(value))),
  and(_node, of) {
    const all = known(of)
    return all.includes(false) ? truth(false) : all.includes(null) ? null : truth(true)
  },
  or(_node, of) {
    const all = known(of)
    return all.includes(true) ? truth(true) : all.includes(null) ? null : truth(false)
  },
  /** At least min and at most max of them are true; NULL where what is not known could decide. */
  anyN(node, of) {
    const [min, max] = [Number(node.attributes.min), Number(node.attributes.max)]
    if (!Number.isInteger(min) || !Number.isInteger(max)) throw new NotProven('“anyN” lacks a bound in digits.')
    const all = known(of)
    const yes = all.filter((each) => each === true).length
    const perhaps = all.filter((each) => each === null).length
    if (yes >= min && yes + perhaps <= max) return truth(true)
    return yes + perhaps < min || yes > max ? truth(false) : null
  },
}

import { NotProven } from '../not-proven'
import { amount, asText, container, same, truth, type Simple, type Value } from '../values'
import { isTrue, type Operators } from './operator'

function gathered(cardinality: 'multiple' | 'ordered', of: readonly Value[]): Value {
  let all: Value = null
  for (const each of of)
    if (each) all = container(cardinality, (all ?? each).type, all ? [...all.of, ...each.of] : each.of)
  return all
}

const countOf = (values: readonly Simple[], one: Simple) => values.filter((each) => same(each, one)).length

/** Containers (QTI 2.1 §15.3 multiple, ordered, containerSize, index, member, delete, contains, substring, repeat). */
export const containers: Operators = {
  multiple: (_node, of) => gathered('multiple', of),
  ordered: (_node, of) => gathered('ordered', of),
  containerSize: (_node, [value = null]) => amount(value === null ? 0 : value.of.length),
  index(node, [value = null]) {
    const n = Number(node.attributes.n)
    if (!Number.isInteger(n) || n < 1) throw new NotProven('“index” lacks its number in digits.')
    const found = value?.of[n - 1]
    return found === undefined ? null : container('single', value!.type, [found])
  },
  member(_node, [one = null, all = null]) {
    if (one === null || all === null) return null
    return truth(countOf(all.of, one.of[0]!) > 0)
  },
  delete(_node, [one = null, all = null]) {
    if (one === null || all === null) return null
    return container(
      all.cardinality,
      all.type,
      all.of.filter((each) => !same(each, one.of[0]!)),
    )
  },
  /** Of an ordered one as an unbroken piece, of a multiple one with as many of each. */
  contains(_node, [all = null, part = null]) {
    if (all === null || part === null) return null
    if (all.cardinality !== 'ordered')
      return truth(part.of.every((each) => countOf(all.of, each) >= countOf(part.of, each)))
    return truth(
      all.of.some(
        (_, at) => at + part.of.length <= all.of.length && part.of.every((each, i) => same(each, all.of[at + i]!)),
      ),
    )
  },
  substring(node, [part = null, whole = null]) {
    if (part === null || whole === null) return null
    const [short, long] = [asText(part), asText(whole)]
    return truth(
      isTrue(node.attributes.caseSensitive, true)
        ? long.includes(short)
        : long.toLowerCase().includes(short.toLowerCase()),
    )
  },
  repeat(node, of) {
    const times = Number(node.attributes.numberRepeats)
    if (!Number.isInteger(times) || times > 1000) throw new NotProven('“repeat” lacks its number in digits.')
    const once = gathered('ordered', of)
    return gathered('ordered', Array<Value>(Math.max(0, times)).fill(once))
  },
}

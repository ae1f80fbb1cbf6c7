import type { Tree } from '../../core/question/vary/tree'
import { childrenOf, element, textOf, type XmlElement } from '../xml'

/** A computation that QTI, or Thistle, has no words for. */
export class NotSayable extends Error {
  override name = 'NotSayable'
}

/** Functions of one argument that QTI names as mathOperator does; Thistle's name → QTI's. */
const mathOperators: Record<string, string> = {
  sin: 'sin',
  cos: 'cos',
  tan: 'tan',
  asin: 'asin',
  acos: 'acos',
  atan: 'atan',
  atan2: 'atan2',
  log: 'ln',
  log10: 'log',
  exp: 'exp',
  abs: 'abs',
  sign: 'signum',
  rad: 'toRadians',
  deg: 'toDegrees',
  floor: 'floor',
  ceil: 'ceil',
}
/** Elements of their own; Thistle's name → QTI's. */
const elements: Record<string, string> = {
  add: 'sum',
  multiply: 'product',
  subtract: 'subtract',
  divide: 'divide',
  power: 'power',
  pow: 'power',
  min: 'min',
  max: 'max',
  gcd: 'gcd',
  lcm: 'lcm',
  fix: 'truncate',
  less: 'lt',
  atMost: 'lte',
  greater: 'gt',
  atLeast: 'gte',
  and: 'and',
  or: 'or',
  not: 'not',
}
const fromMath = Object.fromEntries(Object.entries(mathOperators).map(([own, theirs]) => [theirs, own]))
const fromElements = Object.fromEntries(
  Object.entries(elements)
    .filter(([own]) => own !== 'pow')
    .map(([own, theirs]) => [theirs, own]),
)

const number = (value: string) => element('baseValue', { baseType: 'float' }, value)

/** A computation in the expressions of QTI. @throws NotSayable */
export function writeExpression(tree: Tree): XmlElement {
  if (tree.is === 'number') return number(tree.value)
  if (tree.is === 'text') return element('baseValue', { baseType: 'string' }, tree.value)
  if (tree.is === 'name')
    return tree.name === 'pi' || tree.name === 'e'
      ? element('mathConstant', { name: tree.name })
      : element('variable', { identifier: tree.name })
  const of = tree.of.map(writeExpression)
  const [a, b] = of
  switch (tree.name) {
    case 'negate':
      return element('product', {}, number('-1'), a)
    case 'sqrt':
      return element('power', {}, a, number('0.5'))
    case 'mod':
      return element('integerModulus', {}, a, b)
    case 'round':
      return b
        ? element('roundTo', { roundingMode: 'decimalPlaces', figures: textOf(b) }, a)
        : element('roundTo', { roundingMode: 'decimalPlaces', figures: 0 }, a)
    case 'same':
      return tree.of.some((part) => part.is === 'text')
        ? element('match', {}, a, b)
        : element('equal', { toleranceMode: 'exact' }, a, b)
    case 'differs':
      return element('not', {}, writeExpression({ ...tree, name: 'same' }))
  }
  if (Object.hasOwn(elements, tree.name)) return element(elements[tree.name]!, {}, of)
  if (Object.hasOwn(mathOperators, tree.name)) return element('mathOperator', { name: mathOperators[tree.name] }, of)
  throw new NotSayable(`QTI has no word for “${tree.name}”.`)
}

const call = (name: string, of: Tree[]): Tree => ({ is: 'call', name, of })

/** An expression of QTI as a computation. @throws NotSayable */
export function readExpression(node: XmlElement): Tree {
  const of = () => childrenOf(node).map(readExpression)
  switch (node.name) {
    case 'baseValue':
    case 'correct':
    case 'null': {
      const text = textOf(node).trim()
      if (node.name !== 'baseValue') break
      return /^-?\d+(\.\d+)?$/.test(text)
        ? { is: 'number', value: text }
        : Number.isFinite(Number(text)) && text !== ''
          ? { is: 'number', value: String(Number(text)) }
          : { is: 'text', value: text }
    }
    case 'variable':
      return { is: 'name', name: nameFor(node.attributes.identifier ?? '') }
    case 'mathConstant':
      return { is: 'name', name: node.attributes.name ?? 'pi' }
    case 'mathOperator':
      if (Object.hasOwn(fromMath, node.attributes.name ?? '')) return call(fromMath[node.attributes.name!]!, of())
      break
    case 'integerModulus':
      return call('mod', of())
    case 'integerDivide':
      return call('floor', [call('divide', of())])
    case 'round':
      return call('round', of())
    case 'roundTo':
      if (node.attributes.roundingMode === 'decimalPlaces')
        return call('round', [...of(), { is: 'number', value: node.attributes.figures ?? '0' }])
      break
    case 'match':
      return call('same', of())
    case 'equal':
      if ((node.attributes.toleranceMode ?? 'exact') === 'exact') return call('same', of())
      break
    case 'integerToFloat':
      return of()[0]!
  }
  if (Object.hasOwn(fromElements, node.name)) return call(fromElements[node.name]!, of())
  throw new NotSayable(
    `The expression “${node.name}${node.attributes.name ? ` ${node.attributes.name}` : ''}” has no like here.`,
  )
}

/** An identifier of QTI as the name of a variable. */
export const nameFor = (identifier: string): string =>
  identifier
    .replace(/[^a-zA-Z0-9_]/g, '_')
    .replace(/^[^a-zA-Z]/, 'v')
    .slice(0, 20)

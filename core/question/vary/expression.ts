import { all, create, type BigNumber, type MathNode } from 'mathjs'
import { isNumberText, mostPower, numberTextOf } from '../../kit/number-text'
import type { Values } from './schema'

/** Decimal arithmetic of forty digits: a key of 0.1 + 0.2 is 0.3. */
const math = create(all!, { number: 'BigNumber', precision: 40 })
const equalNumbers = math.equal
/** Words are compared as well: wind == "north". */
const equal = (a: unknown, b: unknown): boolean =>
  typeof a === 'string' || typeof b === 'string' ? a === b : (equalNumbers(a as BigNumber, b as BigNumber) as boolean)
math.import({ equal, unequal: (a: unknown, b: unknown) => !equal(a, b) }, { override: true })

/** Everything that may be called. Nothing here reaches outside, and nothing grows without bound. */
const functions = new Set([
  'abs',
  'ceil',
  'floor',
  'round',
  'fix',
  'sqrt',
  'cbrt',
  'exp',
  'log',
  'log10',
  'sin',
  'cos',
  'tan',
  'asin',
  'acos',
  'atan',
  'atan2',
  'min',
  'max',
  'mod',
  'gcd',
  'lcm',
  'sign',
  'hypot',
  'pow',
  'rad',
  'deg',
])
const constants = new Set(['pi', 'e', 'true', 'false'])
const nodes = new Set([
  'ConstantNode',
  'SymbolNode',
  'OperatorNode',
  'ParenthesisNode',
  'FunctionNode',
  'ConditionalNode',
  'RelationalNode',
])
const operators = new Set(['+', '-', '*', '/', '^', '%', 'mod', '<', '<=', '>', '>=', '==', '!=', 'and', 'or', 'not'])

/** Names that mean something by themselves, so that no variable can have them. */
export const takenNames: ReadonlySet<string> = new Set([...functions, ...constants, 'and', 'or', 'not'])

/** A computation that cannot be made; the sentence is for authors. */
export class ExpressionError extends Error {
  override name = 'ExpressionError'
}

interface Compiled {
  node: MathNode
  evaluate(scope: Record<string, unknown>): unknown
}
const known = new Map<string, Compiled>()

const helpers = {
  /** Degrees to radians, and back. */
  rad: (degrees: BigNumber) => math.divide(math.multiply(degrees, math.bignumber(math.pi)), 180),
  deg: (radians: BigNumber) => math.divide(math.multiply(radians, 180), math.bignumber(math.pi)),
}

function ensureHarmless(node: MathNode, source: string): void {
  node.traverse((each) => {
    if (!nodes.has(each.type)) throw new ExpressionError(`“${source}” holds something that is not a computation.`)
    if (math.isFunctionNode(each) && !functions.has(each.fn.name))
      throw new ExpressionError(`There is no function “${each.fn.name}” here. There are ${[...functions].join(', ')}.`)
    if (math.isOperatorNode(each) && !operators.has(each.op))
      throw new ExpressionError(`“${each.op}” is not understood in “${source}”.`)
  })
}

function compiled(source: string): Compiled {
  const found = known.get(source)
  if (found) return found
  let node: MathNode
  try {
    node = math.parse(source)
  } catch {
    throw new ExpressionError(`“${source}” cannot be read as a computation.`)
  }
  ensureHarmless(node, source)
  const code = node.compile()
  const result = {
    node,
    evaluate: (scope: Record<string, unknown>) => code.evaluate({ ...helpers, ...scope }) as unknown,
  }
  if (known.size > 2000) known.clear()
  known.set(source, result)
  return result
}

/** What of a parsed computation can be read by others; which parts there are depends on its type. */
export interface ExpressionNode {
  type: string
  name?: string
  value?: unknown
  op?: string
  content?: ExpressionNode
  fn?: ExpressionNode
  args?: ExpressionNode[]
  conditionals?: string[]
  params?: ExpressionNode[]
  condition?: ExpressionNode
  trueExpr?: ExpressionNode
  falseExpr?: ExpressionNode
}

/** A computation as parsed, once it has been found harmless. @throws ExpressionError */
export const parsed = (source: string): ExpressionNode => compiled(source).node as unknown as ExpressionNode

/** Names that a computation uses. @throws ExpressionError */
export function namesIn(source: string): string[] {
  const names = new Set<string>()
  compiled(source).node.traverse((node, _path, parent) => {
    if (math.isSymbolNode(node) && !constants.has(node.name) && !(math.isFunctionNode(parent) && parent.fn === node))
      names.add(node.name)
  })
  return [...names]
}

function run(source: string, values: Values): unknown {
  const { evaluate } = compiled(source)
  const missing = namesIn(source).filter((name) => !(name in values))
  if (missing.length) throw new ExpressionError(`“${missing[0]}” is not one of the variables.`)
  const scope = Object.fromEntries(
    namesIn(source).map((name) => [name, isNumberText(values[name]!) ? math.bignumber(values[name]!) : values[name]]),
  )
  try {
    return evaluate(scope)
  } catch (error) {
    throw new ExpressionError(`“${source}” cannot be computed: ${(error as Error).message}`)
  }
}

/** Twelve significant digits are kept: the rest is noise of sines and roots. */
const digits = 12

/**
 * The value of a computation as a question writes numbers (number-text.ts), or as a word where it names one.
 * @param decimals writes that many decimals, rounded half away from zero; of numbers from 10^15 on, none
 * @throws ExpressionError also where the result is not finite, or beyond the powers of ten allowed
 */
export function compute(source: string, values: Values, decimals?: number): string {
  const result = run(source, values)
  if (typeof result === 'string') return result
  const value = typeof result === 'boolean' ? math.bignumber(result ? 1 : 0) : result
  if (!math.isBigNumber(value) || !value.isFinite()) throw new ExpressionError(`“${source}” gives no finite number.`)
  // Decimals say nothing of a number so large that it is written with a power of ten.
  if (decimals !== undefined && value.abs().lessThan('1e15'))
    return value.toSignificantDigits(30).toDecimalPlaces(decimals, 4).toFixed(decimals)
  const written = numberTextOf(value.toSignificantDigits(digits).toString())
  if (written === null) throw new ExpressionError(`“${source}” gives a number beyond 10^${mostPower} or its inverse.`)
  return written
}

/** Whether a condition holds. @throws ExpressionError */
export function holds(source: string, values: Values): boolean {
  const result = run(source, values)
  if (typeof result !== 'boolean')
    throw new ExpressionError(`“${source}” is no condition: write a comparison, such as a < b.`)
  return result
}

import { parsed } from './expression'
import type { ExpressionNode } from './expression'

/**
 * A computation as plain data, for formats that write computations in another way. Operators stand under the names of
 * functions: add, subtract, multiply, divide, power, negate, mod, and, or, not, and the comparisons.
 */
export type Tree =
  | { is: 'number'; value: string }
  | { is: 'text'; value: string }
  | { is: 'name'; name: string }
  | { is: 'call'; name: string; of: Tree[] }

const operators: Record<string, string> = {
  '+': 'add',
  '-': 'subtract',
  '*': 'multiply',
  '/': 'divide',
  '^': 'power',
  '%': 'mod',
  mod: 'mod',
  '<': 'less',
  '<=': 'atMost',
  '>': 'greater',
  '>=': 'atLeast',
  '==': 'same',
  '!=': 'differs',
  and: 'and',
  or: 'or',
  not: 'not',
}
const signs = Object.fromEntries(
  Object.entries(operators)
    .filter(([sign]) => sign !== '%')
    .map(([sign, name]) => [name, sign]),
)

function convert(node: ExpressionNode): Tree {
  switch (node.type) {
    case 'ParenthesisNode':
      return convert(node.content!)
    case 'ConstantNode':
      return typeof node.value === 'string'
        ? { is: 'text', value: node.value }
        : { is: 'number', value: String(node.value) }
    case 'SymbolNode':
      return { is: 'name', name: node.name! }
    case 'FunctionNode':
      return { is: 'call', name: node.fn!.name!, of: node.args!.map(convert) }
    case 'OperatorNode': {
      const of = node.args!.map(convert)
      return {
        is: 'call',
        name:
          of.length === 1 && node.op === '-'
            ? 'negate'
            : of.length === 1 && node.op === '+'
              ? 'add'
              : operators[node.op!]!,
        of,
      }
    }
    // a < b < c
    case 'RelationalNode': {
      const pairs = node.conditionals!.map((name, i): Tree => ({
        is: 'call',
        name: (
          {
            smaller: 'less',
            smallerEq: 'atMost',
            larger: 'greater',
            largerEq: 'atLeast',
            equal: 'same',
            unequal: 'differs',
          } as Record<string, string>
        )[name]!,
        of: [convert(node.params![i]!), convert(node.params![i + 1]!)],
      }))
      return { is: 'call', name: 'and', of: pairs }
    }
    case 'ConditionalNode':
      return {
        is: 'call',
        name: 'if',
        of: [convert(node.condition!), convert(node.trueExpr!), convert(node.falseExpr!)],
      }
    default:
      throw new Error(`unknown node ${node.type}`)
  }
}

/** A computation taken apart. @throws ExpressionError when it cannot be read */
export const treeOf = (source: string): Tree => convert(parsed(source))

/** The other way: a computation as authors write it. Every part stands in parentheses where it holds parts of its own. */
export function sourceOf(tree: Tree): string {
  if (tree.is === 'number') return tree.value
  if (tree.is === 'text') return JSON.stringify(tree.value)
  if (tree.is === 'name') return tree.name
  const parts = tree.of.map((part) =>
    part.is === 'call' && (part.name in signs || part.name === 'negate') ? `(${sourceOf(part)})` : sourceOf(part),
  )
  if (tree.name === 'negate') return `-${parts[0]!}`
  if (tree.name === 'not') return `not ${parts[0]!}`
  const sign = signs[tree.name]
  return sign ? parts.join(` ${sign} `) : `${tree.name}(${tree.of.map(sourceOf).join(', ')})`
}

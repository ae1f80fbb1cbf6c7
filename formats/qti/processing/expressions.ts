import { childrenOf, textOf, type XmlElement } from '../../xml'
import type { Variable } from './declarations'
import { mapped, mappedPoints } from './mapping'
import { NotProven } from './not-proven'
import { areas } from './operators/areas'
import { arithmetic } from './operators/arithmetic'
import { comparison } from './operators/comparison'
import { containers } from './operators/containers'
import { logic } from './operators/logic'
import type { Operator } from './operators/operator'
import { amount, baseTypeOf, container, simpleOf, type Value } from './values'

/** Variables with what they hold just now. */
export interface Memory {
  variables: ReadonlyMap<string, Variable>
  values: Map<string, Value>
  /** Keys that a template has set. */
  corrects: Map<string, Value>
  /** What may still be computed, in expressions and values: no item needs a hundredth of it. */
  left: { steps: number }
  /** Draws a value of a template; where there is none, chance cannot be proven. */
  draw?: (node: XmlElement) => Value
}

const operators = new Map<string, Operator>(
  Object.entries({ ...logic, ...containers, ...arithmetic, ...comparison, ...areas }),
)

export function variableNamed({ variables }: Memory, node: XmlElement): Variable {
  const found = variables.get(node.attributes.identifier ?? '')
  if (!found) throw new NotProven(`It uses “${node.attributes.identifier ?? ''}”, which is not declared.`)
  return found
}

/** A literal is read once, however often the processing is run. */
const literals = new WeakMap<XmlElement, Value>()

/** What stands alone: values, variables, keys, mappings. */
const leaves = new Map<string, (node: XmlElement, memory: Memory) => Value>(
  Object.entries({
    baseValue(node: XmlElement): Value {
      const found = literals.get(node)
      if (found !== undefined) return found
      const type = baseTypeOf(node.attributes.baseType)
      const value = container('single', type, [simpleOf(textOf(node), type)])
      literals.set(node, value)
      return value
    },
    null: () => null,
    variable(node: XmlElement, memory: Memory): Value {
      const { identifier, type, cardinality } = variableNamed(memory, node)
      if (type === null && cardinality === 'single' && !memory.values.has(identifier))
        throw new NotProven(`It uses “${identifier}”, whose type is not known here.`)
      return memory.values.get(identifier) ?? null
    },
    correct(node: XmlElement, memory: Memory): Value {
      const { identifier, correct } = variableNamed(memory, node)
      return memory.corrects.has(identifier) ? memory.corrects.get(identifier)! : correct
    },
    default: (node: XmlElement, memory: Memory) => variableNamed(memory, node).usual,
    mapResponse: (node: XmlElement, memory: Memory) => mapped(variableNamed(memory, node), valueOf(node, memory)),
    mapResponsePoint: (node: XmlElement, memory: Memory) =>
      mappedPoints(variableNamed(memory, node), valueOf(node, memory)),
    mathConstant(node: XmlElement): Value {
      const { name } = node.attributes
      const found = name === 'pi' ? Math.PI : name === 'e' ? Math.E : null
      if (found === null) throw new NotProven(`It uses the constant “${node.attributes.name ?? ''}”.`)
      return amount(found)
    },
    randomInteger: drawn,
    randomFloat: drawn,
    random: drawn,
  }),
)

const valueOf = (node: XmlElement, { values }: Memory) => values.get(node.attributes.identifier ?? '') ?? null

function drawn(node: XmlElement, { draw }: Memory): Value {
  if (!draw) throw new NotProven('It decides by chance.')
  return draw(node)
}

function spend({ left }: Memory, steps: number): void {
  left.steps -= steps
  if (left.steps < 0) throw new NotProven('Its processing is too long to be tried.')
}

/** The value of an expression. @throws NotProven for what is not known here, or takes too long */
export function evaluate(node: XmlElement, memory: Memory): Value {
  spend(memory, 1)
  const leaf = leaves.get(node.name)
  if (leaf) return leaf(node, memory)
  const operator = operators.get(node.name)
  if (!operator)
    throw new NotProven(
      `It uses “${node.name}${node.attributes.class ? ` ${node.attributes.class}` : ''}”, which is not known here.`,
    )
  const of = childrenOf(node).map((each) => evaluate(each, memory))
  for (const value of of) if (value) spend(memory, value.of.length)
  return operator(node, of)
}

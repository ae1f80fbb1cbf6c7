import { childrenOf, type XmlElement } from '../../xml'
import type { Variable } from './declarations'
import { evaluate, variableNamed, type Memory } from './expressions'
import { NotProven } from './not-proven'
import { asNumber, asTruth, container, numberOf, simpleOf, type Value } from './values'

/** Ends processing at once (exitResponse, exitTemplate). */
class Exit extends Error {}

const holds = (node: XmlElement, memory: Memory): boolean => {
  const value = evaluate(node, memory)
  return value !== null && asTruth(value)
}

/** A value as its variable holds it: of its type and cardinality. @throws NotProven where it does not fit */
function fitting({ identifier, type, cardinality }: Variable, value: Value): Value {
  if (value === null) return null
  if (cardinality === 'single' && value.of.length > 1)
    throw new NotProven(`“${identifier}” holds one value and is given several.`)
  return type === null ? value : container(cardinality, type, value.of)
}

/** The value that a table gives for a number (QTI 2.1 §5.2 matchTable, interpolationTable). */
function lookedUp({ identifier, table, type, usual }: Variable, value: Value): Value {
  if (!table || type === null) throw new NotProven(`“${identifier}” is looked up in a table that is not there.`)
  if (value === null) return usual
  const source = asNumber(value)
  const exactly = table.name === 'matchTable'
  const entry = childrenOf(table).find(({ attributes }) => {
    const order = source.compare(numberOf(attributes.sourceValue ?? ''))
    if (exactly) return order === 0
    return attributes.includeBoundary === 'false' ? order > 0 : order >= 0
  })
  const target = entry?.attributes.targetValue ?? table.attributes.defaultValue
  return target === undefined ? null : container('single', type, [simpleOf(target, type)])
}

type Rule = (node: XmlElement, memory: Memory) => void

/** The first branch whose condition holds, or the one that needs none. */
const condition: Rule = (node, memory) => {
  const branch = childrenOf(node).find((each) => each.name.endsWith('Else') || holds(childrenOf(each)[0]!, memory))
  if (!branch) return
  run(branch.name.endsWith('Else') ? childrenOf(branch) : childrenOf(branch).slice(1), memory)
}
const fragment: Rule = (node, memory) => {
  if (node.attributes.href !== undefined) throw new NotProven('Part of its processing is in another file.')
  run(childrenOf(node), memory)
}
const leave: Rule = () => {
  throw new Exit()
}

const rules = new Map<string, Rule>(
  Object.entries({
    responseCondition: condition,
    templateCondition: condition,
    responseProcessingFragment: fragment,
    exitResponse: leave,
    exitTemplate: leave,
    setOutcomeValue: set,
    setTemplateValue: set,
    lookupOutcomeValue(node: XmlElement, memory: Memory) {
      const variable = variableNamed(memory, node)
      memory.values.set(variable.identifier, lookedUp(variable, evaluate(childrenOf(node)[0]!, memory)))
    },
    setCorrectResponse(node: XmlElement, memory: Memory) {
      const variable = variableNamed(memory, node)
      memory.corrects.set(variable.identifier, fitting(variable, evaluate(childrenOf(node)[0]!, memory)))
    },
    setDefaultValue(node: XmlElement, memory: Memory) {
      const variable = variableNamed(memory, node)
      memory.values.set(variable.identifier, fitting(variable, evaluate(childrenOf(node)[0]!, memory)))
    },
    /** Whoever made the values has seen to it that they meet it. */
    templateConstraint: () => undefined,
  }),
)

function set(node: XmlElement, memory: Memory): void {
  const variable = variableNamed(memory, node)
  const [expression] = childrenOf(node)
  if (!expression) throw new NotProven(`“${variable.identifier}” is set to nothing.`)
  memory.values.set(variable.identifier, fitting(variable, evaluate(expression, memory)))
}

function run(nodes: readonly XmlElement[], memory: Memory): void {
  for (const node of nodes) {
    const rule = rules.get(node.name)
    if (!rule) throw new NotProven(`Its processing uses “${node.name}”, which is not known here.`)
    rule(node, memory)
  }
}

/** Runs rules one after another. @throws NotProven */
export function runRules(nodes: readonly XmlElement[], memory: Memory): void {
  try {
    run(nodes, memory)
  } catch (error) {
    if (!(error instanceof Exit)) throw error
  }
}

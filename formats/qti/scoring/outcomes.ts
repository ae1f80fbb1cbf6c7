import { childOf, childrenOf, element, textOf, within, type XmlElement } from '../../xml'
import { constantOf } from './terms'

/**
 * What an item's processing makes of its outcomes, as expressions over its responses: rules are put into one another until
 * nothing but responses is left. No operator is computed here; whoever reads a key looks at the shape of what is left.
 * A branch is an element of our own, “choose”: condition, what holds then, what holds otherwise.
 */
export type Outcomes = ReadonlyMap<string, XmlElement>

/** Processing that is too long, or has rules that cannot be put into one another. */
export class Unfolded extends Error {
  override name = 'Unfolded'
}

const mostSteps = 20_000

/** What is put into one another twice, again and again, grows without end: an outcome has so many elements at most. */
const sizes = new WeakMap<XmlElement, number>()
function sizeOf(node: XmlElement): number {
  let size = sizes.get(node)
  if (size === undefined) {
    size = node.children.reduce((sum, child) => sum + (typeof child === 'string' ? 0 : sizeOf(child)), 1)
    sizes.set(node, size)
  }
  return size
}
function handy(value: XmlElement): XmlElement {
  if (sizeOf(value) > mostSteps) throw new Unfolded('Its outcomes are put together from too many parts.')
  return value
}
export const nothing = element('baseValue', { baseType: 'float' }, '0')
const none = element('null')

/** @throws Unfolded */
export function unfold(rules: readonly XmlElement[], item: XmlElement): Outcomes {
  const outcomes = new Map<string, XmlElement>(
    childrenOf(item, 'outcomeDeclaration').map((each) => [each.attributes.identifier ?? '', initial(each)]),
  )
  return run(rules, outcomes, { steps: 0 })
}

function initial(declaration: XmlElement): XmlElement {
  const { baseType = 'float', cardinality = 'single' } = declaration.attributes
  const usual = childOf(declaration, 'defaultValue')
  const value = usual && childrenOf(usual, 'value')[0]
  if (value && cardinality === 'single') return element('baseValue', { baseType }, textOf(value).trim())
  return baseType === 'float' || baseType === 'integer' ? { ...nothing } : { ...none }
}

interface Spent {
  steps: number
}

function run(rules: readonly XmlElement[], before: Outcomes, spent: Spent): Outcomes {
  let outcomes = before
  for (const [i, rule] of rules.entries()) {
    if (++spent.steps > mostSteps) throw new Unfolded('Its processing has too many rules.')
    switch (rule.name) {
      case 'setOutcomeValue': {
        const [expression] = childrenOf(rule)
        if (!expression) throw new Unfolded('An outcome is set to nothing.')
        outcomes = new Map(outcomes).set(rule.attributes.identifier ?? '', handy(putInto(expression, outcomes)))
        break
      }
      case 'responseProcessingFragment':
        outcomes = run(childrenOf(rule), outcomes, spent)
        break
      case 'exitResponse':
        return outcomes
      case 'responseCondition': {
        // A branch that leaves skips what follows: then each branch takes the rest along.
        const leaves = within(rule, 'exitResponse').length > 0
        outcomes = branched(rule, leaves ? rules.slice(i + 1) : [], outcomes, spent)
        if (leaves) return outcomes
        break
      }
      default:
        throw new Unfolded(`Its processing uses “${rule.name}”.`)
    }
  }
  return outcomes
}

function branched(rule: XmlElement, rest: readonly XmlElement[], before: Outcomes, spent: Spent): Outcomes {
  const branches = childrenOf(rule).map((branch) => {
    const isElse = branch.name === 'responseElse'
    const parts = childrenOf(branch)
    return {
      condition: isElse ? null : putInto(parts[0] ?? none, before),
      after: run([...(isElse ? parts : parts.slice(1)), ...rest], before, spent),
    }
  })
  const otherwise = branches.find(({ condition }) => condition === null)?.after ?? run(rest, before, spent)
  const conditional = branches.filter((branch): branch is { condition: XmlElement; after: Outcomes } =>
    Boolean(branch.condition),
  )
  const names = new Set([...before.keys(), ...branches.flatMap(({ after }) => [...after.keys()])])
  return new Map(
    [...names].map((name) => {
      const valueIn = (outcomes: Outcomes) => outcomes.get(name) ?? none
      return [
        name,
        handy(
          chosen(
            valueIn(before),
            conditional.map(({ condition, after }) => ({ condition, value: valueIn(after) })),
            valueIn(otherwise),
          ),
        ),
      ]
    }),
  )
}

interface Branch {
  condition: XmlElement
  value: XmlElement
}

/** One value out of branches. What every branch only adds to is taken out before them, so that it stands once. */
function chosen(before: XmlElement, branches: readonly Branch[], otherwise: XmlElement): XmlElement {
  if (otherwise === before && branches.every(({ value }) => value === before)) return before
  for (const [gather, neutral] of [
    ['sum', nothing],
    ['multiple', none],
  ] as const) {
    const added = (value: XmlElement): XmlElement | null => {
      if (value === before) return neutral
      if (value.name !== gather || !value.children.includes(before)) return null
      const rest = value.children.filter((child) => child !== before)
      return rest.length === 1 ? (rest[0] as XmlElement) : element(gather, {}, rest)
    }
    const parts = branches.map(({ condition, value }) => ({ condition, value: added(value) }))
    const last = added(otherwise)
    if (last && parts.every((part): part is Branch => part.value !== null))
      return element(gather, {}, before, chain(parts, last))
  }
  return chain(branches, otherwise)
}

/** What holds in any case needs no condition, and what never holds is left out. */
const chain = (branches: readonly Branch[], otherwise: XmlElement): XmlElement =>
  branches.reduceRight((rest, { condition, value }) => {
    const holds = truthOf(condition)
    return holds === null ? element('choose', {}, condition, value, rest) : holds ? value : rest
  }, otherwise)

function truthOf(node: XmlElement): boolean | null {
  if (node.name !== 'baseValue' || node.attributes.baseType !== 'boolean') return null
  const text = textOf(node).trim()
  return text === 'true' || text === '1' ? true : text === 'false' || text === '0' ? false : null
}

const number = (value: number) => element('baseValue', { baseType: 'float' }, String(value))
function opposite(value: XmlElement): XmlElement {
  const constant = constantOf(value)
  return constant === null ? element('product', {}, number(-1), value) : number(-constant)
}

/** An expression with what outcomes hold by now in their places. Less by something is a sum with its opposite. */
function putInto(expression: XmlElement, outcomes: Outcomes): XmlElement {
  if (expression.name === 'variable') return outcomes.get(expression.attributes.identifier ?? '') ?? expression
  const children = expression.children.map((child) => (typeof child === 'string' ? child : putInto(child, outcomes)))
  if (expression.name === 'subtract') {
    const [from, less] = children.filter((child) => typeof child !== 'string')
    if (from && less) return element('sum', {}, from, opposite(less))
  }
  return children.every((child, i) => child === expression.children[i]) ? expression : { ...expression, children }
}

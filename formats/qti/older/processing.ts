import { childOf, childrenOf, element, textOf, within, type XmlElement } from '../../xml'
import { base, condition, variable, type Reading } from './conditions'

/** The declarations and rules of an item's outcomes, in the elements of 2.x. */
export interface Processing {
  rules: XmlElement[]
  outcomes: XmlElement[]
}

interface Rule {
  when: XmlElement
  then: XmlElement[]
  goesOn: boolean
}

const actions: Record<string, string> = { add: 'sum', subtract: 'sum', multiply: 'product', divide: 'divide' }

/** A value that is set, added, taken away …, of the variable by that name. */
function set(node: XmlElement, name: string): XmlElement {
  const action = (node.attributes.action ?? 'Set').toLowerCase()
  const text = textOf(node).trim()
  const value = base('float', action === 'subtract' ? (text.startsWith('-') ? text.slice(1) : `-${text}`) : text)
  return element(
    'setOutcomeValue',
    { identifier: name },
    Object.hasOwn(actions, action) ? element(actions[action]!, {}, variable(name), value) : value,
  )
}

const show = (node: XmlElement): XmlElement =>
  element(
    'setOutcomeValue',
    { identifier: 'FEEDBACK' },
    element('multiple', {}, variable('FEEDBACK'), base('identifier', node.attributes.linkrefid ?? '')),
  )

/** Conditions one after another: what follows one that ends the processing stands in its "else". */
function chained(rules: readonly Rule[]): XmlElement[] {
  return rules.reduceRight<XmlElement[]>((rest, { when, then, goesOn }) => {
    const first = element('responseIf', {}, when, then)
    if (goesOn) return [element('responseCondition', {}, first), ...rest]
    const [only, ...more] = rest
    if (only && !more.length && only.name === 'responseCondition') {
      const branches = childrenOf(only).map((each) =>
        each.name === 'responseIf' ? { ...each, name: 'responseElseIf' } : each,
      )
      return [element('responseCondition', {}, first, branches)]
    }
    return [element('responseCondition', {}, first, rest.length ? element('responseElse', {}, rest) : null)]
  }, [])
}

/** "If the score is below, or above, then it is this." */
function bound(name: 'lt' | 'gt', limit: number): XmlElement {
  const value = base('float', String(limit))
  const then = element('setOutcomeValue', { identifier: 'SCORE' }, value)
  return element('responseCondition', {}, element('responseIf', {}, element(name, {}, variable('SCORE'), value), then))
}

/** The bounds of a score, where they can be met at all. @param changes how its conditions change it */
function bounds(score: Record<string, string>, changes: readonly XmlElement[]): XmlElement[] {
  const limit = (text: string | undefined) =>
    text === undefined || text.trim() === '' || !Number.isFinite(Number(text)) ? null : Number(text)
  const [least, most] = [limit(score.minvalue), limit(score.maxvalue)]
  let [lowest, highest] = [0, 0]
  const usual = limit(score.defaultval) ?? 0
  for (const node of changes) {
    const action = (node.attributes.action ?? 'Set').toLowerCase()
    const value = Number(textOf(node)) * (action === 'subtract' ? -1 : 1)
    if (!['set', 'add', 'subtract'].includes(action) || !Number.isFinite(value))
      [lowest, highest] = [-Infinity, Infinity]
    else {
      lowest += Math.min(0, value)
      highest += Math.max(0, value)
    }
  }
  return [
    ...(least !== null && Math.min(usual, 0) + lowest < least ? [bound('lt', least)] : []),
    ...(most !== null && Math.max(usual, 0) + highest > most ? [bound('gt', most)] : []),
  ]
}

const outcome = (
  identifier: string,
  cardinality: string,
  baseType: string,
  value?: string,
  normalMaximum?: string,
): XmlElement =>
  element(
    'outcomeDeclaration',
    { identifier, cardinality, baseType, normalMaximum },
    value === undefined || value === '' ? null : element('defaultValue', {}, element('value', {}, value)),
  )

/** How an item is scored. The outcome named SCORE counts, or the first; without a name it is SCORE. */
export function processingIn(item: XmlElement, reading: Reading): Processing {
  const declared = within(item, 'decvar').map(({ attributes }) => attributes)
  const nameIn = ({ varname = 'SCORE' }: Record<string, string>) => varname
  const score = declared.find((each) => nameIn(each) === 'SCORE') ?? declared[0] ?? {}
  const nameOf = (node: XmlElement) => (nameIn(node.attributes) === nameIn(score) ? 'SCORE' : nameIn(node.attributes))
  const before: XmlElement[] = []
  const conditions = within(item, 'respcondition')
  const rules = conditions.map((each): Rule => {
    const asks = childOf(each, 'conditionvar')
    const goesOn = /^yes$/i.test(each.attributes.continue ?? 'No')
    const when = asks ? condition(asks, reading, before) : base('boolean', 'true')
    if (goesOn) before.push(when)
    const then = childrenOf(each).flatMap((node) =>
      node.name === 'setvar' ? [set(node, nameOf(node))] : node.name === 'displayfeedback' ? [show(node)] : [],
    )
    return { when, then, goesOn }
  })
  const changes = conditions.flatMap((each) => childrenOf(each, 'setvar')).filter((each) => nameOf(each) === 'SCORE')
  return {
    rules: [...chained(rules), ...bounds(score, changes)],
    outcomes: [
      outcome('SCORE', 'single', 'float', score.defaultval ?? '0', score.maxvalue),
      ...declared
        .filter((each) => each !== score)
        .map((each) => outcome(nameIn(each), 'single', 'float', each.defaultval ?? '0')),
      outcome('FEEDBACK', 'multiple', 'identifier'),
    ],
  }
}

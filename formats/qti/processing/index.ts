import { Fraction } from '../../../core/kit/exact'
import { childOf, childrenOf, type XmlElement } from '../../xml'
import { variableOf, type Variable } from './declarations'
import type { Memory } from './expressions'
import { NotProven } from './not-proven'
import { runRules } from './rules'
import { templateRules } from './templates'
import { container, isNumber, simpleOf, type Value } from './values'

export { NotProven } from './not-proven'

/** What is answered, by response: each value as QTI writes it ("A", "A B", "12 40"); none is no answer. */
export type Responses = Readonly<Record<string, readonly string[]>>

export interface Processed {
  /** Null where nothing sets it. */
  score: Fraction | null
  /** Outcomes that hold names, such as the feedback that is shown. */
  named(outcome: string): readonly string[]
}

/** Of all runs of one item together. */
const mostSteps = 2_000_000

/**
 * The response processing of an item, ready to be run over answers: a small evaluator of the standard's own rules
 * (1EdTech QTI 2.1 Assessment Test, Section and Item Information Model; 2.2 and 3.0 add no rule), written from memory of it and
 * independent of what reads or writes questions. It never guesses: what it does not know is not proven.
 * @param item in the names of 2.x
 * @throws NotProven
 */
export function processingOf(
  item: XmlElement,
): (responses: Responses, drawn?: ReadonlyMap<string, string>) => Processed {
  const declared = ['responseDeclaration', 'outcomeDeclaration', 'templateDeclaration'].flatMap((name) =>
    childrenOf(item, name).map(variableOf),
  )
  const variables = new Map<string, Variable>(declared.map((each) => [each.identifier, each]))
  const rules = rulesOf(item)
  const template = childOf(item, 'templateProcessing')
  const noughts = noughtsOf(item, variables)
  const left = { steps: mostSteps }
  return (responses, drawn = new Map()) => {
    const memory: Memory = {
      variables,
      values: new Map(declared.map((each) => [each.identifier, each.usual])),
      corrects: new Map(),
      left,
    }
    if (template) makeTemplate(template, memory, drawn)
    for (const [identifier, values] of Object.entries(responses)) {
      const variable = variables.get(identifier)
      if (!variable || variable.type === null) throw new NotProven(`The response “${identifier}” is not declared.`)
      const { type, cardinality } = variable
      memory.values.set(
        identifier,
        container(
          cardinality,
          type,
          values.map((each) => simpleOf(each, type)),
        ),
      )
    }
    for (const [identifier, nought] of noughts) memory.values.set(identifier, nought)
    runRules(rules, memory)
    return {
      score: scoreIn(memory.values.get('SCORE') ?? null),
      named: (outcome) => namesIn(memory.values.get(outcome)),
    }
  }
}

/** An outcome without a default is NULL; a number is 0 (QTI 2.1 §5.2.2). */
const noughtsOf = (item: XmlElement, variables: ReadonlyMap<string, Variable>): [string, Value][] =>
  childrenOf(item, 'outcomeDeclaration').flatMap((each): [string, Value][] => {
    const variable = variables.get(each.attributes.identifier ?? '')
    if (!variable || variable.usual !== null || (variable.type !== 'float' && variable.type !== 'integer')) return []
    return [[variable.identifier, container('single', variable.type, [new Fraction(0)])]]
  })

function rulesOf(item: XmlElement): XmlElement[] {
  const processing = childOf(item, 'responseProcessing')
  if (!processing) throw new NotProven('It says nothing of how it is scored.')
  const own = childrenOf(processing)
  // A template beside rules of its own: the rules are what it stands for (QTI 2.1 §11.2).
  if (own.length) return own
  const address = processing.attributes.template ?? processing.attributes.templateLocation
  if (address === undefined) throw new NotProven('It says nothing of how it is scored.')
  return templateRules(address)
}

/** Values of a template: those that are drawn are given, the rest is computed as it says. */
function makeTemplate(template: XmlElement, memory: Memory, drawn: ReadonlyMap<string, string>): void {
  for (const rule of childrenOf(template)) {
    const text = isChance(rule) ? drawn.get(rule.attributes.identifier ?? '') : undefined
    const variable = memory.variables.get(rule.attributes.identifier ?? '')
    if (rule.name === 'setTemplateValue' && text !== undefined && variable?.type)
      memory.values.set(variable.identifier, container('single', variable.type, [simpleOf(text, variable.type)]))
    else runRules([rule], memory)
  }
}

const isChance = (node: XmlElement): boolean => node.name.startsWith('random') || childrenOf(node).some(isChance)

function scoreIn(value: Value): Fraction | null {
  if (value === null) return null
  const [first] = value.of
  if (first === undefined || !isNumber(first)) throw new NotProven('Its SCORE is not a number.')
  return first
}

const namesIn = (value: Value | undefined): string[] => (value?.of ?? []).filter((each) => typeof each === 'string')

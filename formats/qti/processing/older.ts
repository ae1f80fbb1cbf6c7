import { clamp, Fraction } from '../../../core/kit/exact'
import { childOf, childrenOf, textOf, within, type XmlElement } from '../../xml'
import type { Processed, Responses } from '.'
import { NotProven } from './not-proven'
import { numberOf } from './values'

/**
 * The response processing of an item of QTI 1.2 (IMS Question & Test Interoperability, ASI information model 1.2 §3.5 to §3.8, from
 * memory of it), run as that version writes it and independent of what puts such items into the elements of 2.x. Conditions are true
 * or false, there is no NULL; the first that holds ends the processing unless it says that it goes on.
 */

type Outcomes = ReadonlyMap<string, Fraction>
interface Given {
  responses: Responses
  asked: ReadonlyMap<string, Asked>
  /** A condition before this one held ("other" is none of them). */
  held: boolean
  left: { steps: number }
}

/** Of all runs of one item together. */
const mostSteps = 400_000
type Kind = 'choice' | 'order' | 'text' | 'number'
interface Asked {
  kind: Kind
  /** Whether it may have several values at once. */
  several: boolean
}

const zero = new Fraction(0)
const isYes = (text: string | undefined) => /^yes$/i.test(text ?? 'No')

function kindOf(node: XmlElement): Kind {
  if (node.name === 'response_num') return 'number'
  if (node.name === 'response_str') {
    const drawn = within(node, 'render_fib').map(({ attributes }) => attributes.fibtype ?? 'String')
    return drawn.length && drawn.every((each) => /^(integer|decimal|scientific)$/i.test(each)) ? 'number' : 'text'
  }
  if (node.name === 'response_lid') return /^ordered$/i.test(node.attributes.rcardinality ?? '') ? 'order' : 'choice'
  throw new NotProven(`It asks by “${node.name}”, which is not computed with here.`)
}

const responseNames = ['response_lid', 'response_str', 'response_num', 'response_xy', 'response_grp']

/** @throws NotProven where a test looks at a response that the item does not have */
function valuesOf(node: XmlElement, { responses, asked }: Given): Asked & { name: string; values: readonly string[] } {
  const name = node.attributes.respident ?? ''
  const found = asked.get(name)
  if (!found) throw new NotProven(`Its processing looks at the response “${name.slice(0, 40)}”, which is not there.`)
  return { ...found, name, values: responses[name] ?? [] }
}

const fold = (text: string, node: XmlElement) => (isYes(node.attributes.case) ? text.trim() : text.trim().toLowerCase())

function isEqual(node: XmlElement, given: Given): boolean {
  const { kind, values } = valuesOf(node, given)
  const wanted = textOf(node).trim()
  const { index } = node.attributes
  if (index !== undefined && kind !== 'order') throw new NotProven('It compares by place what has no places.')
  switch (kind) {
    case 'number':
      return values.some((each) => numberOf(each).equals(numberOf(wanted)))
    case 'text':
      return values.some((each) => fold(each, node) === fold(wanted, node))
    case 'choice':
      return values.some((each) => each === wanted)
    case 'order':
      if (index === undefined) throw new NotProven('It compares one thing with a whole order.')
      return values[Number(index) - 1] === wanted
  }
}

const bySize =
  (decide: (order: number) => boolean) =>
  (node: XmlElement, given: Given): boolean => {
    const { kind, values } = valuesOf(node, given)
    if (kind !== 'number') throw new NotProven('It compares the size of what is no number.')
    return values.some((each) => decide(numberOf(each).compare(numberOf(textOf(node)))))
  }

/** Tests one after another of one order are that order, as a whole. */
function asOrder(tests: readonly XmlElement[], given: Given): boolean | null {
  const isPart = ({ name, attributes }: XmlElement) => name === 'varequal' && attributes.index === undefined
  if (tests.length < 2 || !tests.every(isPart)) return null
  const all = tests.map((each) => valuesOf(each, given))
  const { name, values } = all[0]!
  if (all.some((each) => each.kind !== 'order' || each.name !== name)) return null
  return values.length === tests.length && tests.every((each, i) => textOf(each).trim() === values[i])
}

/** All of them; the standard does not say what two values of a response are that can have only one. */
function every(tests: readonly XmlElement[], given: Given): boolean {
  const order = asOrder(tests, given)
  if (order !== null) return order
  const met = new Set<string>()
  for (const test of tests) {
    if (test.name !== 'varequal' || test.attributes.index !== undefined) continue
    const { name, several } = valuesOf(test, given)
    if (met.has(name) && !several)
      throw new NotProven('A condition of it names several values at once for what has only one.')
    met.add(name)
  }
  return tests.map((each) => holds(each, given)).every(Boolean)
}

type Test = (node: XmlElement, given: Given) => boolean
const known = new Map<string, Test>(
  Object.entries({
    conditionvar: (node, given) => every(childrenOf(node), given),
    and: (node, given) => every(childrenOf(node), given),
    or: (node, given) =>
      childrenOf(node)
        .map((each) => holds(each, given))
        .some(Boolean),
    not(node, given) {
      const [only, ...more] = childrenOf(node)
      if (!only || more.length) throw new NotProven('It turns several conditions round at once.')
      return !holds(only, given)
    },
    other: (_, { held }) => !held,
    unanswered: (node, given) => valuesOf(node, given).values.length === 0,
    varequal: isEqual,
    varsubstring(node, given) {
      const { kind, values } = valuesOf(node, given)
      if (kind !== 'text') throw new NotProven('It looks for a part of what is no text.')
      return values.some((each) => fold(each, node).includes(fold(textOf(node), node)))
    },
    vargt: bySize((order) => order > 0),
    vargte: bySize((order) => order >= 0),
    varlt: bySize((order) => order < 0),
    varlte: bySize((order) => order <= 0),
  } satisfies Record<string, Test>),
)

function holds(node: XmlElement, given: Given): boolean {
  if (--given.left.steps < 0) throw new NotProven('Its processing is too long to be computed.')
  const test = known.get(node.name)
  if (!test) throw new NotProven(`A condition of it uses “${node.name}”, which is not known here.`)
  return test(node, given)
}

const actions = new Map<string, (before: Fraction, value: Fraction) => Fraction>([
  ['set', (_, value) => value],
  ['add', (before, value) => before.add(value)],
  ['subtract', (before, value) => before.sub(value)],
  ['multiply', (before, value) => before.mul(value)],
  [
    'divide',
    (before, value) => {
      if (value.equals(0)) throw new NotProven('It divides by nothing.')
      return before.div(value)
    },
  ],
])

interface Bounds {
  least: Fraction | null
  most: Fraction | null
}
const numberIn = (text: string | undefined) => (text === undefined || text.trim() === '' ? null : numberOf(text))

const bounded = (value: Fraction, { least, most }: Bounds): Fraction => clamp(least ?? value, value, most ?? value)

/** The outcome that is the item's score: the one of that name, or the only one. @throws NotProven */
function scoreOf(item: XmlElement): { name: string; usual: Fraction; bounds: Bounds } {
  const declared = within(item, 'decvar').map(({ attributes }) => attributes)
  const nameOf = ({ varname = 'SCORE' }: Record<string, string>) => varname
  const own = declared.find((each) => nameOf(each) === 'SCORE') ?? (declared.length === 1 ? declared[0]! : null)
  if (!own && declared.length) throw new NotProven('It has several outcomes, and none of them is named SCORE.')
  if (own && !/^(integer|decimal|scientific)$/i.test(own.vartype ?? 'Integer'))
    throw new NotProven('Its score is not a number.')
  return {
    name: own ? nameOf(own) : 'SCORE',
    usual: numberIn(own?.defaultval) ?? zero,
    bounds: { least: numberIn(own?.minvalue), most: numberIn(own?.maxvalue) },
  }
}

/**
 * @param item of 1.2, as it stands in its file
 * @throws NotProven
 */
export function olderProcessingOf(item: XmlElement): (responses: Responses) => Processed {
  const [processing, ...more] = childrenOf(item, 'resprocessing')
  if (!processing) throw new NotProven('It says nothing of how it is scored.')
  if (more.length) throw new NotProven('It is scored in several ways, one beside the other.')
  if (within(item, 'itemproc_extension').length) throw new NotProven('It is scored by an extension of some program.')
  const asked = new Map<string, Asked>()
  for (const node of responseNames.flatMap((name) => within(childOf(item, 'presentation') ?? item, name))) {
    const several = /^multiple$/i.test(node.attributes.rcardinality ?? '')
    asked.set(node.attributes.ident ?? '', { kind: kindOf(node), several })
  }
  const left = { steps: mostSteps }
  const score = scoreOf(processing)
  const conditions = childrenOf(processing).filter(({ name }) => name !== 'outcomes')
  const strange = conditions.find(({ name }) => name !== 'respcondition')
  if (strange) throw new NotProven(`Its processing uses “${strange.name}”, which is not known here.`)

  const run = (responses: Responses, bound: (value: Fraction) => Fraction) => {
    let outcomes: Outcomes = new Map([[score.name, score.usual]])
    const shown: string[] = []
    let held = false
    for (const condition of conditions) {
      const when = childOf(condition, 'conditionvar')
      if (when && !holds(when, { responses, asked, held, left })) continue
      held = true
      for (const node of childrenOf(condition)) {
        if (node.name === 'setvar') {
          const name = node.attributes.varname ?? 'SCORE'
          const action = actions.get((node.attributes.action ?? 'Set').toLowerCase())
          if (!action) throw new NotProven('It changes an outcome in a way that is not known here.')
          if (name !== score.name && node.attributes.varname === undefined)
            throw new NotProven('It sets an outcome without saying which.')
          const value = action(outcomes.get(name) ?? zero, numberOf(textOf(node)))
          outcomes = new Map(outcomes).set(name, name === score.name ? bound(value) : value)
        } else if (node.name === 'displayfeedback') shown.push(node.attributes.linkrefid ?? '')
        else if (node.name !== 'conditionvar' && node.name !== 'qticomment')
          throw new NotProven(`Its processing uses “${node.name}”, which is not known here.`)
      }
      if (!isYes(condition.attributes.continue)) break
    }
    return { score: bounded(outcomes.get(score.name) ?? zero, score.bounds), shown }
  }
  return (responses) => {
    // The standard does not say whether the bounds hold at each step or at the end: it matters seldom, and then nobody knows.
    const atEnd = run(responses, (value) => value)
    const atSteps = run(responses, (value) => bounded(value, score.bounds))
    if (!atEnd.score.equals(atSteps.score))
      throw new NotProven('Its score depends on when its bounds hold, which the standard does not say.')
    return { score: atEnd.score, named: () => atEnd.shown }
  }
}

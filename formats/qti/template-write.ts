import { exact } from '../../core/kit/exact'
import { treeOf } from '../../core/question/vary/tree'
import { decode } from '../../core/question/vary/instance'
import { placeholder, type Variable, type Vary } from '../../core/question/vary/schema'
import { element, isElement, writeXml, type XmlElement } from '../xml'
import { NotSayable, writeExpression } from './expressions'

type Node = XmlElement | string
const value = (text: string, baseType: string) => element('baseValue', { baseType }, text)
const isInteger = (text: string) => /^-?\d+$/.test(text)
const isNumber = (text: string) => /^-?\d+(\.\d+)?$/.test(text)

/** What a variable takes its value from, with its type. */
function source({ over }: Variable): { baseType: string; from: XmlElement } {
  if (over.by === 'computed') return { baseType: 'float', from: writeExpression(treeOf(over.as)) }
  if (over.by === 'list') {
    const baseType = over.values.every(isInteger) ? 'integer' : over.values.every(isNumber) ? 'float' : 'string'
    return {
      baseType,
      from: element(
        'random',
        {},
        element(
          'multiple',
          {},
          over.values.map((each) => value(each, baseType)),
        ),
      ),
    }
  }
  if ([over.from, over.to, over.step].every(isInteger))
    return { baseType: 'integer', from: element('randomInteger', { min: over.from, max: over.to, step: over.step }) }
  const steps = exact(over.to).sub(exact(over.from)).div(exact(over.step)).floor().toString()
  return {
    baseType: 'float',
    from: element(
      'sum',
      {},
      value(over.from, 'float'),
      element('product', {}, value(over.step, 'float'), element('randomInteger', { min: 0, max: steps })),
    ),
  }
}

const placeholders = new RegExp(placeholder.source, 'g')

/** Computations of texts and keys become variables of the template, each once. */
class Computed {
  readonly made = new Map<string, { name: string; from: XmlElement }>()
  constructor(private readonly vary: Vary) {}

  /** The variable that holds a computation; rounded where it is a key that says to how many decimals. */
  nameFor(written: string, decimals?: string): string {
    const plain = decode(written)
    if (decimals === undefined && this.vary.variables.some((variable) => variable.name === plain)) return plain
    const key = `${plain};${decimals ?? ''}`
    const known = this.made.get(key)
    if (known) return known.name
    const taken = new Set([
      ...this.vary.variables.map((variable) => variable.name),
      ...[...this.made.values()].map((each) => each.name),
    ])
    const name = Array.from({ length: 200 }, (_, i) => `computed${i + 1}`).find((each) => !taken.has(each))!
    const from = writeExpression(treeOf(plain))
    this.made.set(key, {
      name,
      from:
        decimals === undefined ? from : element('roundTo', { roundingMode: 'decimalPlaces', figures: decimals }, from),
    })
    return name
  }
}

function printed(text: string, computed: Computed): Node[] {
  const parts: Node[] = []
  let from = 0
  for (const found of text.matchAll(placeholders)) {
    parts.push(
      text.slice(from, found.index),
      element('printedVariable', {
        identifier: computed.nameFor(found[1]!),
        format: found[2] === undefined ? null : `%.${found[2]}f`,
      }),
    )
    from = found.index + found[0].length
  }
  return [...parts, text.slice(from)].filter((part) => part !== '')
}

const whole = (text: string) => new RegExp(`^${placeholders.source}$`).exec(text.trim())

function templated(node: XmlElement, computed: Computed): XmlElement {
  if (node.name === 'baseValue' && node.children.length === 1 && !isElement(node.children[0]!)) {
    const found = whole(node.children[0]!)
    if (found) return element('variable', { identifier: computed.nameFor(found[1]!, found[2]) })
  }
  return {
    ...node,
    children: node.children.flatMap((child) =>
      isElement(child) ? [templated(child, computed)] : printed(child, computed),
    ),
  }
}

/** Takes computed keys out of a response's declaration; they are set when a paper is made. */
function withoutKey(declaration: XmlElement, computed: Computed): { declaration: XmlElement; sets: XmlElement[] } {
  const correct = declaration.children.find(
    (child): child is XmlElement => isElement(child) && child.name === 'correctResponse',
  )
  const found = correct
    ? whole(correct.children.map((child) => (isElement(child) ? child.children.join('') : '')).join(''))
    : null
  if (!found) return { declaration, sets: [] }
  return {
    declaration: { ...declaration, children: declaration.children.filter((child) => child !== correct) },
    sets: [
      element(
        'setCorrectResponse',
        { identifier: declaration.attributes.identifier },
        element('variable', { identifier: computed.nameFor(found[1]!, found[2]) }),
      ),
    ],
  }
}

/**
 * An item of a varying question with a template of its own (QTI templateDeclaration, templateProcessing).
 * @param item as written with its computations unfilled, in the names of 2.x
 * @throws NotSayable | ExpressionError where QTI has no words for something
 */
export function withTemplate(item: XmlElement, vary: Vary): XmlElement {
  const computed = new Computed(vary)
  const responses = item.children
    .filter((child): child is XmlElement => isElement(child) && child.name === 'responseDeclaration')
    .map((each) => withoutKey(each, computed))
  const rest = item.children.filter(
    (child): child is XmlElement => isElement(child) && child.name !== 'responseDeclaration',
  )
  const body = rest.filter((each) => each.name !== 'outcomeDeclaration').map((each) => templated(each, computed))
  const outcomes = rest.filter((each) => each.name === 'outcomeDeclaration')
  const variables = vary.variables.map((variable) => ({ name: variable.name, ...source(variable) }))
  const extra = [...computed.made.values()].map((each) => ({ ...each, baseType: 'float' }))
  const declare = ({ name, baseType }: { name: string; baseType: string }) =>
    element('templateDeclaration', { identifier: name, cardinality: 'single', baseType })
  const set = ({ name, from }: { name: string; from: XmlElement }) =>
    element('setTemplateValue', { identifier: name }, from)
  const processing = element(
    'templateProcessing',
    {},
    variables.map(set),
    vary.conditions.map((condition) => element('templateConstraint', {}, writeExpression(treeOf(condition)))),
    extra.map(set),
    responses.flatMap(({ sets }) => sets),
  )
  const result = {
    ...item,
    children: [
      ...responses.map(({ declaration }) => declaration),
      ...outcomes,
      ...[...variables, ...extra].map(declare),
      processing,
      ...body,
    ],
  }
  if (writeXml(result).includes('{=')) throw new NotSayable('A computation stands where QTI has none.')
  return result
}

import { exact } from '../../core/kit/exact'
import { nearestNumberText, numberTextOf } from '../../core/kit/number-text'
import type { Vary } from '../../core/question/vary/schema'
import { sourceOf, type Tree } from '../../core/question/vary/tree'
import { UnreadableFile } from '../bundle'
import { childOf, childrenOf, element, isElement, textOf, type XmlElement } from '../xml'
import { nameFor, NotSayable, readExpression } from './expressions'

/** A bound of a range, or what the standard takes where none is given. @throws UnreadableFile for a bound that is no number */
function boundOf(text: string | undefined, usual: string): string {
  if (text === undefined) return usual
  const found = numberTextOf(text)
  if (found !== null) return found
  throw new UnreadableFile(`Its template draws from a range bounded by “${text.slice(0, 40)}”, which is not a number.`)
}

/** A value that a template draws, or computes. */
function overOf(node: XmlElement, notes: Set<string>): Vary['variables'][number]['over'] {
  if (node.name === 'randomInteger')
    return {
      by: 'range',
      from: boundOf(node.attributes.min, '0'),
      to: boundOf(node.attributes.max, '0'),
      step: boundOf(node.attributes.step, '1'),
    }
  if (node.name === 'randomFloat') {
    const [from, to] = [boundOf(node.attributes.min, '0'), boundOf(node.attributes.max, '0')]
    notes.add('A number drawn from a whole range goes in a hundred steps here.')
    const step = exact(to).sub(exact(from)).div(100)
    if (step.compare(0) <= 0) throw new UnreadableFile('Its template draws from a range that holds no number.')
    return { by: 'range', from, to, step: nearestNumberText(step, true) }
  }
  const [inner] = childrenOf(node)
  if (node.name === 'random' && inner && ['multiple', 'ordered'].includes(inner.name))
    return {
      by: 'list',
      values: childrenOf(inner)
        .map((each) => textOf(each).trim())
        .filter(Boolean)
        .slice(0, 200),
    }
  const stepped = steppedRange(node)
  return stepped ?? { by: 'computed', as: sourceOf(readExpression(node)) }
}

/** from + step × a random integer from 0: a range in decimals, as Thistle writes it. */
function steppedRange(node: XmlElement): Vary['variables'][number]['over'] | null {
  const [start, product] = childrenOf(node)
  if (node.name !== 'sum' || start?.name !== 'baseValue' || product?.name !== 'product') return null
  const [step, random] = childrenOf(product)
  if (step?.name !== 'baseValue' || random?.name !== 'randomInteger' || boundOf(random.attributes.min, '0') !== '0')
    return null
  const [from, by, n] = [textOf(start), textOf(step), random.attributes.max].map((text) => boundOf(text, '0')) as [
    string,
    string,
    string,
  ]
  return { by: 'range', from, to: nearestNumberText(exact(from).add(exact(by).mul(exact(n)))), step: by }
}

interface Template {
  vary: Vary
  /** By response: the computation of its key. */ keys: Map<string, string>
  /** Names that are nothing but a computation, by name. */ computed: Map<string, string>
}

function readTemplate(processing: XmlElement, notes: Set<string>): Template {
  const variables: Vary['variables'] = []
  const conditions: string[] = []
  const keys = new Map<string, string>()
  for (const rule of childrenOf(processing)) {
    const [first] = childrenOf(rule)
    if (!first) continue
    if (rule.name === 'setTemplateValue')
      variables.push({ name: nameFor(rule.attributes.identifier ?? ''), over: overOf(first, notes) })
    else if (rule.name === 'templateConstraint') conditions.push(sourceOf(readExpression(first)))
    else if (rule.name === 'setCorrectResponse')
      keys.set(rule.attributes.identifier ?? '', sourceOf(readExpression(first)))
    else throw new UnreadableFile(`Its template uses “${rule.name}”, which has no like here.`)
  }
  const names = variables.map((variable) => variable.name)
  if (new Set(names).size < names.length) throw new UnreadableFile('Its template sets a variable twice.')
  // What only holds a computation is put back into the place where it is used.
  const computed = new Map(
    variables.flatMap(({ name, over }) =>
      /^computed\d+$/.test(name) && over.by === 'computed' ? [[name, over.as]] : [],
    ),
  )
  return { vary: { variables: variables.filter(({ name }) => !computed.has(name)), conditions }, keys, computed }
}

/** A computation for a text: with decimals where it is rounded to some. */
function placeholderFor(name: string, decimals: string | undefined, { computed }: Template): string {
  const source = computed.get(name) ?? name
  const rounded = decimals === undefined ? /^round\((.*), (\d+)\)$/.exec(source) : null
  return rounded
    ? `{= ${rounded[1]!} ; ${rounded[2]!} }`
    : `{= ${source}${decimals === undefined ? '' : ` ; ${decimals}`} }`
}

/** Decimals of "%.2f" (QTI 2.1 §5.1 printedVariable, as C prints); of whole numbers and texts as they are. */
function decimalsIn({ attributes }: XmlElement, notes: Set<string>): string | undefined {
  const { format = '%s', base = '10', powerForm, index, field, delimiter } = attributes
  const decimals = /^%\d*\.(\d+)f$/.exec(format.trim())?.[1]
  const isPlain = decimals !== undefined || /^%[ids]$/.test(format.trim())
  if (!isPlain || base !== '10' || powerForm === 'true' || index || field || delimiter)
    notes.add('A number of it is printed in a form of its own (an exponent, another base), which is not kept.')
  return decimals
}

/**
 * An item with a template, as one whose texts and keys hold Thistle's computations, and how it varies.
 * @returns null for an item without a template
 * @throws UnreadableFile with the reason when its template says what has no like here
 */
export function withoutTemplate(item: XmlElement, notes: Set<string>): { item: XmlElement; vary: Vary } | null {
  const processing = childOf(item, 'templateProcessing')
  if (!processing && !childOf(item, 'templateDeclaration')) return null
  if (!processing) throw new UnreadableFile('Its template gives its variables no values.')
  try {
    const template = readTemplate(processing, notes)
    const names = new Set([...template.vary.variables.map(({ name }) => name), ...template.computed.keys()])
    const key = (tree: Tree) => placeholderFor(tree.is === 'name' ? tree.name : sourceOf(tree), undefined, template)
    const replaced = (node: XmlElement, inProcessing: boolean): XmlElement | string => {
      if (node.name === 'printedVariable')
        return placeholderFor(nameFor(node.attributes.identifier ?? ''), decimalsIn(node, notes), template)
      if (inProcessing && node.name === 'variable' && names.has(nameFor(node.attributes.identifier ?? '')))
        return element(
          'baseValue',
          { baseType: 'float' },
          key({ is: 'name', name: nameFor(node.attributes.identifier!) }),
        )
      return {
        ...node,
        children: joined(
          node.children.map((child) =>
            isElement(child) ? replaced(child, inProcessing || node.name === 'responseProcessing') : child,
          ),
        ),
      }
    }
    const children = item.children
      .filter((child): child is XmlElement => isElement(child) && !child.name.startsWith('template'))
      .map((child) => {
        const set =
          child.name === 'responseDeclaration' ? template.keys.get(child.attributes.identifier ?? '') : undefined
        if (set === undefined) return replaced(child, false)
        const rest = child.children.filter((each) => !isElement(each) || each.name !== 'correctResponse')
        return {
          ...child,
          children: [
            element('correctResponse', {}, element('value', {}, placeholderFor(set, undefined, template))),
            ...rest,
          ],
        }
      })
    return { item: { ...item, children }, vary: template.vary }
  } catch (error) {
    if (error instanceof NotSayable) throw new UnreadableFile(`Its template: ${error.message}`)
    throw error
  }
}

/** Neighbouring texts as one. */
function joined(children: (XmlElement | string)[]): (XmlElement | string)[] {
  const result: (XmlElement | string)[] = []
  for (const child of children) {
    const last = result.at(-1)
    if (typeof child === 'string' && typeof last === 'string') result[result.length - 1] = last + child
    else result.push(child)
  }
  return result
}

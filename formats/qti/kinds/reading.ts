import type { Question } from '../../../core/question'
import { isId } from '../../../core/question/kinds/options'
import type { Shape } from '../../../core/kit/shapes'
import { UnreadableFile } from '../../bundle'
import { childOf, childrenOf, textOf, type XmlElement } from '../../xml'
import type { ReadingContent } from '../content/read'
import type { Responses } from '../processing'
import { isReadable, worthOf } from '../scoring/chosen'
import type { Score } from '../scoring/terms'

export interface Declaration {
  identifier: string
  cardinality: string
  baseType: string
  correct: string[]
  mapping: Mapping | null
  areas: { shape: Shape | null; value: number }[]
  /** What a point in no area earns. */
  wrong: number
}

interface Mapping {
  entries: { key: string; value: number; caseSensitive: boolean }[]
  lower: number | null
  upper: number | null
  wrong: number
}

/** What is being read of an item. */
export interface Context extends ReadingContent {
  item: XmlElement
  body: XmlElement
  declarations: ReadonlyMap<string, Declaration>
  /** What its processing makes of SCORE, as a sum; null where that cannot be said. */
  score: Score | null
}

/** A question that was found, what it is worth in the file, and how an answer to it is written in the file. */
export interface Found extends Pick<Question, 'kind' | 'body'> {
  /** The greatest score that its key gives. */
  most: number
  responses: (answer: never) => Responses
}

/** Its kind and body match by how they are made. */
export const found = (
  kind: Question['kind'],
  body: unknown,
  most: number,
  responses: (answer: never) => Responses,
): Found => ({ kind, body, most: most > 0 ? most : 1, responses }) as Found

export const numeric = (text: string | undefined, usual = 0) =>
  text === undefined || text === '' || Number.isNaN(Number(text)) ? usual : Number(text)

export const hundredths = (value: number) => Math.round(value * 100) / 100
/** A share of the most that can be had, from −1 to 1, in hundredths. */
export const creditOf = (worth: number, most: number) =>
  most > 0 ? Math.max(-1, Math.min(1, hundredths(worth / most))) : 0

export const refuse = (sentence: string): never => {
  throw new UnreadableFile(sentence)
}

const ellipse = (x: number, y: number, h: number, v: number): Shape => ({
  is: 'polygon',
  points: Array.from({ length: 48 }, (_, i) => ({
    x: Math.max(0, x + h * Math.cos((i * Math.PI) / 24)),
    y: Math.max(0, y + v * Math.sin((i * Math.PI) / 24)),
  })),
})

/** An area as a region of a picture; null for one that has no like. @param whole the size of the picture, for the shape “default” */
export function shapeOf(node: XmlElement, whole?: { width: number; height: number }): Shape | null {
  const numbers = (node.attributes.coords ?? '')
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(Number)
  if (node.attributes.shape === 'default')
    return whole?.width && whole.height ? { is: 'rectangle', x: 0, y: 0, ...whole } : null
  if (numbers.some((each) => !Number.isFinite(each) || each < 0)) return null
  const [a, b, c, d] = numbers as [number, number, number, number]
  switch (node.attributes.shape) {
    case 'circle':
      return numbers.length === 3 && c >= 1 ? { is: 'circle', x: a, y: b, r: c } : null
    case 'ellipse':
      return numbers.length === 4 ? ellipse(a, b, c, d) : null
    case 'rect':
      return numbers.length === 4 && c - a >= 1 && d - b >= 1
        ? { is: 'rectangle', x: a, y: b, width: c - a, height: d - b }
        : null
    case 'poly':
      return numbers.length >= 6 && numbers.length % 2 === 0
        ? { is: 'polygon', points: numbers.flatMap((x, i) => (i % 2 ? [] : [{ x, y: numbers[i + 1]! }])) }
        : null
    default:
      return null
  }
}

export function declarationOf(node: XmlElement): Declaration {
  const mapping = childOf(node, 'mapping')
  const areas = childOf(node, 'areaMapping')
  const correct = childOf(node, 'correctResponse')
  const baseType = node.attributes.baseType ?? 'identifier'
  const tidy = (text: string) => (baseType.endsWith('air') ? text.trim().split(/\s+/).join(' ') : text.trim())
  return {
    identifier: node.attributes.identifier ?? 'RESPONSE',
    cardinality: node.attributes.cardinality ?? 'single',
    baseType,
    correct: correct ? childrenOf(correct, 'value').map((each) => tidy(textOf(each))) : [],
    mapping: mapping
      ? {
          entries: childrenOf(mapping, 'mapEntry').map((entry) => ({
            key: tidy(entry.attributes.mapKey ?? ''),
            value: numeric(entry.attributes.mappedValue),
            caseSensitive: entry.attributes.caseSensitive !== 'false',
          })),
          lower: mapping.attributes.lowerBound === undefined ? null : numeric(mapping.attributes.lowerBound),
          upper: mapping.attributes.upperBound === undefined ? null : numeric(mapping.attributes.upperBound),
          wrong: numeric(mapping.attributes.defaultValue),
        }
      : null,
    areas: areas
      ? childrenOf(areas, 'areaMapEntry').map((entry) => ({
          shape: shapeOf(entry),
          value: numeric(entry.attributes.mappedValue),
        }))
      : [],
    wrong: numeric(areas?.attributes.defaultValue),
  }
}

export const declared = (context: Context, node: XmlElement): Declaration =>
  context.declarations.get(node.attributes.responseIdentifier ?? '') ??
  refuse('An interaction answers a response that is not declared.')

const byKeyAlone = 'Its own processing of the response has no like here: it is scored by its key.'

/** The item's processing as far as it can be read of names that are chosen; null where it cannot, which is told. */
function scoreOf(context: Context, response: Declaration): Score | null {
  if (!context.score || isReadable(context.score, response)) return context.score
  context.notes.add(byKeyAlone)
  return null
}

/** What choosing some names earns: by the processing, or by the key alone where that cannot be read. */
export function worthBy(context: Context, response: Declaration): (names: readonly string[]) => number {
  const score = scoreOf(context, response)
  if (score) return (names) => worthOf(score, response, names)
  return (names) =>
    response.mapping && !response.correct.length
      ? names.reduce(
          (sum, name) =>
            sum + (response.mapping!.entries.find(({ key }) => key === name)?.value ?? response.mapping!.wrong),
          0,
        )
      : Number(names.length === response.correct.length && names.every((name) => response.correct.includes(name)))
}

/**
 * The names that have to be chosen for everything, where anything else earns nothing: one condition on the whole answer.
 * Null where parts of it count.
 */
export function wholeKey(context: Context, response: Declaration): readonly string[] | null {
  const score = scoreOf(context, response)
  if (!score) return response.mapping && !response.correct.length ? null : response.correct
  const own = score.terms.filter((term) => term.responses.includes(response.identifier))
  const [only] = own
  if (own.length !== 1 || only!.node.name !== 'choose') return null
  const [condition, , otherwise] = childrenOf(only!.node)
  return otherwise?.name === 'choose' ? null : keyIn(condition!, response)
}

function keyIn(condition: XmlElement, response: Declaration): readonly string[] | null {
  const parts = childrenOf(condition)
  const named = (node: XmlElement): string[] =>
    node.name === 'baseValue' ? [textOf(node).trim().split(/\s+/).join(' ')] : childrenOf(node).flatMap(named)
  if (condition.name === 'match') {
    const other = parts.find((each) => each.name !== 'variable')
    return other?.name === 'correct' ? response.correct : other ? named(other) : null
  }
  if (condition.name !== 'and') return null
  // "This one, and that one, and not the others, and two in all": each of them by itself.
  const key = parts.map((each) =>
    each.name === 'member'
      ? named(each)
      : (each.name === 'not' && childrenOf(each)[0]?.name === 'member') || countIn(each) !== null
        ? []
        : null,
  )
  if (key.some((each) => each === null)) return null
  const names = key.flatMap((each) => each!)
  return parts.every((each) => (countIn(each) ?? names.length) === names.length) ? names : null
}
/** How many a condition wants to be chosen; null where it wants something else. */
function countIn(node: XmlElement): number | null {
  const [a, b] = childrenOf(node)
  const [size, number] = a?.name === 'containerSize' ? [a, b] : [b, a]
  return (node.name === 'equal' || node.name === 'match') &&
    size?.name === 'containerSize' &&
    number?.name === 'baseValue'
    ? numeric(textOf(number), -1)
    : null
}

/** An id here for every name in a file: the name itself where it can be one; names that differ stay apart. */
export function idsFor(written: readonly string[], letter = 'c'): Map<string, string> {
  const ids = new Map<string, string>()
  const taken = new Set(written.filter((name) => isId(name)))
  written.forEach((name, i) => {
    if (ids.has(name)) refuse(`Two of its choices have the same name: “${name.slice(0, 40)}”.`)
    let id = isId(name) ? name : `${letter}${i + 1}`
    while (!isId(name) && taken.has(id)) id += 'x'
    taken.add(id)
    ids.set(name, id)
  })
  return ids
}

/** What the file calls something by the id that it has here. */
export const namesBack = (ids: ReadonlyMap<string, string>): ((id: string) => string[]) => {
  const back = new Map([...ids].map(([name, id]) => [id, name]))
  return (id) => (back.has(id) ? [back.get(id)!] : [])
}

import { childrenOf, textOf, type XmlElement } from '../../xml'
import type { Declaration } from '../kinds/reading'
import { constantOf, type Score } from './terms'

/** Names that are chosen of one response, and how it is declared: all that a reader of choices has to know. */
export interface Chosen {
  response: Declaration
  names: readonly string[]
}
type Read = boolean | number | readonly string[]

/** Something that a reader of choices cannot make out. */
export class NotRead extends Error {
  override name = 'NotRead'
}

/** Without the bounds of the mapping: they hold for whole answers, and are read beside. */
function sum(names: readonly string[], { mapping }: Declaration): number {
  if (!mapping) throw new NotRead('There is no mapping.')
  return [...new Set(names)].reduce(
    (total, name) => total + (mapping.entries.find((entry) => entry.key === name)?.value ?? mapping.wrong),
    0,
  )
}

const list = (read: Read): readonly string[] => (Array.isArray(read) ? (read as string[]) : [String(read)])
const sameSet = (a: readonly string[], b: readonly string[], ordered: boolean) =>
  a.length === b.length && a.every((each, i) => (ordered ? b[i] === each : b.includes(each)))

/** What an expression over chosen names comes to: all of it is looked at, so that it can be read for every choice or for none. @throws NotRead for what choosing has nothing to do with */
function read(node: XmlElement, chosen: Chosen): Read {
  const parts = childrenOf(node)
  const of = (i: number) => {
    if (!parts[i]) throw new NotRead(`“${node.name}” lacks something.`)
    return read(parts[i], chosen)
  }
  const truth = (i: number) => of(i) === true
  const { response, names } = chosen
  if (node.attributes.identifier !== undefined && node.attributes.identifier !== response.identifier)
    throw new NotRead('It looks at another response.')
  switch (node.name) {
    case 'baseValue':
      if (node.attributes.baseType === 'boolean') return /^(true|1)$/.test(textOf(node).trim())
      return node.attributes.baseType === 'float' || node.attributes.baseType === 'integer'
        ? (constantOf(node) ?? 0)
        : [textOf(node).trim()]
    case 'variable':
      return names
    case 'correct':
      return response.correct
    case 'mapResponse':
      return sum(names, response)
    case 'null':
      return []
    case 'multiple':
    case 'ordered':
      return parts.flatMap((_, i) => list(of(i)))
    case 'isNull':
      return list(of(0)).length === 0
    case 'containerSize':
      return list(of(0)).length
    case 'match':
      return sameSet(list(of(0)), list(of(1)), response.cardinality === 'ordered') && names.length > 0
    case 'member':
      return list(of(1)).includes(list(of(0))[0] ?? '')
    case 'contains':
      return [list(of(0))].every((all) => list(of(1)).every((each) => all.includes(each)))
    case 'not':
      return !truth(0)
    case 'and':
      return parts.map((_, i) => truth(i)).every(Boolean)
    case 'or':
      return parts.map((_, i) => truth(i)).some(Boolean)
    case 'gte':
      return Number(of(0)) >= Number(of(1))
    case 'gt':
      return Number(of(0)) > Number(of(1))
    case 'lte':
      return Number(of(0)) <= Number(of(1))
    case 'lt':
      return Number(of(0)) < Number(of(1))
    case 'equal':
      return Number(of(0)) === Number(of(1))
    case 'choose': {
      const [then, otherwise] = [of(1), of(2)]
      return truth(0) ? then : otherwise
    }
    case 'sum':
      return parts.reduce((total, _, i) => total + Number(of(i)), 0)
    case 'product':
      return parts.reduce((total, _, i) => total * Number(of(i)), 1)
    default:
      throw new NotRead(`“${node.name}” is nothing that choosing is scored by.`)
  }
}

/** What choosing some names earns by the terms of a score that look at one response, without its bounds. @throws NotRead */
export function worthOf(score: Score, response: Declaration, names: readonly string[]): number {
  const own = score.terms.filter((term) => term.responses.includes(response.identifier))
  return own.reduce((total, { factor, node }) => total + factor * Number(read(node, { response, names })), 0)
}

/** Whether a score can be read as one of chosen names at all. */
export function isReadable(score: Score, response: Declaration): boolean {
  try {
    worthOf(score, response, [])
    return true
  } catch (error) {
    if (error instanceof NotRead) return false
    throw error
  }
}

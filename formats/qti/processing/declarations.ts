import type { Fraction } from '../../../core/kit/exact'
import { childOf, childrenOf, textOf, type XmlElement } from '../../xml'
import { isTrue } from './operators/operator'
import {
  baseTypeOf,
  container,
  numberOf,
  simpleOf,
  type BaseType,
  type Container,
  type Simple,
  type Value,
} from './values'

/** What a declaration of an item says of a variable, for computing with it. */
export interface Variable {
  identifier: string
  cardinality: Container['cardinality']
  /** Null for a type that is never an answer here; it is told when something asks for the value. */
  type: BaseType | null
  usual: Value
  correct: Value
  mapping: Mapping | null
  areas: { entries: { area: XmlElement; value: Fraction }[]; bounds: Bounds } | null
  /** Of an outcome: a table from numbers to values. */
  table: XmlElement | null
}

interface Bounds {
  usual: Fraction
  lower: Fraction | null
  upper: Fraction | null
}
export interface Mapping {
  entries: { key: Simple; value: Fraction; caseMatters: boolean }[]
  bounds: Bounds
}

const bound = (text: string | undefined) => (text === undefined ? null : numberOf(text))
const boundsOf = ({ attributes }: XmlElement): Bounds => ({
  usual: numberOf(attributes.defaultValue ?? '0'),
  lower: bound(attributes.lowerBound),
  upper: bound(attributes.upperBound),
})

function mappingOf(node: XmlElement | undefined, type: BaseType): Mapping | null {
  if (!node) return null
  return {
    entries: childrenOf(node, 'mapEntry').map(({ attributes }) => ({
      key: simpleOf(attributes.mapKey ?? '', type),
      value: numberOf(attributes.mappedValue ?? ''),
      caseMatters: isTrue(attributes.caseSensitive, true),
    })),
    bounds: boundsOf(node),
  }
}

/** A declaration of a response, an outcome or a variable of a template. @throws NotProven */
export function variableOf(node: XmlElement): Variable {
  const written = node.attributes.cardinality ?? 'single'
  const cardinality = written === 'multiple' || written === 'ordered' ? written : 'single'
  const areas = childOf(node, 'areaMapping')
  const type = node.attributes.baseType === undefined ? null : attempted(() => baseTypeOf(node.attributes.baseType))
  const listed = (name: string): Value => {
    const values = childOf(node, name)
    if (!values || type === null) return null
    return container(
      cardinality,
      type,
      childrenOf(values, 'value').map((each) => simpleOf(textOf(each), type)),
    )
  }
  return {
    identifier: node.attributes.identifier ?? '',
    cardinality,
    type: written === 'record' ? null : type,
    usual: listed('defaultValue'),
    correct: listed('correctResponse'),
    mapping: type === null ? null : mappingOf(childOf(node, 'mapping'), type),
    areas: areas
      ? {
          entries: childrenOf(areas, 'areaMapEntry').map((area) => ({
            area,
            value: numberOf(area.attributes.mappedValue ?? ''),
          })),
          bounds: boundsOf(areas),
        }
      : null,
    table: childOf(node, 'matchTable') ?? childOf(node, 'interpolationTable') ?? null,
  }
}

function attempted<T>(make: () => T): T | null {
  try {
    return make()
  } catch {
    return null
  }
}

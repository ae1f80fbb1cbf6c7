import type { XmlElement } from '../../../xml'
import type { Value } from '../values'

/** One expression of the standard over the values of those that stand in it. @throws NotProven */
export type Operator = (node: XmlElement, of: readonly Value[]) => Value
export type Operators = Record<string, Operator>

export const isTrue = (text: string | undefined, usual = false): boolean =>
  text === undefined ? usual : text === 'true' || text === '1'

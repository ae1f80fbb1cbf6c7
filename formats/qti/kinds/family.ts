import type { KindName, Question } from '../../../core/question'
import type { XmlElement } from '../../xml'
import type { Context, Found } from './reading'
import type { Parts } from './writing'

type Of<K extends KindName> = Extract<Question, { kind: K }>

/**
 * How kinds of question that QTI says alike are written and read: one folder a family, listed by `index.ts`.
 * A kind is in one family's `write`, an interaction of the standard (by its name in 2.x) in one family's `read`.
 */
export interface Family {
  write: { [K in KindName]?: (question: Of<K>) => Parts }
  read: Record<string, (context: Context, node: XmlElement) => Found>
}

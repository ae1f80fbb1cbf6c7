import type { Question } from '../../../core/question'
import { byHandFamily } from './by-hand'
import { choiceFamily } from './choice'
import { entryFamily } from './entry'
import type { Family } from './family'
import { gapsFamily } from './gaps'
import { orderingFamily } from './ordering'
import { pairsFamily } from './pairs'
import { spotFamily } from './spot'
import type { Parts } from './writing'

const families = [choiceFamily, entryFamily, gapsFamily, pairsFamily, orderingFamily, spotFamily, byHandFamily]

/** Readers by the names that interactions have in 2.x. */
export const readers: Family['read'] = Object.assign({}, ...families.map(({ read }) => read)) as Family['read']
const writers: Family['write'] = Object.assign({}, ...families.map(({ write }) => write)) as Family['write']

/** What a question becomes in an item: declarations, body, processing. @throws Error for a kind that no family writes */
export function partsOf(question: Question): Parts {
  const write = writers[question.kind] as ((of: Question) => Parts) | undefined
  if (!write) throw new Error(`No family of QTI writes the kind ${question.kind}.`)
  return write(question)
}

import { ExpressionError, type Question } from '../../core/question'
import { unseenIn, type Feature } from '../unseen'
import { NotSayable } from './expressions'
import type { QtiVersion } from './names'
import { canBeTemplate } from './package/write'
import { prove } from './proof/prove'
import { itemOf } from './write'

const everywhere: Feature[] = ['difficulty', 'comments', 'partComments', 'maths', 'media', 'scoring', 'keyless']

/** What readers who know nothing of Thistle's settings will not see of a question, and where they would score it otherwise. */
export function unseenByOthers(question: Question, version: QtiVersion): string[] {
  const carries = new Set<Feature>(everywhere)
  if (version !== '2.1') carries.add('stimulus')
  if (!question.vary || canBeTemplate(question)) carries.add('vary')
  const words = unseenIn(question, carries)
  const proof = carries.has('vary') ? proven(question, version) : null
  if (proof?.state === 'differs')
    words.push(
      `how all of it is scored: ${proof.example.answer === null ? 'no answer' : `“${proof.example.answer}”`} earns ${proof.example.file} there and ${proof.example.here} here`,
    )
  if (proof?.state === 'open') words.push(`whether it is scored alike: ${proof.reason}`)
  return words
}

function proven(question: Question, version: QtiVersion) {
  try {
    const { tree, responses } = itemOf(question, 'item', version)
    return prove({ item: tree, question, responses })
  } catch (error) {
    if (error instanceof NotSayable || error instanceof ExpressionError) return null
    throw error
  }
}

import { plainText } from '../../../core/question'
import { childOf, childrenOf, within, type XmlElement } from '../../xml'
import { blocksOf } from '../content/read'
import { isTrue, titleOf, type Reading } from './reading'

/** What is said of sessions that has no like here; whether something may be skipped has. */
export function tellSession(node: XmlElement, { notes }: Reading): void {
  const control = childOf(node, 'itemSessionControl')
  if (!control) return
  const { maxAttempts, allowReview, allowComment, showFeedback, showSolution } = control.attributes
  const said = [
    maxAttempts !== undefined &&
      maxAttempts !== '1' &&
      `${maxAttempts === '0' ? 'any number of' : maxAttempts} tries each`,
    isTrue(showFeedback) && 'feedback while it is sat',
    isTrue(showSolution) && 'the solution while it is sat',
    allowReview === 'false' && 'no way back to what was answered',
    isTrue(allowComment) && 'comments by candidates',
  ].filter((each) => each !== false)
  if (said.length)
    notes.add(
      `What “${titleOf(node, 'the test')}” says of its items is a rule of the whole quiz here; look at it: ${said.join(', ')}.`,
    )
}

/** Words that a test shows by its outcomes: told one by one, since here they go by the grade. */
export function tellFeedback(test: XmlElement, reading: Reading): void {
  for (const each of within(test, 'testFeedback')) {
    const words = plainText(blocksOf(childOf(each, 'contentBody')?.children ?? each.children, reading))
    if (words)
      reading.notes.add(
        `Words that are shown by the result are not brought in; write them as closing words: “${words.slice(0, 200)}”.`,
      )
  }
}

/** Values and outcomes of items that the test changes, and when it is passed (QTI 2.1 §4.2 templateDefault, variableMapping; §5.2 masteryValue). */
export function tellItems(test: XmlElement, { notes }: Reading): void {
  if (within(test, 'templateDefault').length)
    notes.add('Values that the test gives to its items are left out: they are drawn.')
  if (within(test, 'variableMapping').length)
    notes.add('The test counts other outcomes of some items than their scores; here their scores count.')
  for (const { attributes } of childrenOf(test, 'outcomeDeclaration'))
    if (attributes.masteryValue !== undefined)
      notes.add(`In the file it is passed from ${attributes.masteryValue.slice(0, 20)} on; say so in the rules.`)
}

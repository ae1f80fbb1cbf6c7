import { plainText } from '../../core/question'
import type { BundleItem } from '../bundle'
import { toHtml } from '../html'
import type { Block, Reading } from './blocks'
import { QuestionCollector } from './collect'
import { itemOf } from './decide'
import { isAnswered, secondAnswer, type Draft } from './draft'
import { giveFinalKeys } from './final-key'

const wordsOfParts = ({ parts }: Draft): string => plainText(toHtml(parts.map(({ node }) => node)))

/**
 * In a plain text, what follows an answer before the next separator and has no answer of its own still belongs to the question
 * before it: it is told, since students will read it.
 */
function withWhatFollows(drafts: readonly Draft[]): Draft[] {
  const kept: Draft[] = []
  for (const draft of drafts) {
    if (!draft.parts.length && draft.key === null && draft.problem === null) continue
    const before = kept.at(-1)
    const belongs = before?.group === draft.group && before.problem === null && isAnswered(before)
    const isUnasked = draft.parts.every(({ is }) => is !== 'words')
    const isRest =
      draft.key === null && draft.number === null && draft.parts.every(({ is }) => is === 'words' || is === 'quote')
    if (belongs && isRest && !isUnasked) {
      before.notes.add(
        `What follows the answer is part of the question: “${wordsOfParts(draft).slice(0, 60)}”. Begin it with “Explanation:” if it is a comment.`,
      )
      before.parts.push(...draft.parts)
      for (const note of draft.notes) before.notes.add(note)
    } else if (belongs && isUnasked) before.notes.add(secondAnswer(draft.line))
    else kept.push(draft)
  }
  return kept
}

/**
 * Reads the questions of a text.
 *
 * - A list is a choice: what is right is bold, ticked, or named by a key line. Several right options make it a choices.
 * - A list is an ordering, and a table of two columns a matching, only where the question or the key says so.
 * - A line "= …" or "Answer: …" without a list is a number, a text, or true or false.
 * - Whatever follows an answer begins the next question. A key at the end may answer all questions before it.
 *
 * @param blocks of the text, in order
 * @param placeOf says where a question stands: by its number from 1, the line of its first block, and its first words
 * @returns an item for each question; what cannot be read has its reason
 */
export function questionsIn(
  blocks: readonly Block[],
  reading: Reading,
  placeOf: (number: number, line: number | null, firstWords: string) => string,
): BundleItem[] {
  const collector = new QuestionCollector(reading)
  blocks.forEach((block, i) => {
    collector.add(block, blocks[i + 1])
  })
  const { drafts, finalKeys } = collector
  const kept = reading.plainText
    ? withWhatFollows(drafts)
    : drafts.filter((draft) => draft.parts.length > 0 || draft.problem !== null)
  giveFinalKeys(drafts, kept, finalKeys)
  return kept.map((draft, i) => itemOf(draft, placeOf(i + 1, draft.line, wordsOfParts(draft).slice(0, 40)), reading))
}

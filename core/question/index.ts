import { seededRandom, shuffled } from '../kit/random'
import { isBlank } from './allowed-html'
import { kindOf, type PlacedOption } from './kinds'
import { placedAsWritten } from './kinds/kind'
import type { Question } from './schema'
import { varyFaults } from './vary/faults'

export { language, readingLanguage } from './language'
export { languageName } from './language-name'
export { question, id, points, toolNames, type Question } from './schema'
export { kinds, kindNames, kindOf, type KindName, type PlacedOption, type SealedBody } from './kinds'
export { plainText, isBlank } from './allowed-html'
export { unreadable } from './unreadable'
export { readingOf, type Reading } from './reading'
export { letter } from './kinds/letter'
export { blankQuestion, completed } from './blank'
export { scoreAnswer, commentsFor, type ScoredAnswer } from './score'
export { mapEveryHtml, mapQuestionHtml, textsOf, inLanguage, readIn, untranslated } from './texts'
export { stimulus, mapStimulusHtml, stimulusAs, type Stimulus } from './stimulus'
export { instanceOf } from './vary/instance'
export { drawValues } from './vary/sample'
export { sampleInstances } from './vary/faults'
export { ExpressionError } from './vary/expression'
export type { Values, Vary } from './vary/schema'

/** Sentences about what keeps a question from being used; empty when all is well. */
export function questionFaults(question: Question): string[] {
  const kind = kindOf(question.kind)
  const faults = isBlank(question.stem) && !kind.stemOptional ? ['The question has no text. Write what is asked.'] : []
  if (question.keyless)
    return [
      ...faults,
      ...(kind.keylessFaults?.(question.body) ?? [`A question of the kind “${kind.label}” needs a key.`]),
    ]
  // A varying body is judged by its instances: as written, its key is no number yet.
  return [...faults, ...(question.vary ? [] : kind.faults(question.body)), ...varyFaults(question)]
}

/** How a question is placed in the editor's own preview, which has no paper: with authored ids, and shuffled where it always starts so. */
export function previewPlaces(question: Question): PlacedOption[] {
  const kind = kindOf(question.kind)
  const random = seededRandom('00', ['preview'])
  const lists = [...new Set(kind.options(question.body).map((option) => option.list))]
  const placed = lists.flatMap((list) => {
    const options = kind.options(question.body).filter((option) => option.list === list)
    return options.some((option) => option.always) ? shuffled(options, random) : options
  })
  return placedAsWritten(placed)
}

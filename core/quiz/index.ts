export * from './edits'
export { checkQuiz } from './checks'
export type { Check, CheckContext, CheckedQuestion } from './check/check'
export { newQuiz, newRow, newSection, blankContent } from './blank'
export { changesInWords, gradeMethods, passWords, toldToStudents, usualRules } from '../rules'
export { stateOf, stateLabels, mayBecome, type QuizState, type StoredState } from './state'
export {
  allRows,
  drawRows,
  fixedQuestions,
  gives,
  questionsOf,
  questionsUsed,
  pointsOf,
  rowPoints,
  rowSize,
} from './walk'
export {
  bandAt,
  bandsFor,
  closingFaults,
  readBoundary,
  unknownPlaceholders,
  wordsFor,
  type ClosingValues,
} from './closing'
export {
  asKept,
  condition,
  frozenLists,
  hasConditions,
  mostHeld,
  withHeld,
  type Condition,
  type Held,
} from './condition'
export * from './schema'
export { completedContent, completedEdition, completedPaper, completedQuiz, completedRulesOf } from './complete'

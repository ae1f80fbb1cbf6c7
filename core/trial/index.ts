export { answerForNothing, anyAnswer, rightAnswer, wrongAnswer } from './answers'
export { chanceFor } from './abilities'

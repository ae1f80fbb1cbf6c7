export { answerForNothing, anyAnswer, rightAnswer, wrongAnswer } from './answers'
export { chanceFor } from './abilities'
export { sitOnce, type Cut, type TrialQuiz, type TrialSitting, type TrialStudents } from './sit'
export { emptySum, minutesAt, plusSum, sumOf, type TrialSum } from './sum'

import { serverNow } from '../clock'
import { currentDatabase } from '../database/current'
import { QuizFeed } from '../live/quiz-feed'

/** What this process tells the pages that have a quiz open. */
export const quizFeed = new QuizFeed(currentDatabase, serverNow)

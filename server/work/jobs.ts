import { serverNow } from '../clock'
import { sheetWithMaths } from '../domain/bank/material/clean-html'
import { addStimulus, loadStimulus, reviseStimulus } from '../domain/bank/material/stimuli'
import { importObjectives, lookAtObjectives } from '../domain/bank/describing/objectives'
import { changeMany, undoMany } from '../domain/bank/questions/bulk'
import { askForBank, syncBank } from '../domain/bank/outside/outside'
import { previewQuestion } from '../domain/bank/questions/preview'
import { addQuestion, reviseQuestion } from '../domain/bank/questions/questions'
import { proposeFor, sortsIn } from '../domain/blueprints/propose'
import { stagedQuestion, viewBatch } from '../domain/imports/batch'
import { giveFile } from '../domain/imports/give'
import { lookAt } from '../domain/imports/look'
import { pastedAsText } from '../domain/imports/pasted'
import { lookAtUnseen } from '../domain/imports/unseen'
import { stageFile } from '../domain/imports/stage'
import { beginTaking } from '../domain/imports/take'
import { giveQuiz } from '../domain/imports/tests'
import { undoImport } from '../domain/imports/untake'
import { surveyFigures } from '../domain/marks/answers'
import { marksTable } from '../domain/marks/marks'
import { lookAtChecks } from '../domain/quizzes/checks'
import { closeNow, lookAtClosing } from '../domain/quizzes/close'
import { earlierQuiz } from '../domain/quizzes/earlier'
import { makeEdit } from '../domain/quizzes/edits'
import { openQuiz } from '../domain/quizzes/open'
import { openDue } from '../domain/quizzes/openings'
import { quizView } from '../domain/quizzes/view'
import { reviewFor } from '../domain/reviews/review'
import { tellQuizzes } from '../domain/letters/tell'
import { needsAHand } from '../domain/today/today'
import { lookAtRoster } from '../domain/roster/look'
import { takeRoster } from '../domain/roster/take'
import { undoRoster } from '../domain/roster/undo'
import { standInKeeper } from '../standins/keeper/stand-in'
import { playRehearsal } from '../rehearsal/play'
import { trialRun } from '../rehearsal/trial'
import type { Rehearsal, Rehearsed } from '../rehearsal/schema'
import type { Database } from '../database/database'
import type { Instant } from '../../core/kit/time'
import type { Stimulus } from '../../core/question'
import type { Person } from '../people/people'

type AddedStimulus = [person: Person, written: Stimulus, now: Instant]

/**
 * What is done in a thread of its own, because how long it takes is up to what is read: texts, files, maths, checks of
 * whole schools. Each takes the database of its thread first.
 */
export const jobs = {
  addQuestion,
  addStimulus: (database: Database, ...[person, written, now]: AddedStimulus) =>
    database.transaction((db) => addStimulus(db, person, written, now)),
  askForBank: async (database: Database, person: Person, bank: string, now: Instant) => {
    await askForBank(database, person, standInKeeper(database, now), bank, now)
    return { ok: true }
  },
  beginTaking: (database: Database, person: Person, batch: string, items: number[], tests: number[]) =>
    beginTaking(database, person, batch, items, serverNow, tests),
  changeMany,
  closeNow,
  earlierQuiz,
  giveFile,
  giveQuiz,
  importObjectives,
  loadStimulus,
  lookAt: (_database: Database, text: string) => lookAt(text),
  lookAtChecks,
  lookAtClosing,
  lookAtUnseen,
  lookAtObjectives,
  lookAtRoster,
  makeEdit,
  marksTable,
  needsAHand,
  openDue,
  openQuiz,
  pastedAsText: (_database: Database, html: string) => pastedAsText(html),
  playRehearsal: (
    database: Database,
    ...[teacher, quiz, rehearsal, asked]: [teacher: Person, quiz: string, rehearsal: Rehearsal, asked: Rehearsed]
  ) =>
    playRehearsal(database, teacher, quiz, rehearsal, asked, (name, input) =>
      (jobs as unknown as Record<string, (...all: unknown[]) => Promise<unknown>>)[name]!(...input),
    ),
  previewQuestion: (_database: Database, ...about: Parameters<typeof previewQuestion>) => previewQuestion(...about),
  proposeFor,
  quizView,
  reviewFor,
  reviseQuestion,
  reviseStimulus,
  sortsIn,
  sheetWithMaths: (_database: Database, ...about: Parameters<typeof sheetWithMaths>) => sheetWithMaths(...about),
  stageFile,
  stagedQuestion,
  surveyFigures,
  syncBank: (database: Database, person: Person, bank: string, now: Instant) =>
    syncBank(database, person, standInKeeper(database, now), bank, now),
  takeRoster,
  tellQuizzes,
  trialRun,
  undoImport,
  undoMany,
  undoRoster,
  viewBatch,
}

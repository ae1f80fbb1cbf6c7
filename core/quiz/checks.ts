import type { Quiz } from './schema'
import { type Check, type CheckContext } from './check/check'
import { cappedChecks, rowChecks, duplicateChecks, keylessChecks, poolChecks, emptySections } from './check/rows'
import { figureChecks, handMarkChecks, pageChecks, sectionTimeChecks, timeChecks } from './check/figures'
import { doubtChecks, giveawayChecks, habitChecks, nearChecks, newerChecks, orderWordChecks } from './check/texts'
import {
  attemptChecks,
  clockChangeChecks,
  dueOutsideChecks,
  graceChecks,
  lateStartChecks,
  onceChecks,
  shortWindowChecks,
} from './check/times'
import { alreadySeenChecks, sharedQuestionChecks } from './check/others'
import { peopleChecks, uselessNeedChecks } from './check/people'
import { closingChecks, languageChecks, objectiveChecks, pinnedChecks } from './check/content'
import { asKept, hasConditions } from './condition'
import { ruleChecks } from '../rules'

/**
 * What is wrong with a quiz, or worth a look, each with its remedy. What stops comes first.
 * @param quiz with its conditions met (`withHeld`)
 */
export function checkQuiz(quiz: Quiz, context: CheckContext): Check[] {
  const kept = hasConditions(quiz.content)
  const found = [
    rowChecks,
    duplicateChecks,
    keylessChecks,
    (each: Quiz) => poolChecks(each),
    (each: Quiz) => cappedChecks(each),
    emptySections,
    pinnedChecks,
    ruleChecks,
    shortWindowChecks,
    lateStartChecks,
    graceChecks,
    attemptChecks,
    dueOutsideChecks,
    clockChangeChecks,
    uselessNeedChecks,
    peopleChecks,
    sharedQuestionChecks,
    alreadySeenChecks,
    (each: Quiz) => onceChecks(each),
    timeChecks,
    sectionTimeChecks,
    handMarkChecks,
    figureChecks,
    doubtChecks,
    newerChecks,
    nearChecks,
    giveawayChecks,
    orderWordChecks,
    habitChecks,
    objectiveChecks,
    languageChecks,
    (each: Quiz) => closingChecks(each),
    (each: Quiz) => pageChecks(each),
  ]
    .flatMap((check) => check(quiz, context))
    .map((check) =>
      kept && check.remedy && 'edit' in check.remedy
        ? { ...check, remedy: { ...check.remedy, edit: asKept(check.remedy.edit) } }
        : check,
    )
  return [...found.filter((check) => check.level === 'stop'), ...found.filter((check) => check.level === 'look')]
}

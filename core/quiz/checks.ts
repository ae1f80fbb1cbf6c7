import type { Quiz } from './schema'
import { type Check, type CheckContext } from './check/check'
import { rowChecks, duplicateChecks, poolChecks, emptySections } from './check/rows'
import { fairnessChecks, handMarkChecks, pageChecks, timeChecks } from './check/figures'
import { doubtChecks, giveawayChecks, habitChecks, nearChecks, newerChecks, orderWordChecks } from './check/texts'
import { ruleChecks } from '../rules'

/** What is wrong with a quiz, or worth a look, each with its remedy. What stops comes first. */
export function checkQuiz(quiz: Quiz, context: CheckContext): Check[] {
  const found = [
    rowChecks,
    duplicateChecks,
    (each: Quiz) => poolChecks(each),
    emptySections,
    ruleChecks,
    timeChecks,
    handMarkChecks,
    fairnessChecks,
    doubtChecks,
    newerChecks,
    nearChecks,
    giveawayChecks,
    orderWordChecks,
    habitChecks,
    (each: Quiz) => pageChecks(each),
  ].flatMap((check) => check(quiz, context))
  return [...found.filter((check) => check.level === 'stop'), ...found.filter((check) => check.level === 'look')]
}

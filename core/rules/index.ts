import type { CheckContext, Found } from '../quiz/check/check'
import { same } from '../quiz/edits/paths'
import type { Quiz, Rules } from '../quiz/schema'
import { contentRules } from './content'
import { quizRules } from './registry'
import type { Chapter, Reading, Rule, Sentence, Telling } from './rule'
import { usualOf, valuesIn } from './values-of'

export {
  chapters,
  type Chapter,
  type Control,
  type Fill,
  type Offer,
  type Option,
  type Piece,
  type Sentence,
  type Slot,
} from './rule'
export type { DayMark, Reading, Rule, Telling, WindowRule } from './rule'
export { isDone, type DoneFacts } from './done'
export { noticeNames, type NoticeName, type Notices } from './notices'
export { noPlaceFor } from './places'
export { passwordIn } from './password'
export { entryKey, linkLeads, readEntry, type EntryField, type LinkRule } from './link'
export { isShutOut } from './one-sitting'
export { optionOf } from './pieces'
export { marksOf } from './windows'
export { gradeMethods, passWords, type GradeMethod } from './grade'
export { contentRules, quizRules }

interface Each {
  rule: Rule<unknown>
  value: unknown
}

/** Every rule with its value in a quiz, in the order in which they are read. */
function all({ rules, content }: { rules: Rules; content: Partial<Quiz['content']> }): Each[] {
  const of = (registry: object, values: object): Each[] =>
    Object.entries(registry)
      .filter(([name]) => name in values)
      .map(([name, rule]) => ({ rule: rule as Rule<unknown>, value: (values as Record<string, unknown>)[name] }))
  return [...of(quizRules, rules), ...of(contentRules, content)]
}

/** The sentences of a chapter, as data; the page has one component for them. */
export function sentencesOf(chapter: Chapter, reading: Reading): Sentence[] {
  return all(reading.quiz)
    .filter(({ rule }) => rule.chapter === chapter)
    .flatMap(({ rule, value }) => rule.sentences?.(value, reading) ?? [])
}

/** What students are told before they start, written from the rules. Nothing in it is set by hand. */
export function toldToStudents(telling: Telling): string[] {
  return all(telling.quiz).flatMap(({ rule, value }) => rule.told?.(value, telling) ?? [])
}

/** What is wrong with the rules or worth a look. */
export function ruleChecks(quiz: Quiz, context: CheckContext): Found {
  return all(quiz).flatMap(({ rule, value }) => rule.checks?.(value, quiz, context) ?? [])
}

/** What a change of rules changes, in words for the record: "limit 45 → 60 minutes". */
export function changesInWords(before: Rules, after: Rules, reading: Omit<Reading, 'quiz'>, quiz: Quiz): string[] {
  const then = all({ rules: before, content: {} })
  return all({ rules: after, content: {} }).flatMap(({ rule, value }, index) => {
    const was = then[index]!.value
    if (same(was, value)) return []
    const context = { ...reading, quiz }
    return (
      rule.changed?.(was, value, context) ?? [
        `${rule.title} ${rule.words(was, context)} → ${rule.words(value, context)}`,
      ]
    )
  })
}

/** The rules of a new quiz. */
export const usualRules: Rules = usualOf(quizRules)

/** Today's rules out of what was stored, whatever rules there were then. */
export function completedRules(stored: Record<string, unknown>): Record<string, unknown> {
  return valuesIn(quizRules, stored)
}

/** Today's settings of a content that are rules, out of what was stored. */
export function completedSettings(stored: Record<string, unknown>): Record<string, unknown> {
  return valuesIn(contentRules, stored)
}

/** What a rule is called in lists; undefined for what is no rule. */
export function ruleTitle(name: string): string | undefined {
  const known = { ...quizRules, ...contentRules } as Record<string, { title: string } | undefined>
  return Object.hasOwn(known, name) ? known[name]!.title : undefined
}

import { z } from 'zod'
import { together, setAt } from '../quiz/edits/make'
import { same } from '../quiz/edits/paths'
import type { Edit } from '../quiz/edits/edit'
import type { Quiz, Rules } from '../quiz/schema'
import type { Moment, FacetName } from '../release/schema'
import { quizRules } from './registry'
import { usualOf, valuesIn } from './values-of'
import type { Reading, Rule } from './rule'

/** What a set says: every rule but those of one quiz alone (who sits it, when, by which link and which password). */
export const ofOneQuiz = ['windows', 'heldBack', 'needs', 'password', 'link'] as const
export type SetRules = Omit<Rules, (typeof ofOneQuiz)[number]>

/** Rules to start from. */
export interface RuleSet {
  id: string
  name: string
  /** For what, in a sentence. */
  words: string
  rules: SetRules
}

const usual: Rules = usualOf(quizRules)
/** Moments that a set names: those that need no instant. */
type SetMoment = Exclude<Moment['at'], 'instant'>
const at = (moment: SetMoment): Moment =>
  moment === 'never' || moment === 'teacher' ? { at: moment } : { at: moment, offset: 0 }

/** Release rules by moment; what is not named is never shown. */
function shown(moments: Partial<Record<FacetName, SetMoment>>): Rules['release'] {
  return Object.fromEntries(
    Object.entries(usual.release).map(([name]) => [
      name,
      { from: at(moments[name as FacetName] ?? 'never'), until: null, once: false, ifPassed: false, wrongOnly: false },
    ]),
  ) as Rules['release']
}

function ruleSet(id: string, name: string, words: string, rules: Partial<SetRules>): RuleSet {
  const { windows: _windows, heldBack: _heldBack, needs: _needs, password: _password, link: _link, ...rest } = usual
  return { id, name, words, rules: { ...rest, ...rules } }
}

/** Sets of our own. */
export const ruleSets: readonly RuleSet[] = [
  ruleSet('practice', 'Practice', 'As often as they like, checked while they work, with everything shown at once.', {
    limit: null,
    counts: 'nothing',
    working: { check: true, tries: null, cost: 0, comments: true, hints: true, hintCost: 0 },
    atClosing: 'clock',
    attempts: { ...usual.attempts, count: null },
    grade: { ...usual.grade, method: 'highest' },
    release: shown({
      score: 'handIn',
      grade: 'handIn',
      questions: 'handIn',
      answers: 'handIn',
      marks: 'handIn',
      key: 'handIn',
      comments: 'handIn',
    }),
  }),
  ruleSet(
    'homework',
    'Homework',
    'Some attempts until it is due, late with a mark, answers when it is closed for them.',
    {
      limit: null,
      attempts: { ...usual.attempts, count: 3 },
      late: { accepted: true, costPerDay: 0, lastDays: null },
      release: shown({
        score: 'handIn',
        grade: 'handIn',
        questions: 'windowClosed',
        answers: 'windowClosed',
        marks: 'everyoneDone',
        key: 'everyoneDone',
        comments: 'everyoneDone',
      }),
    },
  ),
  ruleSet('test', 'Test', 'One attempt of 45 minutes; the score at once, the answers when everyone is done.', {
    limit: 45,
    grace: 1,
    atDeadline: 'handIn',
    atClosing: 'clock',
    attempts: { ...usual.attempts, count: 1 },
    late: { accepted: false, costPerDay: 0, lastDays: null },
    release: shown({
      score: 'handIn',
      grade: 'everyoneDone',
      questions: 'everyoneDone',
      answers: 'everyoneDone',
      marks: 'everyoneDone',
      key: 'everyoneDone',
      comments: 'everyoneDone',
    }),
  }),
  ruleSet(
    'examination',
    'Examination',
    'One attempt of 90 minutes, nothing late, and nothing shown before you release it.',
    {
      limit: 90,
      grace: 2,
      atDeadline: 'handIn',
      atClosing: 'clock',
      attempts: { ...usual.attempts, count: 1 },
      late: { accepted: false, costPerDay: 0, lastDays: null },
      release: shown({
        score: 'teacher',
        grade: 'teacher',
        questions: 'teacher',
        answers: 'teacher',
        marks: 'teacher',
      }),
    },
  ),
  ruleSet('survey', 'Survey', 'Nothing is marked and nothing counts; one answer each, without a clock.', {
    limit: null,
    counts: 'survey',
    attempts: { ...usual.attempts, count: 1 },
    release: shown({ questions: 'handIn', answers: 'handIn' }),
  }),
]

const names = Object.keys(quizRules).filter(
  (name) => !(ofOneQuiz as readonly string[]).includes(name),
) as (keyof SetRules)[]

/** What a set's rules are as they are kept: by the same schemas as a quiz's. */
export const setRules = z.strictObject(
  Object.fromEntries(names.map((name) => [name, quizRules[name].schema])) as {
    [K in keyof SetRules]: (typeof quizRules)[K]['schema']
  },
)

/** Today's rules of a set out of what was stored. */
export function completedSet(stored: Record<string, unknown>): SetRules {
  return setRules.parse(setRulesOf(valuesIn(quizRules, stored) as unknown as Rules))
}

/** The rules of a quiz that a set has too: what is kept as a set. Pass marks of sections belong to the sections of one quiz. */
export const setRulesOf = (rules: Rules): SetRules =>
  Object.fromEntries(
    names.map((name) => [name, name === 'grade' ? { ...rules.grade, sections: [] } : rules[name]]),
  ) as unknown as SetRules

/** What a set says of a rule, for one quiz. */
const inSetFor = (set: RuleSet, name: keyof SetRules, quiz: Quiz): unknown =>
  name === 'grade' ? { ...set.rules.grade, sections: quiz.rules.grade.sections } : set.rules[name]

/** One rule that is not as a set has it: in the words of the record, and the edit that takes the set's. */
export interface Differing {
  title: string
  /** From the set's value to the quiz's. */
  changes: string[]
  edit: Edit
}

/** Which rules of a quiz are not as a set has them. */
export function differing(set: RuleSet, reading: Reading): Differing[] {
  return names.flatMap((name) => {
    const [is, inSet] = [reading.quiz.rules[name], inSetFor(set, name, reading.quiz)]
    if (same(is, inSet)) return []
    const rule = quizRules[name] as unknown as Rule<unknown>
    return [
      {
        title: rule.title,
        changes: rule.changed?.(inSet, is, reading) ?? [
          `${rule.title} ${rule.words(inSet, reading)} → ${rule.words(is, reading)}`,
        ],
        edit: setAt(reading.quiz, ['rules', name], inSet),
      },
    ]
  })
}

/** The edit that gives a quiz the rules of a set; null where it has them. Who sits it, when, and the password stay. */
export const takeSet = (set: RuleSet, quiz: Quiz): Edit | null =>
  together(
    names
      .filter((name) => !same(quiz.rules[name], inSetFor(set, name, quiz)))
      .map((name) => setAt(quiz, ['rules', name], inSetFor(set, name, quiz))),
  )

/** The set that a quiz's rules are nearest to: that from which the fewest rules differ. */
export function nearestSet(sets: readonly RuleSet[], quiz: Quiz): RuleSet {
  const far = (set: RuleSet) => names.filter((name) => !same(quiz.rules[name], inSetFor(set, name, quiz))).length
  return sets.reduce((best, each) => (far(each) < far(best) ? each : best))
}

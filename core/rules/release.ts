import { day, plus } from '../kit/time'
import { sentenceTime, duration, count } from '../kit/phrases'
import { look, type CheckContext } from '../quiz/check/check'
import { setAt, together } from '../quiz/edits/make'
import { same } from '../quiz/edits/paths'
import type { Quiz } from '../quiz/schema'
import { facetsOf } from '../release/under-rules'
import { toldAtWork } from '../release/earliest'
import { leaks, type Leak } from '../release/leaks'
import { telling as tellingFacets } from '../release/names'
import {
  facetLabels,
  facetNames,
  momentLabels,
  ofQuestions,
  releaseRules,
  type FacetName,
  type FacetRule,
  type Moment,
  type ReleaseRules,
} from '../release/schema'
import { latestEnd } from '../schedule/starts'
import { choice, slot } from './pieces'
import type { Option, Rule } from './rule'

const week = 7 * day
const from = (at: 'handIn' | 'windowClosed' | 'everyoneDone'): FacetRule => ({
  from: { at, offset: 0 },
  until: null,
  once: false,
  ifPassed: false,
  wrongOnly: false,
})
const never: FacetRule = { from: { at: 'never' }, until: null, once: false, ifPassed: false, wrongOnly: false }

const offset = { key: 'offset', sort: 'minutes' as const, label: 'Minutes after that', min: 0, max: 60 * 24 * 366 }
const values: Record<Moment['at'], Moment> = {
  never: { at: 'never' },
  handIn: { at: 'handIn', offset: 0 },
  marked: { at: 'marked', offset: 0 },
  attemptsUsed: { at: 'attemptsUsed', offset: 0 },
  due: { at: 'due', offset: 0 },
  windowClosed: { at: 'windowClosed', offset: 0 },
  everyoneDone: { at: 'everyoneDone', offset: 0 },
  teacher: { at: 'teacher' },
  instant: { at: 'instant', instant: '' },
}
const moments = (Object.keys(momentLabels) as Moment['at'][]).map((at): Option => {
  const value = values[at]
  if (at === 'instant')
    return { value, label: momentLabels[at], fill: { key: 'instant', sort: 'instant', label: 'Time' } }
  return { value, label: momentLabels[at], ...('offset' in value ? { fill: offset } : {}) }
})

/** "when everyone is done, once". */
function wordsOf(rule: FacetRule, zone: string): string {
  const base = rule.from.at === 'instant' ? sentenceTime(rule.from.instant, zone) : momentLabels[rule.from.at]
  const after = 'offset' in rule.from && rule.from.offset ? `${duration(rule.from.offset)} after: ` : ''
  return [
    after + base,
    rule.until ? `until ${sentenceTime(rule.until, zone)}` : '',
    rule.once ? 'once' : '',
    rule.ifPassed ? 'if passed' : '',
    rule.wrongOnly ? 'only of what was wrong' : '',
  ]
    .filter(Boolean)
    .join(', ')
}

const path = (name: FacetName, part: keyof FacetRule) => ['rules', 'release', name, part]
const setMoments = (quiz: Quiz, names: readonly FacetName[], moment: Moment) =>
  together(
    names
      .filter((name) => !same(quiz.rules.release[name].from, moment))
      .map((name) => setAt(quiz, path(name, 'from'), moment)),
  )

function leakCheck(quiz: Quiz, first: Leak, context: CheckContext) {
  const facet = facetLabels[first.facet].toLowerCase()
  const until = first.until ? `until ${sentenceTime(first.until, context.zone)}` : 'without an end'
  const sentence = first.sitters.length
    ? `From ${sentenceTime(first.at, context.zone)}, ${count(first.viewers.length, 'student')} may see “${facet}” while ${count(first.sitters.length, 'student')} can still sit, ${until}.`
    : `From ${sentenceTime(first.at, context.zone)} a student may see “${facet}” and still start another attempt, ${until}.`
  if (toldAtWork(quiz.rules, first.facet))
    return [
      look('leak', 'rules', 'Answers leak', `${sentence} It is told while they work, by checking answers.`, {
        label: 'Let answers not be checked while working',
        edit: setAt(quiz, ['rules', 'working', 'check'], false),
      }),
    ]
  const wrong = ofQuestions.filter((name) => quiz.rules.release[name].wrongOnly)
  const edit = setMoments(quiz, [...new Set([...tellingFacets, ...wrong])], { at: 'everyoneDone', offset: 0 })
  return [
    look(
      'leak',
      'rules',
      'Answers leak',
      edit ? `${sentence} Show them when everyone is done?` : sentence,
      edit && { label: 'Show when everyone is done', edit },
    ),
  ]
}

/** The weaker kind: questions are in hand, by review or receipt, while others can still sit. */
function questionsCheck(quiz: Quiz, context: CheckContext) {
  const { rules } = quiz
  const [first] = leaks(rules, context.students, ['questions']).filter(({ sitters }) => sitters.length)
  if (!first) return []
  const later = setMoments(quiz, ['questions'], { at: 'everyoneDone', offset: 0 })
  const edit = together([
    ...(later ? [later] : []),
    ...(rules.receipt === 'answers' ? [setAt(quiz, ['rules', 'receipt'], 'handedIn')] : []),
  ])
  return [
    look(
      'questions-early',
      'rules',
      'Questions can be passed on',
      `From ${sentenceTime(first.at, context.zone)}, ${count(first.viewers.length, 'student')} may have the questions before them${rules.receipt === 'answers' ? ', by a receipt' : ''}, while ${count(first.sitters.length, 'student')} can still sit, ${first.until ? `until ${sentenceTime(first.until, context.zone)}` : 'without an end'}.`,
      edit && { label: 'Show them when everyone is done', edit },
    ),
  ]
}

/** Something waits for an end that does not come. */
function endlessCheck(quiz: Quiz, { students, now }: CheckContext) {
  const waits = students.some(({ schedule }) => latestEnd(schedule).is === 'never')
  const names = facetsOf(quiz.rules).filter((name) =>
    ['windowClosed', 'everyoneDone'].includes(quiz.rules.release[name].from.at),
  )
  if (!waits || !names.length) return []
  const { windows } = quiz.rules
  const edit = together(
    windows
      .filter((window) => window.closes === null)
      .map((window) =>
        setAt(quiz, ['rules', 'windows', window.id, 'closes'], plus(window.opens > now ? window.opens : now, week)),
      ),
  )
  return [
    look(
      'never-released',
      'rules',
      'Something is never shown',
      'What is shown “when the window has closed” or “when everyone is done” waits for an end that does not come. Give every window a closing time.',
      edit && { label: 'Close windows without an end in a week', edit },
    ),
  ]
}

/** From which moment a student sees what after an attempt (semantics §7). */
export const release: Rule<ReleaseRules> = {
  title: 'what is shown',
  chapter: 'release',
  schema: releaseRules,
  // Safe at the outset: the score at once, what gives the key away when everyone is done.
  usual: {
    score: from('handIn'),
    grade: from('handIn'),
    questions: from('windowClosed'),
    answers: from('windowClosed'),
    marks: from('everyoneDone'),
    key: from('everyoneDone'),
    comments: from('everyoneDone'),
    class: never,
    best: never,
    certificate: never,
  },
  complete: (stored) =>
    Object.fromEntries(facetNames.map((name) => [name, { ...never, ...(stored as Partial<ReleaseRules>)[name] }])),
  sentences: (value, { zone, quiz }) =>
    facetsOf(quiz.rules).map((name) => ({
      key: name,
      pieces: [
        `${facetLabels[name]}: `,
        slot(
          facetLabels[name],
          path(name, 'from'),
          value[name].from,
          wordsOf(value[name], zone),
          { sort: 'choice', options: moments },
          value[name].from.at === 'never'
            ? []
            : [
                slot(
                  'Until',
                  path(name, 'until'),
                  value[name].until,
                  value[name].until ? sentenceTime(value[name].until, zone) : 'for good',
                  {
                    sort: 'instant',
                    none: 'For good',
                  },
                ),
                choice('Viewings', path(name, 'once'), value[name].once, [
                  { value: false, label: 'as often as they like' },
                  { value: true, label: 'one viewing only' },
                ]),
                choice('To whom', path(name, 'ifPassed'), value[name].ifPassed, [
                  { value: false, label: 'whether passed or not' },
                  { value: true, label: 'only when passed' },
                ]),
                ...(ofQuestions.includes(name)
                  ? [
                      choice('Of which questions', path(name, 'wrongOnly'), value[name].wrongOnly, [
                        { value: false, label: 'of all questions' },
                        { value: true, label: 'only of those not fully right' },
                      ]),
                    ]
                  : []),
              ],
        ),
      ],
    })),
  checks(_value, quiz, context) {
    const [first] = leaks(quiz.rules, context.students)
    return [
      ...endlessCheck(quiz, context),
      // The weaker kind is told where nothing gives the key away.
      ...(first ? leakCheck(quiz, first, context) : questionsCheck(quiz, context)),
    ]
  },
  words: (value, { zone }) =>
    facetNames.map((name) => `${facetLabels[name].toLowerCase()} ${wordsOf(value[name], zone)}`).join('; '),
  changed: (before, after, { zone }) =>
    facetNames
      .filter((name) => !same(before[name], after[name]))
      .map(
        (name) => `${facetLabels[name].toLowerCase()} ${wordsOf(before[name], zone)} → ${wordsOf(after[name], zone)}`,
      ),
}

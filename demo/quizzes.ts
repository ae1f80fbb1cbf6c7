import { DateTime } from 'luxon'
import { fromLocal } from '../core/kit/local-time'
import type { Instant } from '../core/kit/time'
import {
  editTo,
  newRow,
  newSection,
  usualRules,
  type Edit,
  type Quiz,
  type Rules,
  type Section,
  type Window,
} from '../core/quiz'

/** The quizzes of the demo school, with dates laid out from the day of the first start. */
export const zone = 'Europe/London'

/** A local time so many days from the day of the first start. */
export function onDay(first: Instant, days: number, time: string): Instant {
  return fromLocal(`${DateTime.fromISO(first, { zone }).plus({ days }).toFormat('yyyy-MM-dd')}T${time}`, zone)
}

/** Days from the first start to a weekday (1 Monday … 7 Sunday): the next one after it, and whole weeks from there. */
export function daysTo(first: Instant, weekday: number, weeks = 0): number {
  return ((weekday - DateTime.fromISO(first, { zone }).weekday + 6) % 7) + 1 + weeks * 7
}

const row = (question: string, points = 1) =>
  newRow({ type: 'question', id: `r-${question.slice(2)}`, question, points })
const pool = (id: string, title: string, questions: string[], draw: number, points = 1) =>
  newRow({ type: 'pool', id, title, questions, draw, points })
const group = (id: string, stimulus: string, questions: string[], draw = questions.length) =>
  newRow({ type: 'stimulus', id, stimulus, questions, draw, points: 1 })
const section = (id: string, title: string, order: Section['order'], rows: Section['rows'], intro = ''): Section =>
  newSection({ id, title, intro, order, rows })
const window = (
  id: string,
  classes: string[],
  opens: Instant,
  closes: Instant,
  due: Instant | null = null,
): Window => ({
  id,
  classes,
  opens,
  closes,
  due,
  latestStart: null,
  groups: [],
  students: [],
  closedAt: null,
  password: null,
})

export interface DemoQuiz {
  id: string
  title: string
  intro: string
  sections: Section[]
  rules: Partial<Rules>
  /** When it was made, and when it was opened; null for a draft. */
  made: Instant
  opened: Instant | null
}

const tidesSections = [
  section('s-levels', 'Terms and levels', 'kept', [
    row('q-datum'),
    row('q-springs-moon'),
    pool(
      'pool-levels',
      'Levels and datums',
      [
        'q-clearance',
        'q-drying',
        'q-cover',
        'q-depth',
        'q-below-datum',
        'q-levels',
        'q-lat',
        'q-range',
        'q-fortnight',
        'q-neap-low',
        'q-range-value',
      ],
      4,
    ),
  ]),
  section(
    's-heights',
    'Working out heights',
    'shuffled',
    [
      row('q-twelfths-2', 2),
      pool(
        'pool-heights',
        'Heights by the rule of twelfths',
        [
          'q-twelfths-1',
          'q-twelfths-3',
          'q-twelfths-4',
          'q-anchor',
          'q-half-tide',
          'q-twelfths-formula',
          'q-secondary',
        ],
        3,
        2,
      ),
      row('q-bridge', 2),
      group('group-table', 'st-table', ['q-t-range', 'q-t-springs', 'q-t-sill', 'q-t-duration'], 3),
    ],
    'Work to one decimal. You may use the rule of twelfths throughout.',
  ),
  section('s-judgement', 'Judgement', 'shuffled', [row('q-stream-hardest'), row('q-high-time'), row('q-lee-shore')]),
]

const lightsSections = [
  section('s-rules', 'Who gives way', 'shuffled', [
    row('q-head-on'),
    row('q-crossing'),
    row('q-overtaking'),
    pool('pool-sail', 'Under sail', ['q-tacks', 'q-windward', 'q-channel', 'q-hampered'], 2),
  ]),
  section('s-lights', 'Lights, shapes and sounds', 'shuffled', [
    pool(
      'pool-lights',
      'Lights and shapes',
      ['q-sidelight', 'q-anchor-shape', 'q-motor-sailing', 'q-nuc', 'q-sternlight'],
      3,
    ),
    row('q-one-blast'),
    row('q-three-blasts'),
  ]),
]

const buoySections = [
  section('s-lateral', 'Lateral marks', 'kept', [row('q-port-mark'), row('q-starboard-mark'), row('q-lateral-light')]),
  section('s-cardinal', 'Cardinal and other marks', 'shuffled', [
    row('q-north-card'),
    row('q-east-card'),
    pool(
      'pool-card',
      'Lights and colours',
      ['q-south-light', 'q-west-flashes', 'q-cardinals-colours', 'q-two-balls', 'q-safe-water'],
      3,
    ),
  ]),
]

const chartSections = [
  section('s-compass', 'Compass', 'kept', [row('q-variation', 2), row('q-true-compass', 2), row('q-variation-source')]),
  section('s-speed', 'Speed, time and distance', 'shuffled', [
    row('q-speed'),
    row('q-time'),
    pool('pool-speed', 'Worked distances', ['q-distance', 'q-metres', 'q-tide-eta', 'q-minute'], 2),
  ]),
]

/** One being composed, one scheduled, one open with sittings under way, one closed with marks. */
export function demoQuizzes(first: Instant): DemoQuiz[] {
  const at = (days: number, time: string) => onDay(first, days, time)
  const [tuesday, saturday] = [daysTo(first, 2), daysTo(first, 6)]
  const [lastTuesday, lastSaturday] = [daysTo(first, 2, -3), daysTo(first, 6, -3)]
  return [
    {
      id: 'quiz-tides',
      title: 'Tides and tidal heights',
      intro: '',
      sections: tidesSections,
      made: at(-3, '18:40'),
      opened: null,
      rules: {
        windows: [
          window('w-tue', ['c-tuesday'], at(tuesday, '19:00'), at(tuesday, '21:00'), at(tuesday, '21:00')),
          window('w-sat', ['c-saturday'], at(saturday, '09:30'), at(saturday, '12:00'), at(saturday, '12:00')),
        ],
        attempts: { ...usualRules.attempts, count: 2, wait: 24 * 60 },
        release: { ...usualRules.release, key: { ...usualRules.release.key, from: { at: 'windowClosed', offset: 0 } } },
      },
    },
    {
      id: 'quiz-lights',
      title: 'Rules of the road',
      intro: '<p>Answer as the master of the vessel named.</p>',
      sections: lightsSections,
      made: at(-6, '20:10'),
      opened: at(-1, '19:20'),
      rules: { windows: [window('w-both', ['c-tuesday', 'c-saturday'], at(2, '18:00'), at(9, '22:00'))], limit: 20 },
    },
    {
      id: 'quiz-buoys',
      title: 'Buoyage at your own pace',
      intro: '',
      sections: buoySections,
      made: at(-9, '17:05'),
      opened: at(-2, '18:00'),
      rules: {
        windows: [window('w-week', ['c-tuesday', 'c-saturday'], at(-1, '08:00'), at(8, '20:00'))],
        limit: null,
        attempts: { ...usualRules.attempts, count: 3, wait: 60 },
        grade: { ...usualRules.grade, pass: { by: 'percent', value: 70 } },
      },
    },
    {
      id: 'quiz-chart',
      title: 'Compass, speed and distance',
      intro: '',
      sections: chartSections,
      made: at(-35, '18:30'),
      opened: at(-30, '18:00'),
      rules: {
        windows: [
          window('w-tue', ['c-tuesday'], at(lastTuesday, '19:00'), at(lastTuesday, '21:00'), at(lastTuesday, '20:30')),
          window('w-sat', ['c-saturday'], at(lastSaturday, '09:30'), at(lastSaturday, '12:00')),
        ],
        limit: 30,
        release: {
          ...usualRules.release,
          marks: { ...usualRules.release.marks, from: { at: 'everyoneDone', offset: 0 } },
          class: {
            from: { at: 'everyoneDone', offset: 0 },
            until: null,
            once: false,
            ifPassed: false,
            wrongOnly: false,
          },
        },
      },
    },
  ]
}

/** The edits by which a teacher would have written it: the content, then the rules. */
export function editsFor(quiz: DemoQuiz, blank: Quiz): Edit[] {
  const written = { ...blank, content: { ...blank.content, intro: quiz.intro, sections: quiz.sections } }
  const ruled = { ...written, rules: { ...written.rules, ...quiz.rules } }
  return [editTo(blank, written), editTo(written, ruled)].filter((edit) => edit !== null)
}

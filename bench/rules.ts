/**
 * Rules worked out: leaks and checks for 2,000 students in 40 classes; schedules, lanes, checks and leaks for 500 students
 * with 40 accommodations; what students may see, evaluations a second.
 */
import { dayLine } from '../core/day-line/day-line'
import { iso, minute, plus } from '../core/kit/time'
import { checkQuiz, noAccommodation, usualRules, type Quiz, type Rules, type Student, type Window } from '../core/quiz'
import { ruleChecks } from '../core/rules'
import { endsOf, leaks, releaseOf, visibleFacets, type ReleaseContext } from '../core/release'
import { assignedTo, scheduleFor, studentOfClass } from '../core/schedule'
import { names, questionRow, sampleContent } from '../tests/fixtures/core'

const start = '2030-05-14T09:00:00.000Z'
const at = (minutes: number) => plus(start, minutes * minute)
const classIds = Array.from({ length: 40 }, (_, i) => `c${i}`)

function windowsFor(classes: readonly string[]): Window[] {
  return classes.map((id, i) => ({
    id: `w${i}`,
    classes: [id],
    groups: [],
    students: [],
    opens: at(i * 90),
    closes: at(i * 90 + 120),
    due: at(i * 90 + 110),
    latestStart: i % 3 ? null : at(i * 90 + 60),
    closedAt: null,
    password: null,
  }))
}
function rulesFor(classes: readonly string[]): Rules {
  const facet = { until: null, once: false, ifPassed: false, wrongOnly: false }
  return {
    ...usualRules,
    limit: 60,
    windows: windowsFor(classes),
    attempts: { ...usualRules.attempts, count: 3, wait: 30 },
    release: {
      ...usualRules.release,
      key: { from: { at: 'windowClosed', offset: 0 }, ...facet },
      marks: { from: { at: 'handIn', offset: 30 }, ...facet },
    },
  }
}
const studentsOf = (n: number, classes: readonly string[], given: (i: number) => boolean): Student[] =>
  Array.from({ length: n }, (_, i) => ({
    id: `s${i}`,
    name: `Student ${i}`,
    classes: [classes[i % classes.length]!],
    groups: [],
    accommodations: [
      given(i)
        ? { ...noAccommodation, factor: 1 + (i % 7) / 10, extraMinutes: i % 11, stretchWindow: i % 2 === 0 }
        : noAccommodation,
    ],
  }))

/** Milliseconds of the middle one of some calls. */
function middle(work: () => unknown, calls = 9): number {
  const times = Array.from({ length: calls }, () => {
    const began = performance.now()
    work()
    return performance.now() - began
  })
  return times.sort((a, b) => a - b)[Math.floor(calls / 2)]!
}
const quizOf = (rules: Rules): Quiz => ({ content: sampleContent(names('q', 12).map((id) => questionRow(id))), rules })
const context = (rules: Rules, students: readonly Student[]) => ({
  now: start,
  zone: 'Europe/London',
  questions: new Map(),
  names: new Map(classIds.map((id) => [id, `Class ${id}`])),
  scales: [],
  objectives: new Map(),
  students: assignedTo(students, rules),
})

const school = rulesFor(classIds)
const everybody = studentsOf(2000, classIds, (i) => i % 10 === 0)
const known = context(school, everybody)
const found = leaks(school, known.students)
if (!found.length || checkQuiz(quizOf(school), known).length < 3) throw new Error('Nothing was found.')
// The leaks are among the checks.
const leaksTime = middle(() => checkQuiz(quizOf(school), known))

const five = classIds.slice(0, 10)
const some = rulesFor(five)
const many = studentsOf(500, five, (i) => i < 40)
const lanes = () => {
  const assigned = assignedTo(many, some)
  const line = dayLine(
    some,
    five.map((id) => ({ id, name: id, students: 50 })),
    assigned,
    (id) => scheduleFor(some, studentOfClass(id)),
    start,
  )
  return [line, ruleChecks(quizOf(some), { ...context(some, many), students: assigned })]
}
const dayLineTime = middle(lanes)

const ends = endsOf(known.students)
const release = releaseOf(school)
const asked: ReleaseContext[] = known.students.slice(0, 500).map(({ classes, schedule }, i) => ({
  handedInAt: at(i),
  markedAt: i % 3 ? at(i) : null,
  passed: i % 2 === 0,
  attemptsUsedAt: null,
  due: schedule.windows[0]?.due ?? null,
  classEnd: ends.ofClasses(classes),
  everyoneEnd: ends.everyone,
  releasedAt: null,
  againUntil: { is: 'beforeAll' },
  viewed: i % 5 ? [] : ['key'],
}))
const instants = Array.from({ length: 20 }, (_, i) => iso(Date.parse(start) + i * 100 * minute))
let shown = 0
const rate = (() => {
  const began = performance.now()
  let n = 0
  while (performance.now() - began < 1000)
    for (const each of asked)
      for (const now of instants) {
        if (visibleFacets(release, each, now).facets.key.shown) shown++
        n++
      }
  return n / ((performance.now() - began) / 1000)
})()
if (!shown) throw new Error('Nothing was shown.')

console.log(
  JSON.stringify({
    'rules.leaks': { value: Number(leaksTime.toFixed(1)), unit: 'ms' },
    'rules.dayline': { value: Number(dayLineTime.toFixed(1)), unit: 'ms' },
    'release.rate': { value: Math.round(rate), unit: 'evaluations/s' },
  }),
)

/** Simulated sittings against what is known exactly: the forecast, the clock, the chance of being drawn. */
import { describe, expect, it } from 'vitest'
import {
  at,
  factsNamed,
  names,
  poolRow,
  questionRow,
  sampleContent,
  sampleEdition,
  sampleQuestion,
  sampleRules,
  sampleStudent,
  sampleWindow,
} from '../../tests/fixtures/core'
import { facilityOf, figuresFor, type Facts } from '../figures'
import { exact } from '../kit/exact'
import { seededRandom } from '../kit/random'
import { kindNames, kindOf } from '../question/kinds'
import { scoreAnswer } from '../question'
import type { Rules } from '../quiz'
import { scheduleFor } from '../schedule'
import {
  answerForNothing,
  anyAnswer,
  chanceFor,
  emptySum,
  minutesAt,
  plusSum,
  rightAnswer,
  sitOnce,
  sumOf,
  type TrialStudents,
} from '.'

const usual: TrialStudents = { mean: 0, deviation: 0, lose: 0 }
const pooled = names('p', 12)
const fixed = names('f', 6)
const all = [...pooled, ...fixed]
const content = sampleContent([
  ...fixed.map((question, i) => questionRow(question, { points: i % 2 ? 2 : 1 })),
  poolRow('pool', pooled, 5),
])
const edition = sampleEdition(content, Object.fromEntries(all.map((id) => [id, sampleQuestion('choice')])))
const facts: Facts = factsNamed(all, (i) => ({ difficulty: (i % 5) + 1 }))
const openRules = sampleRules({ limit: null, windows: [{ ...sampleWindow, closes: null }], atDeadline: 'handIn' })

function run(n: number, rules: Rules, students: TrialStudents, edition_ = edition) {
  const schedule = scheduleFor(rules, sampleStudent())
  return Array.from({ length: n }, (_, i) =>
    sitOnce(
      { edition: edition_, rules, facts },
      schedule,
      `s${i}`,
      students,
      seededRandom('7e57', ['trial', String(i)]),
    ),
  )
}

describe('answers', () => {
  const random = seededRandom('a4', ['answers'])
  it.each(kindNames)(
    '%s: the right one earns all, the one for nothing earns nothing, any is an answer to it',
    (name) => {
      const question = sampleQuestion(name)
      const kind = kindOf(name)
      const right = scoreAnswer(question, {}, rightAnswer(question))
      // A recording of no sound is none.
      expect(right.fraction).toBe(name === 'recording' ? '0' : kind.byHand ? null : '1')
      for (let i = 0; i < 20; i++) {
        const nothing = answerForNothing(question, random)
        const { fraction } = scoreAnswer(question, {}, nothing)
        expect(nothing === null || fraction === null || exact(fraction).compare(0) <= 0).toBe(true)
        expect(kind.answer.safeParse(anyAnswer(question, random)).success).toBe(true)
      }
    },
  )
  it('are chosen by chances that grow with ability and are the facility for who is usual', () => {
    for (const each of facts.values()) {
      expect(chanceFor(each, 0)).toBe(facilityOf(each))
      expect(chanceFor(each, 1)).toBeGreaterThan(chanceFor(each, 0))
      expect(chanceFor(each, -1)).toBeLessThan(chanceFor(each, 0))
    }
    // Rasch: half way where ability meets difficulty.
    expect(chanceFor({ ...[...facts.values()][0]!, logit: 0.7 }, 0.7)).toBe(0.5)
  })
})

/** Quizzes of several kinds with pools, costs and pass marks, by their number. */
function randomQuiz(n: number) {
  const random = seededRandom('22', ['quiz', String(n)])
  const one = <T>(...of: T[]): T => of[random.below(of.length)]!
  const [a, b] = [names('a', 5), names('b', 5)]
  const kinds = ['choice', 'trueFalse', 'choices', 'number', 'text', 'matching'] as const
  const questions = Object.fromEntries([...a, ...b].map((id) => [id, sampleQuestion(one(...kinds))]))
  // Some distractors take points away: who does not know may lose some.
  for (const question of Object.values(questions))
    if (question.kind === 'choice' && one(true, false))
      question.body.options = question.body.options.map((option, i) =>
        option.credit < 1 ? { ...option, credit: i % 2 ? -0.5 : 0 } : option,
      )
  const row = (id: string) => questionRow(id, { points: one(0.5, 1, 2) })
  const blank = sampleContent([])
  const section = blank.sections[0]!
  const content = {
    ...blank,
    wrongCost: one({ by: 'none' as const }, { by: 'formula' as const }, { by: 'share' as const, share: 0.5 }),
    sections: [
      {
        ...section,
        id: 's1',
        rows: [...a.slice(0, 2).map(row), poolRow('pool', a.slice(2), 2, { points: one(1, 3) })],
      },
      { ...section, id: 's2', rows: b.map(row) },
    ],
  }
  const facts: Facts = new Map(
    Object.entries(questions).map(([id, question]) => [
      id,
      {
        objectives: [],
        seconds: 10,
        difficulty: 1 + random.below(5),
        right: one(null, { share: random.below(11) / 10, n: 20 }),
        guesses: kindOf(question.kind).guesses(question.body as never),
        options: kindOf(question.kind).guessable(question.body as never),
      },
    ]),
  )
  const rules = sampleRules({
    limit: null,
    windows: [{ ...sampleWindow, closes: null }],
    atDeadline: 'handIn',
    grade: {
      method: one('highest', 'latest', 'average'),
      decimals: one(0, 1, 2),
      pass: one({ by: 'percent' as const, value: one(30, 50, 70) }, { by: 'points' as const, value: 4 }),
      scale: { by: 'percent' },
      sections: one(
        [],
        [{ id: 'm1', section: 's2', percent: 50 }],
        [
          { id: 'm1', section: 's1', percent: 40 },
          { id: 'm2', section: 's2', percent: 40 },
        ],
      ),
    },
  })
  return { content, questions, facts, rules }
}

it('is forecast for every quiz and rule: mean, deviation and who passes', { timeout: 60_000 }, () => {
  const n = 700
  for (let number = 0; number < 10; number++) {
    const { content: random, questions, facts: known, rules } = randomQuiz(number)
    const { mean, deviation, passes } = figuresFor(random, rules, known).forecast!
    const schedule = scheduleFor(rules, sampleStudent())
    const sat = Array.from({ length: n }, (_, i) =>
      sitOnce(
        { edition: sampleEdition(random, questions), rules, facts: known },
        schedule,
        `s${i}`,
        usual,
        seededRandom('7e57', [String(number), String(i)]),
      ),
    )
    const shares = sat.map(({ share }) => share!)
    const average = shares.reduce((x, y) => x + y, 0) / n
    const spread = Math.sqrt(shares.reduce((x, y) => x + (y - average) ** 2, 0) / n)
    expect(Math.abs(average - mean), `mean of quiz ${number}`).toBeLessThan((4.5 * deviation) / Math.sqrt(n) + 1e-9)
    expect(Math.abs(spread - deviation), `deviation of quiz ${number}`).toBeLessThan(0.03)
    const share = sat.filter(({ passed }) => passed).length / n
    expect(Math.abs(share - passes!), `who passes quiz ${number}`).toBeLessThan(
      4.5 * Math.sqrt(Math.max(passes! * (1 - passes!), 1 / n) / n),
    )
  }
})

describe('a trial run', () => {
  const n = 6000
  const sum = sumOf(run(n, openRules, usual))

  it('gives the scores of the exact forecast, and the share that passes', () => {
    const { forecast } = figuresFor(content, openRules, facts)
    const mean = sum.shares.sum / n
    const { mean: expected, deviation, twentieths, passes } = forecast!
    expect(Math.abs(mean - expected)).toBeLessThan((4 * deviation) / Math.sqrt(n))
    expect(Math.sqrt(sum.shares.squares / n - mean ** 2)).toBeCloseTo(deviation, 2)
    // Chi-square over the twentieths that are expected at all: its 0.1 % point for up to 19 degrees of freedom is 43.8.
    const bins = twentieths.map((share, i) => [share * n, sum.twentieths[i]!] as const).filter(([e]) => e >= 5)
    expect(bins.length).toBeGreaterThan(8)
    expect(bins.reduce((x, [e, seen]) => x + (seen - e) ** 2 / e, 0)).toBeLessThan(43.8)
    const share = sum.passed.passed / sum.passed.n
    expect(Math.abs(share - passes!)).toBeLessThan(4 * Math.sqrt((passes! * (1 - passes!)) / n))
  })

  it('draws each question of a pool as often as its chance says, and fixed ones always', () => {
    for (const question of fixed) expect(sum.came[question]).toBe(n)
    const [chance, spread] = [5 / 12, Math.sqrt((5 / 12) * (7 / 12) * n)]
    for (const question of pooled) expect(Math.abs(sum.came[question]! - chance * n)).toBeLessThan(4.5 * spread)
  })

  it('cuts nobody off where nothing ends, and says which rule did where something does', () => {
    expect(Object.values(sum.cut).every(({ sittings }) => sittings === 0)).toBe(true)
    expect([sum.sat, sum.over]).toEqual([n, 0])
    const of = (rules: Partial<Rules>, students = usual) => sumOf(run(400, sampleRules(rules), students)).cut
    const long = { ...sampleWindow, opens: at('09:00'), closes: at('20:00') }
    // Eleven minutes of work on average.
    expect(of({ limit: 10, windows: [long] }).clock.sittings).toBeGreaterThan(150)
    const short = of({ limit: 60, atClosing: 'window', windows: [{ ...long, closes: at('09:20') }] })
    expect(short.window.sittings).toBeGreaterThan(100)
    expect(short.clock.sittings).toBe(0)
    const clockWins = of({ limit: 60, atClosing: 'clock', windows: [{ ...long, closes: at('09:20') }] })
    expect([clockWins.window.sittings, clockWins.clock.sittings]).toEqual([0, 0])
    const due = of({
      limit: null,
      late: { ...openRules.late, accepted: false },
      windows: [{ ...long, due: at('09:15') }],
    })
    expect(due.due.sittings).toBeGreaterThan(100)
    const lost = of({ limit: 12, grace: 0, windows: [long] }, { ...usual, lose: 1 })
    expect(lost.connection.sittings).toBeGreaterThan(20)
    expect(of({ limit: 60, grace: 20, windows: [long] }, { ...usual, lose: 1 }).connection.sittings).toBe(0)
  })

  it('is held up by a clock of a section alone where it has one', () => {
    const parts = { ...content, sections: [{ ...content.sections[0]!, limit: 5 }] }
    const clocked = { ...edition, content: parts }
    const { cut } = sumOf(run(200, openRules, usual, clocked))
    expect(cut.section.sittings).toBeGreaterThan(150)
    expect(cut.clock.sittings).toBe(0)
  })

  it('counts who may finish after the deadline, and as nothing what was left unsent', () => {
    const long = { ...sampleWindow, opens: at('09:00'), closes: at('20:00') }
    const finish = sumOf(run(300, sampleRules({ limit: 8, atDeadline: 'finish', windows: [long] }), usual))
    expect(finish.over).toBeGreaterThan(100)
    expect(finish.cut.clock.sittings).toBeLessThan(20)
    const unsent = sumOf(run(300, sampleRules({ limit: 8, atDeadline: 'unsent', windows: [long] }), usual))
    expect(unsent.twentieths[0]!).toBeGreaterThan(200)
  })

  it('tells who could not sit it at all', () => {
    const schedule = scheduleFor(sampleRules({ windows: [] }), sampleStudent())
    const sitting = sitOnce({ edition, rules: openRules, facts }, schedule, 's', usual, seededRandom('00', ['x']))
    expect(sitting.failed).toBe('no start')
    const greedy = sampleContent([poolRow('pool', pooled, 13)])
    const empty = { ...edition, content: greedy }
    expect(run(1, openRules, usual, empty)[0]!.failed).toBe('no paper')
  })

  it('is the same in parts as in one, and the same each time', () => {
    const sittings = run(60, openRules, { mean: 0.5, deviation: 1, lose: 0.2 })
    const whole = sumOf(sittings)
    const parts = [0, 20, 40].map((from) => sumOf(sittings.slice(from, from + 20))).reduce(plusSum, emptySum())
    expect({ ...parts, shares: null }).toEqual({ ...whole, shares: null })
    expect(parts.shares.sum).toBeCloseTo(whole.shares.sum, 10)
    expect(run(60, openRules, { mean: 0.5, deviation: 1, lose: 0.2 })).toEqual(sittings)
    expect(minutesAt(whole, 0.5)!).toBeLessThanOrEqual(minutesAt(whole, 0.9)!)
    expect(minutesAt(emptySum(), 0.5)).toBeNull()
  })
})

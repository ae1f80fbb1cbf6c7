/**
 * A week by the minute: 30 students under random rules, every clock ticked down minute by minute and every facet asked at
 * every minute, against `clockFor`, `visibleFacets` and `leaks`. The model counts minutes as semantics §5 and §7 say them and
 * shares no function with what it tests; only the shapes of rules and students are the core's.
 */
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { sampleRules, sampleWindow } from '../../tests/fixtures/core'
import { minute, plus, type Instant } from '../kit/time'
import { noAccommodation, usualRules, type Rules, type Student, type Window } from '../quiz'
import { assignedTo, clockFor, maySit, notSat, scheduleFor } from '../schedule'
import { endsOf, leaks, visibleFacets, type FacetRule, type ReleaseContext } from '.'

const begin = '2030-03-28T00:00:00.000Z'
const week = 7 * 24 * 60
/** Minutes are the model's time; this is the core's. */
const at = (n: number): Instant => plus(begin, n * minute)
const classes = ['tue', 'sat', 'sun']
const groups = ['early', 'late']

const own = (of: readonly string[]) => fc.subarray([...of], { minLength: 0, maxLength: 2 })
const window = fc.record({
  classes: fc.subarray(classes, { minLength: 1, maxLength: 2 }),
  groups: fc.oneof({ weight: 3, arbitrary: fc.constant<string[]>([]) }, own(groups)),
  students: fc.oneof({ weight: 3, arbitrary: fc.constant<string[]>([]) }, fc.subarray(['s0', 's7', 's19'])),
  opens: fc.integer({ min: 0, max: 6000 }),
  long: fc.option(fc.integer({ min: 1, max: 3000 }), { freq: 8 }),
  due: fc.option(fc.integer({ min: -100, max: 3000 }), { freq: 2 }),
  latest: fc.option(fc.integer({ min: -5, max: 3000 }), { freq: 2 }),
})
const moment = fc.oneof(
  fc.constant({ at: 'never' as const }),
  fc.record({
    at: fc.constantFrom(
      'handIn' as const,
      'due' as const,
      'windowClosed' as const,
      'everyoneDone' as const,
      'attemptsUsed' as const,
      'marked' as const,
    ),
    offset: fc.constantFrom(0, 0, 45),
  }),
  fc.constant({ at: 'teacher' as const }),
  fc.nat(week).map((n) => ({ at: 'instant' as const, instant: at(n) })),
)
const facet: fc.Arbitrary<FacetRule> = fc.record({
  from: moment,
  until: fc.option(fc.nat(week).map(at), { freq: 4 }),
  once: fc.boolean(),
  ifPassed: fc.boolean(),
  wrongOnly: fc.constant(false),
})
const world = fc.record({
  windows: fc.array(window, { minLength: 1, maxLength: 5 }),
  limit: fc.constantFrom(20, 60, 90, null),
  grace: fc.constantFrom(0, 2, 30),
  atDeadline: fc.constantFrom('handIn' as const, 'finish' as const, 'unsent' as const),
  overrun: fc.constantFrom(null, 10, 120),
  atClosing: fc.constantFrom('clock' as const, 'window' as const),
  accepted: fc.boolean(),
  lastDays: fc.constantFrom(null, 1),
  again: fc.boolean(),
  key: facet,
  /** From when the key is shown where leaks are looked for. */
  leakFrom: fc.oneof(
    fc.record({
      at: fc.constantFrom('handIn' as const, 'due' as const, 'windowClosed' as const, 'everyoneDone' as const),
      offset: fc.constantFrom(0, 45),
    }),
    fc.nat(week).map((n) => ({ at: 'instant' as const, instant: at(n) })),
  ),
  score: facet,
  questions: facet,
  students: fc.array(
    fc.record({
      classes: fc.subarray(classes, { minLength: 1, maxLength: 2 }),
      groups: own(groups),
      factor: fc.constantFrom(1, 1, 1, 1.5, 2),
      extraMinutes: fc.constantFrom(0, 0, 10),
      stretchWindow: fc.boolean(),
      breakMinutes: fc.constantFrom(0, 0, 20),
      laterMinutes: fc.constantFrom(0, 0, 30),
      /** When they begin, among the minutes at which they can; when they hand in; whether they pass. */
      starts: fc.nat(9999),
      works: fc.nat(300),
      passes: fc.boolean(),
      viewed: fc.boolean(),
      marked: fc.nat(2000),
    }),
    { minLength: 30, maxLength: 30 },
  ),
  released: fc.option(fc.nat(week)),
})
type World = typeof world extends fc.Arbitrary<infer T> ? T : never

const rulesOf = (w: World): Rules =>
  sampleRules({
    windows: w.windows.map((each, i): Window => ({
      ...sampleWindow,
      id: `w${i}`,
      classes: each.classes,
      groups: each.groups,
      students: each.students,
      opens: at(each.opens),
      closes: each.long === null ? null : at(each.opens + each.long),
      due: each.due === null ? null : at(each.opens + each.due),
      latestStart: each.latest === null ? null : at(each.opens + each.latest),
    })),
    limit: w.limit,
    grace: w.grace,
    atDeadline: w.atDeadline,
    overrun: w.overrun,
    atClosing: w.atClosing,
    late: { accepted: w.accepted, costPerDay: 0, lastDays: w.lastDays },
    attempts: { ...usualRules.attempts, count: 1, again: w.again },
    release: {
      ...Object.fromEntries(
        Object.entries(usualRules.release).map(([name, rule]) => [name, { ...rule, from: { at: 'never' } }]),
      ),
      key: w.key,
      score: w.score,
      questions: w.questions,
    } as Rules['release'],
  })

const studentOf = (each: World['students'][number], i: number): Student => ({
  id: `s${i}`,
  name: `Student ${i}`,
  classes: each.classes,
  groups: each.groups,
  accommodations: [
    {
      ...noAccommodation,
      factor: each.factor,
      extraMinutes: each.extraMinutes,
      stretchWindow: each.stretchWindow,
      breakMinutes: each.breakMinutes,
      laterMinutes: each.laterMinutes,
    },
  ],
})

/* The model: minutes, counted. Infinity is never. */
interface OwnWindow {
  id: string
  opens: number
  closes: number
  due: number
  /** Nobody starts from then on. */
  before: number
  end: number
  /** Nothing is taken from then on. */
  taken: number
}
interface Run {
  deadline: number
  onTime: number
  stop: number
}
const never = Infinity
const past = (n: number) => (n === never ? null : at(n))

function ownWindows(w: World, i: number): OwnWindow[] {
  const me = w.students[i]!
  const all = w.windows.map((each, n) => ({ ...each, id: `w${n}` }))
  const named = all.filter((each) => each.students.includes(`s${i}`))
  const grouped = all.filter((each) => each.groups.some((g) => me.groups.includes(g)))
  const mine = named.length
    ? named
    : grouped.length
      ? grouped
      : all.filter((each) => each.classes.some((c) => me.classes.includes(c)))
  const later = me.laterMinutes
  return mine
    .map((each): OwnWindow => {
      const closes = each.long === null ? never : each.opens + each.long + later
      const due = each.due === null ? never : each.opens + each.due + later
      const latest = each.latest === null ? never : each.opens + each.latest + later
      const more =
        !me.stretchWindow || closes === never
          ? 0
          : w.limit !== null
            ? w.limit * (me.factor - 1) + me.extraMinutes
            : (closes - each.opens) * (me.factor - 1) + me.extraMinutes
      const end = closes + Math.round(more * 60_000) / 60_000
      const taken = due === never ? never : !w.accepted ? due : w.lastDays === null ? never : due + w.lastDays * 1440
      return { id: each.id, opens: each.opens, closes, due, end, taken, before: Math.min(latest, end, taken) }
    })
    .sort((a, b) => a.opens - b.opens)
}

/** Ticks a sitting down: a minute of work a minute, none in a break of so many minutes after the first. */
function run(w: World, i: number, win: OwnWindow, start: number, breaks: number): Run {
  const me = w.students[i]!
  const has = w.limit === null ? null : w.limit * me.factor + me.extraMinutes
  let [worked, rested, t] = [0, 0, start]
  const isUp = () =>
    t >= win.taken || (has === null ? t >= win.end : worked >= has || (w.atClosing === 'window' && t >= win.end))
  const horizon = week * 3
  while (!isUp() && t < horizon) {
    if (rested < breaks) rested++
    else worked++
    t++
  }
  if (t >= horizon) return { deadline: never, onTime: never, stop: never }
  // A bound that does not fall on a whole minute of this start ends it there.
  const bounds = [win.taken, ...(has === null || w.atClosing === 'window' ? [win.end] : [])].filter(
    (b) => b > start && b <= t,
  )
  const deadline = Math.max(
    start < Math.min(win.taken, has === null || w.atClosing === 'window' ? win.end : never)
      ? -never
      : Math.min(win.taken, has === null || w.atClosing === 'window' ? win.end : never),
    Math.min(t, ...bounds),
  )
  const onTime = deadline + w.grace
  let stop = onTime
  if (w.atDeadline === 'finish') {
    const last = w.overrun !== null ? deadline + w.overrun : win.end
    stop = Math.min(Math.max(onTime, last), win.taken + w.grace)
  }
  return { deadline, onTime, stop }
}

/** The window in which somebody starts at a minute: the one that reaches furthest for them, then the one that closes last. */
function chosen(w: World, i: number, windows: readonly OwnWindow[], t: number): OwnWindow | undefined {
  const open = windows.filter((win) => win.opens <= t && t < win.before)
  const reach = (win: OwnWindow) =>
    win.before === never ? never : run(w, i, win, win.before, w.students[i]!.breakMinutes).stop
  return open.reduce<OwnWindow | undefined>((best, win) => {
    if (!best) return win
    const [a, b] = [reach(best), reach(win)]
    return b > a || (b === a && win.end > best.end) ? win : best
  }, undefined)
}

/** The latest end of all that somebody could begin; undefined where they can begin nothing. */
function endOf(w: World, i: number, windows: readonly OwnWindow[]): number | undefined {
  const turns = [...new Set(windows.flatMap((win) => [win.opens, win.before]))]
    .filter((t) => t < never)
    .sort((a, b) => a - b)
  let latest: number | undefined
  turns.forEach((t, n) => {
    const win = chosen(w, i, windows, t)
    if (!win) return
    const before = turns[n + 1]
    const stop = before === undefined ? never : run(w, i, win, before, w.students[i]!.breakMinutes).stop
    latest = Math.max(latest ?? -never, stop)
  })
  return latest
}

/** Few worlds are made in a run: what each has to have some of comes in turn. */
const turned = (w: World, n: number): World => ({
  ...w,
  atDeadline: (['handIn', 'finish', 'unsent'] as const)[n % 3]!,
  ...(n % 3 === 1 ? { overrun: 120, grace: 2, limit: 60 } : {}),
  leakFrom: n % 2 ? { at: 'handIn', offset: 0 } : w.leakFrom,
  ...(n % 4 === 0 ? { leakFrom: { at: 'everyoneDone' as const, offset: 45 } } : {}),
})
let turn = 0
const runs = Number(process.env.THISTLE_WEEKS ?? 5)
it('ticks 30 students through a week, minute by minute, and nothing differs', () => {
  const seen = { asked: 0, shown: 0, phases: new Set<string>(), leaking: 0, calm: 0 }
  fc.assert(
    fc.property(world, (made) => {
      const w = turned(made, turn++)
      const rules = rulesOf(w)
      const students = w.students.map(studentOf)
      const everyone = assignedTo(students, rules)
      const meant = new Set(everyone.map(({ id }) => id))
      const windows = students.map((_, i) => ownWindows(w, i))
      const ends = students.map((_, i) => endOf(w, i, windows[i]!))
      const among = (ids: readonly number[]) => {
        const known = ids.filter((i) => meant.has(`s${i}`)).flatMap((i) => ends[i] ?? [])
        return known.length ? Math.max(...known) : undefined
      }
      const all = among(students.map((_, i) => i))
      const inQuiz = new Set(w.windows.flatMap((each) => each.classes))
      const coreEnds = endsOf(everyone)
      students.forEach((student, i) => {
        const schedule = scheduleFor(rules, student)
        const mine = windows[i]!
        expect(schedule.windows.map(({ id }) => id)).toEqual(mine.map(({ id }) => id))
        // Every minute of the week: whether they can begin, and in which window.
        const starts: number[] = []
        for (let t = 0; t < week; t++) {
          const win = mine.some(({ opens, before }) => opens <= t && t < before)
          if (win) starts.push(t)
        }
        for (let t = 0; t < week; t += 97) {
          const may = maySit('open', schedule, notSat, at(t), 'UTC')
          expect([t, may.may ? may.window : null]).toEqual([t, chosen(w, i, mine, t)?.id ?? null])
        }
        if (!starts.length) return
        const me = w.students[i]!
        const start = starts[me.starts % starts.length]!
        const win = chosen(w, i, mine, start)!
        const breaks = me.starts % 2 ? me.breakMinutes : 0
        const ticked = run(w, i, win, start, breaks)
        // The clock at every minute from the start on, for a day beyond the end.
        const last = Math.min(week, (ticked.stop === never ? start + 1000 : ticked.stop) + 100)
        for (let t = start; t <= last; t++) {
          const clock = clockFor(schedule, { startedAt: at(start), window: win.id, breaks: breaks * minute }, at(t))
          const phase =
            t > ticked.stop ? 'ended' : t > ticked.onTime ? 'overrun' : t > ticked.deadline ? 'grace' : 'running'
          seen.phases.add(phase)
          if (clock.phase !== phase || clock.deadline !== past(ticked.deadline) || clock.hardStop !== past(ticked.stop))
            expect([i, t, clock.phase, clock.deadline, clock.hardStop]).toEqual([
              i,
              t,
              phase,
              past(ticked.deadline),
              past(ticked.stop),
            ])
        }
        // What they see, at every minute after.
        const handed = Math.min(start + me.works, ticked.stop)
        if (handed >= week) return
        const release = me.classes.filter((each) => inQuiz.has(each))
        const waits = release.length ? release : me.classes
        const mates = students.flatMap((other, n) => (other.classes.some((each) => waits.includes(each)) ? [n] : []))
        const classEnd = among(mates) ?? all
        const again = w.again ? Math.min(win.due === never ? win.end : win.due, ticked.deadline) : -never
        const context: ReleaseContext = {
          handedInAt: at(handed),
          markedAt: at(handed + me.marked),
          passed: me.passes,
          attemptsUsedAt: at(handed),
          due: past(win.due),
          classEnd: coreEnds.ofClasses(waits),
          everyoneEnd: coreEnds.everyone,
          releasedAt: w.released === null ? null : at(w.released),
          againUntil: !w.again ? { is: 'beforeAll' } : again === never ? { is: 'never' } : { is: 'at', at: at(again) },
          viewed: me.viewed ? ['key', 'score', 'questions'] : [],
        }
        const begun = (rule: FacetRule): number => {
          const { from } = rule
          switch (from.at) {
            case 'never':
              return never
            case 'instant':
              return Math.round((Date.parse(from.instant) - Date.parse(begin)) / minute)
            case 'teacher':
              return w.released ?? never
            case 'handIn':
              return handed + from.offset
            case 'marked':
              return handed + me.marked + from.offset
            case 'due':
              return win.due + from.offset
            case 'windowClosed':
              return (classEnd ?? handed) + from.offset
            case 'everyoneDone':
              return (all ?? handed) + from.offset
            case 'attemptsUsed':
              return Math.min(handed, classEnd ?? handed) + from.offset
          }
        }
        const names = ['key', 'score', 'questions'] as const
        const from = names.map((name) => Math.max(begun(w[name]), name === 'key' ? again : -never))
        for (let t = handed; t < week; t++) {
          const { facets } = visibleFacets(rules.release, context, at(t))
          names.forEach((name, n) => {
            const rule = w[name]
            const until =
              rule.until === null ? never : Math.round((Date.parse(rule.until) - Date.parse(begin)) / minute)
            const shown = from[n]! <= t && t < until && !(rule.ifPassed && !me.passes) && !(rule.once && me.viewed)
            seen.asked++
            if (shown) seen.shown++
            if (facets[name].shown !== shown) expect([i, t, name, facets[name].shown]).toEqual([i, t, name, shown])
          })
        }
      })
      // Leaks of the key, where each viewer hands in at once: the first sight against the last end of anybody else.
      const from = w.leakFrom
      const key = { from, until: null, once: false, ifPassed: false, wrongOnly: false }
      const leaky: Rules = {
        ...rules,
        attempts: { ...rules.attempts, again: false },
        release: { ...rules.release, key },
      }
      const firsts = students.map((student, i): number => {
        const [start] = windows[i]!.map(({ opens, before }) => (opens < before ? opens : never)).sort((a, b) => a - b)
        if (start === undefined || start === never || !meant.has(student.id)) return never
        const release = student.classes.filter((each) => inQuiz.has(each))
        const waits = release.length ? release : student.classes
        const mates = students.flatMap((other, n) => (other.classes.some((each) => waits.includes(each)) ? [n] : []))
        const sights = windows[i]!.flatMap((_, n) => {
          const t = windows[i]![n]!.opens
          const win = chosen(w, i, windows[i]!, t)
          if (!win) return []
          const base =
            from.at === 'due'
              ? win.due
              : from.at === 'instant'
                ? Math.round((Date.parse(from.instant) - Date.parse(begin)) / minute)
                : from.at === 'windowClosed'
                  ? (among(mates) ?? all ?? t)
                  : from.at === 'everyoneDone'
                    ? (all ?? t)
                    : t
          return [Math.max(t, base + ('offset' in from ? from.offset : 0))]
        })
        // A window that another wins against gives way when that one ends.
        const turns = windows[i]!.flatMap(({ before }) => (before === never ? [] : [before])).flatMap((t) => {
          const win = chosen(w, i, windows[i]!, t)
          return win && from.at === 'due' ? [Math.max(t, win.due + from.offset)] : []
        })
        return Math.min(never, ...sights, ...turns)
      })
      const told = leaks(leaky, assignedTo(students, leaky)).filter(({ facet: name }) => name === 'key')
      students.forEach((student, i) => {
        const first = firsts[i]!
        const sitters =
          first === never
            ? []
            : students.flatMap((other, n) =>
                n !== i && meant.has(other.id) && (ends[n] ?? -never) > first ? [other.id] : [],
              )
        const mine = told.find(({ viewers, at: when }) => viewers.includes(student.id) && when === past(first))
        expect([student.id, (mine?.sitters ?? []).filter((id) => id !== student.id).sort()]).toEqual([
          student.id,
          sitters.sort(),
        ])
        if (sitters.length) seen.leaking++
        else seen.calm++
      })
    }),
    { numRuns: runs, endOnFailure: true },
  )
  expect([...seen.phases].sort()).toEqual(['ended', 'grace', 'overrun', 'running'])
  expect(Math.min(seen.leaking, seen.calm)).toBeGreaterThan(5)
  expect(seen.shown).toBeGreaterThan(1000)
  console.log(`a week: ${seen.asked} facets asked, ${seen.shown} shown, ${seen.leaking} leaking, ${seen.calm} calm`)
}, 120_000)

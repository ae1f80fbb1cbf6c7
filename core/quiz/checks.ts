import { fixed, exact } from '../kit/exact'
import { day, minute, ms, plus, type Instant } from '../kit/time'
import { count, duration, list, sentenceTime } from '../kit/words'
import { unsatisfiable } from '../paper/draw'
import { leaks, type Assigned } from '../release'
import { latestEnd } from '../schedule/clock'
import { facetLabels } from '../release/schema'
import type { Edit } from './edits'
import type { DrawRow, Quiz, Row, Window } from './schema'
import { allRows, drawRows, fixedOf, fixedQuestions, questionsOf, questionsUsed, rowPoints, rowSize } from './walk'

/** One edit; or, where only a person can choose, the place where they do. */
export type Remedy = { label: string; edit: Edit } | { label: string; goTo: 'finder' | 'windows' }

export interface Check {
  /** Stable name of what was found. */
  code: string
  /** "stop" keeps a quiz from opening; "look" is worth a look. */
  level: 'stop' | 'look'
  title: string
  sentence: string
  where: 'compose' | 'rules'
  /** What mends it, with the words of its button; null where there is only something to know. What stops always has one. */
  remedy: Remedy | null
}

/** What the checks need to know beside the quiz. */
export interface CheckContext {
  now: Instant
  zone: string
  /** Questions that can be used: those that are there, whole and not retired. Name for the sentence. */
  questions: ReadonlyMap<string, { title: string; usable: boolean }>
  classNames: ReadonlyMap<string, string>
  students: readonly (Assigned & { name: string })[]
}

type Found = Check[]

const week = 7 * day

const stop = (code: string, where: Check['where'], title: string, sentence: string, remedy: Remedy): Check => ({
  code,
  level: 'stop',
  where,
  title,
  sentence,
  remedy,
})
const look = (
  code: string,
  where: Check['where'],
  title: string,
  sentence: string,
  remedy: Check['remedy'] = null,
): Check => ({ code, level: 'look', where, title, sentence, remedy })

function rowChecks({ content }: Quiz, context: CheckContext): Found {
  const found: Found = []
  if (!questionsUsed(content).length) {
    found.push(
      stop(
        'no-questions',
        'compose',
        'There is no question yet',
        'Pick questions from the finder and add them to a section.',
        { label: 'Find questions', goTo: 'finder' },
      ),
    )
  } else if (allRows(content).reduce((total, row) => total + rowPoints(row), 0) === 0) {
    found.push(
      stop(
        'no-points',
        'compose',
        'No question is worth a point',
        'Give at least one row more than 0 points, or no grade can be formed.',
        {
          label: 'One point for each question',
          edit: {
            do: 'all',
            edits: allRows(content)
              .filter((row) => row.type !== 'text')
              .map((row) => ({ do: 'setRow', row: row.id, values: { points: 1 } })),
          },
        },
      ),
    )
  }
  for (const row of allRows(content)) {
    const ids = questionsOf(row)
    const bad = ids.filter((id) => !context.questions.get(id)?.usable)
    if (!bad.length) continue
    const names = bad
      .slice(0, 3)
      .map((id) => `“${context.questions.get(id)?.title ?? 'a question that is no longer in the bank'}”`)
    const keep = ids.filter((id) => !bad.includes(id))
    const edit = without(row, bad)
    found.push(
      stop(
        `unusable:${row.id}`,
        'compose',
        `${count(bad.length, 'question')} cannot be used`,
        `${list(names)} ${bad.length === 1 ? 'is' : 'are'} retired, not finished, or in a bank of others and not taken yet.`,
        {
          label: keep.length ? `Take out of the ${row.type === 'pool' ? 'pool' : 'group'}` : 'Take out of the quiz',
          edit,
        },
      ),
    )
  }
  return found
}

function duplicateChecks({ content }: Quiz, context: CheckContext): Found {
  const seen = new Set<string>()
  return allRows(content).flatMap((row) => {
    const again = fixedOf(row).filter((question) => seen.has(question))
    fixedOf(row).forEach((question) => seen.add(question))
    if (!again.length) return []
    const names = list(
      again.slice(0, 3).map((question) => `“${context.questions.get(question)?.title ?? 'One question'}”`),
    )
    return [
      stop(
        `twice:${row.id}`,
        'compose',
        'A question stands twice',
        `${names} ${again.length === 1 ? 'is' : 'are'} on every paper by an earlier row already, and no paper holds a question twice.`,
        { label: 'Take out the second', edit: without(row, again) },
      ),
    ]
  })
}

/** Takes questions out of a row; a row that would be left empty goes. */
function without(row: Row, questions: readonly string[]): Edit {
  const keep = questionsOf(row).filter((question) => !questions.includes(question))
  if (!keep.length || row.type === 'text' || row.type === 'question') return { do: 'removeRows', rows: [row.id] }
  return { do: 'setRow', row: row.id, values: { questions: keep, draw: Math.min(row.draw, keep.length) } }
}

const nameOf = (row: DrawRow, other: string) =>
  row.type === 'stimulus' ? 'A stimulus group' : row.title ? `“${row.title}”` : other
const kindOfRow = (row: DrawRow) => (row.type === 'stimulus' ? 'group' : 'pool')

function poolChecks({ content }: Quiz): Found {
  const claimed = new Set(fixedQuestions(content))
  const pools = drawRows(content)
  const found: Found = []
  for (const row of pools) {
    const holds = row.questions.filter((question) => !claimed.has(question)).length
    if (holds >= row.draw) continue
    found.push(
      stop(
        `pool-short:${row.id}`,
        'compose',
        `A ${kindOfRow(row)} draws ${row.draw} of ${holds}`,
        `${nameOf(row, 'A pool')} holds ${count(holds, 'question')} that no fixed row claims, fewer than it draws.`,
        holds
          ? { label: `Draw ${holds}`, edit: { do: 'setRow', row: row.id, values: { draw: holds } } }
          : { label: `Take out the ${kindOfRow(row)}`, edit: { do: 'removeRows', rows: [row.id] } },
      ),
    )
  }
  if (found.length) return found
  const impossible = unsatisfiable(
    pools.map((row) => ({ id: row.id, holds: row.questions, draw: row.draw })),
    claimed,
  )
  for (const id of impossible) {
    const row = pools.find((each) => each.id === id)!
    found.push(
      stop(
        `pools-together:${id}`,
        'compose',
        'Pools take each other’s questions',
        `${nameOf(row, 'This pool')} shares questions with others, and together they draw more than they hold.`,
        row.draw > 1
          ? { label: `Draw ${row.draw - 1}`, edit: { do: 'setRow', row: id, values: { draw: row.draw - 1 } } }
          : { label: `Take out the ${kindOfRow(row)}`, edit: { do: 'removeRows', rows: [id] } },
      ),
    )
  }
  return found
}

function emptySections({ content }: Quiz): Found {
  if (!questionsUsed(content).length || content.sections.length === 1) return []
  return content.sections
    .filter((section) => section.rows.every((row) => rowSize(row) === 0))
    .map((section) =>
      look(
        `empty-section:${section.id}`,
        'compose',
        `“${section.title}” holds no question`,
        'Students do not see a section without questions.',
        { label: 'Take out the section', edit: { do: 'removeSection', section: section.id } },
      ),
    )
}

type Put = (window: string, values: Partial<Window>) => Edit

function backwardsRemedy(window: Window, put: Put): Remedy {
  return window.closes! < window.opens
    ? { label: 'Swap the two times', edit: put(window.id, { opens: window.closes!, closes: window.opens }) }
    : { label: 'Close it a day later', edit: put(window.id, { closes: plus(window.opens, day) }) }
}

function goneRemedy(window: Window, rules: Quiz['rules'], context: CheckContext, put: Put): Remedy {
  const there = window.classes.filter((id) => context.classNames.has(id))
  return there.length
    ? { label: 'Take that class out', edit: put(window.id, { classes: there }) }
    : {
        label: 'Take the window out',
        edit: { do: 'setRules', values: { windows: rules.windows.filter((each) => each !== window) } },
      }
}

function windowChecks({ rules }: Quiz, context: CheckContext): Found {
  if (!rules.windows.length)
    return [
      stop('no-window', 'rules', 'Nobody can sit it yet', 'Say which class may sit it, and when.', {
        label: 'Go to the windows',
        goTo: 'windows',
      }),
    ]
  const name = (ids: string[]) => list(ids.map((id) => context.classNames.get(id) ?? 'a class that is gone'))
  const found: Found = []
  const put: Put = (id, values) => ({
    do: 'setRules',
    values: { windows: rules.windows.map((window) => (window.id === id ? { ...window, ...values } : window)) },
  })
  for (const window of rules.windows) {
    if (window.closes !== null && window.closes <= window.opens)
      found.push(
        stop(
          `backwards:${window.id}`,
          'rules',
          `The window of ${name(window.classes)} closes before it opens`,
          `It opens ${sentenceTime(window.opens, context.zone)} and closes ${sentenceTime(window.closes, context.zone)}.`,
          backwardsRemedy(window, put),
        ),
      )
    else if (window.closes !== null && window.closes <= context.now)
      found.push(
        stop(
          `over:${window.id}`,
          'rules',
          `The window of ${name(window.classes)} is over`,
          `It closed ${sentenceTime(window.closes, context.zone)}. Give it a later time.`,
          { label: 'Close it a week from now', edit: put(window.id, { closes: plus(context.now, week) }) },
        ),
      )
    if (window.due !== null && window.due < window.opens)
      found.push(
        stop(
          `due:${window.id}`,
          'rules',
          'A due time lies before its window',
          `${name(window.classes)}: due ${sentenceTime(window.due, context.zone)}, but it opens ${sentenceTime(window.opens, context.zone)}.`,
          { label: 'Take out the due time', edit: put(window.id, { due: null }) },
        ),
      )
    if (window.classes.some((id) => !context.classNames.has(id)))
      found.push(
        stop(
          `gone:${window.id}`,
          'rules',
          'A window is for a class that is gone',
          'Choose the classes of this window anew.',
          goneRemedy(window, rules, context, put),
        ),
      )
  }
  return found
}

function clockChecks({ rules }: Quiz, context: CheckContext): Found {
  const found: Found = []
  if (rules.limit === null && rules.windows.some((window) => window.closes === null)) {
    found.push(
      look(
        'no-end',
        'rules',
        'Some sittings never end',
        'There is neither a time limit nor a closing time, so nothing hands in a paper that is left open.',
        { label: 'Set a limit of 60 minutes', edit: { do: 'setRules', values: { limit: 60 } } },
      ),
    )
  }
  const waits = context.students.some(({ schedule }) => latestEnd(schedule) === null)
  const release = rules.release
  if (
    waits &&
    (['windowClosed', 'everyoneDone'] as const).some((at) => Object.values(release).some((rule) => rule.from.at === at))
  ) {
    found.push(
      look(
        'never-released',
        'rules',
        'Something is never shown',
        'What is shown “when the window has closed” or “when everyone is done” waits for an end that does not come. Give every window a closing time.',
        {
          label: 'Close windows without an end in a week',
          edit: {
            do: 'setRules',
            values: {
              windows: rules.windows.map((window) =>
                window.closes === null
                  ? { ...window, closes: plus(window.opens > context.now ? window.opens : context.now, week) }
                  : window,
              ),
            },
          },
        },
      ),
    )
  }
  const extended = context.students.filter(({ schedule }) => schedule.extra > 0 && !schedule.stretchWindow)
  if (rules.atClosing === 'window' && extended.length) {
    found.push(
      look(
        'extra-cut',
        'rules',
        'Extra time may be cut off',
        `The window wins over the clock: ${list(extended.slice(0, 4).map(({ name }) => name))} ${extended.length === 1 ? 'loses' : 'lose'} extra time when starting late.`,
        { label: 'Let their clock run out', edit: { do: 'setRules', values: { atClosing: 'clock' } } },
      ),
    )
  }
  return [...found, ...attemptChecks(rules)]
}

function attemptChecks(rules: Quiz['rules']): Found {
  if (rules.attempts.count === 1) return []
  const longest = Math.max(
    0,
    ...rules.windows.map((window) =>
      window.closes === null ? Infinity : (ms(window.closes) - ms(window.opens)) / minute,
    ),
  )
  if (!rules.windows.length || rules.attempts.wait < longest) return []
  return [
    look(
      'one-in-practice',
      'rules',
      'One attempt in practice',
      `A further attempt needs ${duration(rules.attempts.wait)} between, but no window is longer than ${duration(longest)}.`,
      { label: 'Take out the wait', edit: { do: 'setRules', values: { attempts: { ...rules.attempts, wait: 0 } } } },
    ),
  ]
}

function passChecks({ content, rules }: Quiz): Found {
  const { pass } = rules.grade
  const possible = allRows(content).reduce((total, row) => total + rowPoints(row), 0)
  const most = pass?.by === 'percent' ? 100 : possible
  if (!pass || possible === 0 || pass.value <= most) return []
  return [
    stop(
      'pass-out-of-reach',
      'rules',
      'Nobody can pass',
      `The pass mark is ${pass.value}${pass.by === 'percent' ? ' %' : ' points'}, and at most ${fixed(exact(most), pass.by === 'percent' ? 0 : 2)} can be reached.`,
      {
        label: `Lower it to ${most}${pass.by === 'percent' ? ' %' : ''}`,
        edit: { do: 'setRules', values: { grade: { ...rules.grade, pass: { ...pass, value: most } } } },
      },
    ),
  ]
}

function leakChecks({ rules }: Quiz, context: CheckContext): Found {
  const first = leaks(rules, context.students)[0]
  if (!first) return []
  const facet = facetLabels[first.facet].toLowerCase()
  const until = first.until ? `until ${sentenceTime(first.until, context.zone)}` : 'without an end'
  const sentence = first.sitters.length
    ? `From ${sentenceTime(first.at, context.zone)}, ${count(first.viewers.length, 'student')} may see “${facet}” while ${count(first.sitters.length, 'student')} can still sit, ${until}.`
    : `From ${sentenceTime(first.at, context.zone)} a student may see “${facet}” and still start another attempt, ${until}.`
  const release = { ...rules.release }
  for (const name of ['marks', 'key', 'comments'] as const)
    release[name] = { ...release[name], from: { at: 'everyoneDone', offset: 0 } }
  return [
    look('leak', 'rules', 'Answers leak', `${sentence} Show them when everyone is done?`, {
      label: 'Show when everyone is done',
      edit: { do: 'setRules', values: { release } },
    }),
  ]
}

/** What is wrong with a quiz, or worth a look, each with its remedy. What stops comes first. */
export function checkQuiz(quiz: Quiz, context: CheckContext): Check[] {
  const found = [
    rowChecks,
    duplicateChecks,
    (each: Quiz) => poolChecks(each),
    emptySections,
    windowChecks,
    clockChecks,
    (each: Quiz) => passChecks(each),
    leakChecks,
  ].flatMap((check) => check(quiz, context))
  return [...found.filter((check) => check.level === 'stop'), ...found.filter((check) => check.level === 'look')]
}

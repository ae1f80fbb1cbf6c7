import { describe, expect, it } from 'vitest'
import {
  checkedQuestion,
  at,
  questionRow,
  sampleContent,
  sampleRules,
  sampleStudent,
  sampleWindow,
} from '../../tests/fixtures/core'
import {
  applyEdit,
  noAccommodation,
  checkQuiz,
  edit as editSchema,
  quiz as quizSchema,
  rules as rulesSchema,
  setAt,
  type Edit,
  type Quiz,
  type Rules,
} from '../quiz'
import { scheduleFor } from '../schedule'
import {
  changesInWords,
  chapters,
  completedRules,
  completedSettings,
  contentRules,
  marksOf,
  optionOf,
  quizRules,
  sentencesOf,
  toldToStudents,
  usualRules,
  type Chapter,
  type Piece,
  type Reading,
  type Slot,
} from '.'
import { blankNeed } from './needs'
import { windowRules } from './window'

const quizWith = (rules: Partial<Rules> = {}, content: Partial<Quiz['content']> = {}): Quiz => ({
  content: sampleContent([questionRow('q1')], content),
  rules: sampleRules(rules),
})
const reading = (quiz: Quiz): Reading => ({
  quiz,
  zone: 'UTC',
  scales: [],
  names: new Map([
    ['tue', 'Tuesday evening'],
    ['p1', 'Petra Lund'],
    ['g', 'Dinghies'],
  ]),
})
const isSlot = (piece: Piece): piece is Slot => typeof piece === 'object' && 'control' in piece
const wordsOf = (quiz: Quiz, chapter: Chapter) =>
  sentencesOf(chapter, reading(quiz)).map(({ pieces }) =>
    pieces
      .map((piece) => (typeof piece === 'string' ? piece : isSlot(piece) ? `[${piece.words}]` : `<${piece.offer}>`))
      .join(''),
  )
const everySlot = (quiz: Quiz): Slot[] =>
  (Object.keys(chapters) as Chapter[])
    .flatMap((chapter) => sentencesOf(chapter, reading(quiz)))
    .flatMap(({ pieces }) => pieces.filter(isSlot).flatMap((slot) => [slot, ...(slot.also ?? [])]))

/** Rules under which every sentence applies. */
const full = quizWith({
  windows: [{ ...sampleWindow, due: at('11:00'), latestStart: at('10:00'), closedAt: sampleWindow.closes }],
  atDeadline: 'finish',
  overrun: 10,
  attempts: { count: 3, wait: 30, draw: 'fresh', untilPassed: true, untilShare: null, cost: 5, again: false },
  password: 'ebb',
  release: { ...usualRules.release, best: { ...usualRules.release.best, from: { at: 'everyoneDone', offset: 0 } } },
  link: {
    audience: 'c9',
    by: 'fields',
    fields: [{ id: 'entry-1', name: 'Name', sort: 'name', required: true, unique: false }],
  },
  needs: [
    {
      ...blankNeed({ id: 'n1', students: ['p1'], groups: [] }, noAccommodation),
      factor: 1.5,
      breakMinutes: 15,
      moreAttempts: 1,
    },
  ],
})
full.content = { ...full.content, movement: 'forward', intro: '<p>Bring a pencil.</p>', languages: ['en', 'nl'] }

describe('the registry', () => {
  it('makes the schema, and the usual values pass it', () => {
    expect(rulesSchema.parse(usualRules)).toEqual(usualRules)
    expect(Object.keys(usualRules)).toEqual(Object.keys(quizRules))
    for (const rule of Object.values({ ...quizRules, ...contentRules }))
      expect(rule.schema.safeParse(rule.usual).success, rule.title).toBe(true)
  })
  it('every rule has a sentence under some rules, and a title of its own', () => {
    const titles = [...Object.values(quizRules), ...Object.values(contentRules), ...Object.values(windowRules)].map(
      ({ title }) => title,
    )
    expect(new Set(titles).size).toBe(titles.length)
    const paths = everySlot(full).map(({ path }) => path.join('/'))
    // What is held back is given by links in its sentence (below).
    for (const name of Object.keys(quizRules).filter((each) => each !== 'heldBack'))
      expect(
        paths.some((path) => path.startsWith(`rules/${name}`)),
        name,
      ).toBe(true)
    for (const name of Object.keys(contentRules)) expect(paths, name).toContain(`content/${name}`)
    for (const name of Object.keys(windowRules)) expect(paths, name).toContain(`rules/windows/w1/${name}`)
  })
})

describe('what is for one quiz only', () => {
  const codes = (needs: Rules['needs']) =>
    checkQuiz(quizWith({ needs }), {
      now: at('08:00'),
      zone: 'UTC',
      students: [],
      questions: new Map(),
      objectives: new Map(),
      scales: [],
      names: new Map([['p1', 'Petra Lund']]),
    })
      .map(({ code }) => code)
      .filter((code) => code.startsWith('need'))
  const need = (students: string[], more: object) => ({
    ...blankNeed({ id: students.join(), students, groups: [] }, noAccommodation),
    ...more,
  })
  it('that changes nothing, or is somebody’s who is gone, is worth a look', () => {
    expect(codes([need(['p1'], {}), need(['p9'], { factor: 2 }), need(['p1', 'p9'], { factor: 2 })])).toEqual([
      'need-empty:p1',
      'need-gone:p9',
    ])
    expect(codes([need(['p1'], { instead: true })])).toEqual([])
  })
  it('reads in the record as it was and is', () => {
    const words = (before: Rules['needs'], after: Rules['needs']) =>
      changesInWords(sampleRules({ needs: before }), sampleRules({ needs: after }), reading(full), full)
    const [plain, more] = [need(['p1'], { factor: 1.5 }), need(['p1'], { factor: 1.5, breakMinutes: 5, instead: true })]
    expect(words([], [plain])).toEqual(['for this quiz: Petra Lund: time and a half'])
    expect(words([plain], [more])).toEqual([
      'for this quiz: Petra Lund: time and a half → Petra Lund: time and a half, 5 minutes of breaks, in place of the rest',
    ])
    expect(words([plain], [])).toEqual(['for this quiz, taken out: Petra Lund: time and a half'])
  })
})

describe('sentences', () => {
  it('say the rules, each value in its slot', () => {
    expect(wordsOf(full, 'who')).toEqual([
      '[Tuesday evening] may start from [Tue 14 May, 09:00] [until Tue 14 May, 11:59], [due Tue 14 May, 11:00], starting at the latest [Tue 14 May, 10:00], [closed for everybody]. <take out>',
      'Whoever has the link [writes who they are, without signing in]; they write [“Name”] ([a name], [asked for], [may come twice]) <without “Name”> <one entry more>',
      'Beforehand it is [announced to them].',
      'Whoever it is for [has to sit it].',
      'Of all of them [everybody] may sit it.',
      'You see papers [with the names of who sat them].',
      'For this quiz [Petra Lund] has [time and a half] [within the window], [15 minutes of breaks that stop the clock] and [1 more attempt], [beside what they have in every quiz]. <extra minutes><a later end><larger type><take out>',
    ])
    expect(wordsOf(full, 'sitting').slice(0, 5)).toEqual([
      'Each student has [45 minutes] from when they start.',
      'What was written in time may arrive with [1 minute] of grace.',
      'When time is up, [let them finish, flagged as late].',
      'They may go on [10 minutes] at most.',
      'If the window closes on someone still working, [let their clock run out].',
    ])
    expect(wordsOf(full, 'marks')).toContain('To pass takes [60 %].')
    expect(wordsOf(full, 'release')).toContain('Correct answers: [when everyone is done]')
  })
  it('leave out what does not apply', () => {
    const plain = quizWith({ limit: null, attempts: { ...usualRules.attempts, count: 1 } })
    const all = [...wordsOf(plain, 'sitting'), ...wordsOf(plain, 'marks')].join(' ')
    for (const words of ['window closes on', 'go on', 'counts.', 'After the due time']) expect(all).not.toContain(words)
  })
  it('every slot stands for what is kept at its path, and its control can set it', () => {
    for (const slot of everySlot(full)) {
      expect(slot.words, slot.name).not.toBe('')
      const { control } = slot
      if (control.sort === 'people') continue
      expect(setAt(full, slot.path, slot.value), slot.name).toMatchObject({ was: slot.value })
      if (control.sort !== 'choice') continue
      expect(optionOf(control.options, slot.value), slot.name).toBeDefined()
      for (const option of control.options) {
        const value =
          option.fill?.sort === 'instant'
            ? { ...(option.value as object), [option.fill.key]: at('12:00') }
            : option.value
        expect(
          quizSchema.safeParse(applyEdit(full, setAt(full, slot.path, value)).quiz).success,
          `${slot.name}: ${option.label}`,
        ).toBe(true)
      }
    }
  })
  it('an offer is an edit that can be made', () => {
    const offers = sentencesOf('who', reading(quizWith())).flatMap(({ pieces }) =>
      pieces.filter((piece) => typeof piece === 'object' && 'offer' in piece),
    )
    expect(offers.map((each) => each.offer)).toEqual(['add a latest start', 'take out'])
    for (const { edit } of offers) {
      expect(editSchema.safeParse(edit).success).toBe(true)
      expect(() => applyEdit(quizWith(), edit)).not.toThrow()
    }
    expect(applyEdit(quizWith(), offers[0]!.edit).quiz.rules.windows[0]!.latestStart).toBe(at('11:29'))
  })
})

describe('what students are told', () => {
  const told = (rules: Partial<Rules>, content: Partial<Quiz['content']> = {}) => {
    const quiz = quizWith(rules, content)
    return toldToStudents({ quiz, schedule: scheduleFor(quiz.rules, sampleStudent()), zone: 'UTC' }).join(' ')
  }
  const attempts = (over: Partial<Rules['attempts']>) => ({ attempts: { ...usualRules.attempts, ...over } })
  it.each<[Partial<Rules>, RegExp, Partial<Quiz['content']>?]>([
    [{}, /You have 45 minutes\..*your clock keeps running.*When time is up, what is there is handed in/],
    [{ limit: null }, /no time limit.*When the window closes, what is there is handed in/],
    [{ atClosing: 'window' }, /also ends when the window closes/],
    [{ atDeadline: 'unsent' }, /not handed in counts as zero/],
    [{ atDeadline: 'finish' }, /you may finish/],
    [
      {},
      /forward only.*A wrong answer to a single choice costs/,
      { movement: 'forward', wrongCost: { by: 'formula' } },
    ],
    [attempts({ count: 3 }), /up to 3 attempts/],
    [attempts({ count: null }), /as often as you like/],
    [attempts({ count: 2, untilPassed: true, wait: 60 }), /at least 1 hour.*Once you have passed/],
    [{ windows: [{ ...sampleWindow, due: at('11:00') }] }, /It is due Tue 14 May, 11:00\./],
    [
      { windows: [{ ...sampleWindow, due: at('11:00') }], late: { accepted: false, costPerDay: 0, lastDays: null } },
      /Nothing is taken after the due time/,
    ],
    [{ windows: [{ ...sampleWindow, latestStart: at('10:00') }] }, /Start before Tue 14 May, 10:00/],
    [{ password: 'ebb' }, /need a password/],
  ])('%j', (rules, expected, content) => expect(told(rules, content)).toMatch(expected))
  it('never tell the password, and nothing of a window that is not theirs', () => {
    expect(told({ password: 'SECRET-ebb' })).not.toContain('SECRET')
    expect(
      told({ windows: [sampleWindow, { ...sampleWindow, id: 'w2', classes: ['sat'], due: at('11:11') }] }),
    ).not.toContain('11:11')
  })
})

describe('the latest start', () => {
  const window = (latestStart: string | null, over: object = {}) => ({
    windows: [{ ...sampleWindow, latestStart, ...over }],
  })
  const found = (rules: Partial<Rules>) => {
    const quiz = quizWith(rules)
    const run = (each: Quiz) =>
      checkQuiz(each, {
        now: at('08:00'),
        zone: 'UTC',
        questions: new Map([['q1', checkedQuestion('One')]]),
        scales: [],
        names: new Map([['tue', 'Tuesday evening']]),
        objectives: new Map(),
        students: [],
      })
    const hit = run(quiz).find((each) => each.code.startsWith('latest-start'))
    if (hit?.remedy && 'edit' in hit.remedy)
      expect(run(applyEdit(quiz, hit.remedy.edit).quiz).map((each) => each.code)).not.toContain(hit.code)
    return hit?.level ?? null
  }
  it.each<[string, Partial<Rules>, string | null]>([
    ['inside the window', window(at('10:00')), null],
    ['before it opens', window(at('08:30')), 'stop'],
    ['as it opens', window(at('09:00')), 'stop'],
    ['at its end', window(at('11:59')), 'look'],
    ['after its end', window(at('12:30')), 'look'],
    [
      'after a due time that ends it',
      { ...window(at('11:00'), { due: at('10:30') }), late: { accepted: false, costPerDay: 0, lastDays: null } },
      'look',
    ],
    ['after a due time that does not', window(at('11:00'), { due: at('10:30') }), null],
    ['in a window without an end', window(at('23:00'), { closes: null }), null],
  ])('%s', (_name, rules, level) => expect(found(rules)).toBe(level))
  it('is marked on the day line where it is one', () => {
    const marks = (over: object) => {
      const quiz = quizWith({ windows: [{ ...sampleWindow, ...over }] })
      return marksOf(quiz.rules.windows[0]!, scheduleFor(quiz.rules, sampleStudent())).map(({ sort }) => sort)
    }
    expect([marks({ latestStart: at('10:00') }), marks({ latestStart: at('12:00') }), marks({})]).toEqual([
      ['last'],
      [],
      [],
    ])
  })
})

describe('what the record says of a change', () => {
  const words = (before: Partial<Rules>, after: Partial<Rules>) =>
    changesInWords(sampleRules(before), sampleRules(after), reading(full), full)
  it.each<[Partial<Rules>, Partial<Rules>, string[]]>([
    [{}, {}, []],
    [{ limit: 45 }, { limit: 60 }, ['limit 45 → 60 minutes']],
    [{ limit: 45 }, { limit: null }, ['limit 45 minutes → none']],
    [{ limit: 60 }, { limit: 120 }, ['limit 1 hour → 2 hours']],
    [{ grace: 0 }, { grace: 2.5 }, ['grace none → 2 minutes 30 seconds']],
    [{ password: null }, { password: 'SECRET' }, ['password none → set']],
    [{ password: 'SECRET' }, { password: 'SECRET-2' }, ['password changed']],
    [
      { atClosing: 'clock' },
      { atClosing: 'window' },
      ['at the closing of the window let their clock run out → end the paper with the window'],
    ],
    [
      {},
      { windows: [{ ...sampleWindow, due: at('11:00') }] },
      ['window of Tuesday evening: due none → Tue 14 May, 11:00'],
    ],
    [{}, { windows: [] }, ['window of Tuesday evening taken out']],
    [{ windows: [] }, {}, ['window of Tuesday evening added: Tue 14 May, 09:00 to Tue 14 May, 11:59']],
    [
      {},
      { release: { ...usualRules.release, key: { ...usualRules.release.key, from: { at: 'handIn', offset: 30 } } } },
      ['correct answers when everyone is done → 30 minutes after: on handing in'],
    ],
    [{}, { grade: { ...usualRules.grade, decimals: 0, pass: null } }, ['decimals 1 → 0', 'pass mark 60 % → none']],
    [
      {},
      { attempts: { ...usualRules.attempts, count: null, wait: 5 } },
      ['attempts 1 → any number', 'wait between attempts none → 5 minutes'],
    ],
  ])('%j → %j', (before, after, expected) => expect(words(before, after)).toEqual(expected))
  it('a class from which it is held back is given it by a link in the sentence', () => {
    const held = quizWith({ heldBack: ['tue', 'gone'] })
    const [said] = sentencesOf('who', reading(held)).filter(({ key }) => key === 'held-back')
    const [words, give] = said!.pieces as [string, { offer: string; edit: Edit }]
    expect([words, give.offer]).toEqual([
      'It is held back from Tuesday evening and a class that is gone. ',
      'Give it to Tuesday evening',
    ])
    expect(applyEdit(held, give.edit).quiz.rules.heldBack).toEqual(['gone'])
    expect(wordsOf(quizWith(), 'who').join()).not.toContain('held back')
  })
  it('every rule that is changed is said, and a password never', () => {
    const other: Rules = {
      windows: [],
      link: { audience: 'c9', by: 'fields', fields: [] },
      places: 30,
      best: 'names',
      receipt: 'answers',
      notices: { ...usualRules.notices, opening: { on: true, words: null } },
      heldBack: ['c1'],
      anonymous: true,
      needs: [{ ...blankNeed({ id: 'n', students: ['p1'], groups: [] }, noAccommodation), factor: 1.5 }],
      announced: false,
      limit: 5,
      grace: 5,
      atDeadline: 'unsent',
      overrun: 7,
      atClosing: 'window',
      password: 'SECRET',
      counts: 'completion',
      attempts: { count: 2, wait: 1, draw: 'same', untilPassed: true, untilShare: null, cost: 3, again: false },
      grade: {
        method: 'lowest',
        decimals: 3,
        pass: null,
        scale: { by: 'points' },
        sections: [{ id: 'pass-s1', section: 's1', percent: 40 }],
      },
      voluntary: true,
      gradebook: { category: 'Tests', period: null },
      done: 'passed',
      tools: { calculator: 'plain', ruler: true, notes: true, highlight: true, strike: false, flags: false },
      progress: false,
      oneSitting: 5,
      watched: true,
      working: { check: true, tries: 2, cost: 5, comments: true, hints: true, hintCost: 2 },
      late: { accepted: false, costPerDay: 2, lastDays: null },
      release: Object.fromEntries(
        Object.keys(usualRules.release).map((name) => [
          name,
          { from: { at: 'teacher' }, until: null, once: true, ifPassed: true, wrongOnly: false },
        ]),
      ) as Rules['release'],
    }
    for (const name of Object.keys(quizRules) as (keyof Rules)[])
      expect(
        changesInWords(sampleRules(), { ...sampleRules(), [name]: other[name] }, reading(full), full).length,
        name,
      ).toBeGreaterThan(0)
    expect(changesInWords(sampleRules(), other, reading(full), full).join()).not.toContain('SECRET')
  })
})

describe('older stored forms', () => {
  it('get what is missing from the usual values, and lose what is no rule', () => {
    const { limit, grade, ...rest } = sampleRules()
    const old = {
      ...rest,
      grade: { method: grade.method, decimals: grade.decimals },
      windows: [{ id: 'w1', classes: ['tue'], opens: at('09:00'), closes: null }],
      gone: 1,
    }
    const now = completedRules(old)
    expect(rulesSchema.parse(now)).toMatchObject({
      limit: 45,
      grade: { ...grade },
      windows: [{ ...sampleWindow, closes: null }],
    })
    expect([limit, now]).toEqual([45, expect.not.objectContaining({ gone: 1 })])
  })
  it('a facet that came later is never shown', () => {
    const { certificate: _, ...release } = usualRules.release
    expect(completedRules({ ...sampleRules(), release })).toMatchObject({
      release: { certificate: { from: { at: 'never' } } },
    })
  })
  it('today’s stay as they are, and so do settings of a content', () => {
    expect(completedRules({ ...full.rules })).toEqual(full.rules)
    expect(completedSettings({ pages: { by: 'count', count: 3 } })).toEqual({
      introShown: 'before',
      languages: [],
      sideBySide: false,
      movement: 'free',
      putOff: false,
      pages: { by: 'count', count: 3 },
      shuffleOptions: true,
      wrongCost: { by: 'none' },
    })
  })
})

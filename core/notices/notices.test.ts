import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { plus, type Instant } from '../kit/time'
import type { Rules } from '../quiz'
import { visibleFacets, type ReleaseContext } from '../release'
import { noticeNames, type NoticeName } from '../rules'
import { scheduleFor } from '../schedule'
import { dueNotices, letterOf, timesOf, type LetterFacts, type NoticeAttempt, type NoticeStudent } from '.'

const hour = 3_600_000
const on = { on: true, words: null }
const all: Rules['notices'] = {
  opening: on,
  reminder: { ...on, hours: 2 },
  times: on,
  receipt: on,
  release: on,
  results: on,
}
const rules = sampleRules({ limit: 45, notices: all })
const never = Object.fromEntries(
  Object.entries(rules.release).map(([name, rule]) => [name, { ...rule, from: { at: 'never' as const } }]),
) as Rules['release']

/** A student whose letters are noted as they are sent. */
class Person {
  told = new Map<string, string>()
  sent: string[] = []
  attempts: NoticeAttempt[] = []
  noReminders = false
  constructor(public rules: Rules) {}
  look(now: Instant) {
    const student: NoticeStudent = {
      schedule: scheduleFor(this.rules, sampleStudent()),
      attempts: this.attempts,
      noReminders: this.noReminders,
      told: this.told,
    }
    const { due, next } = dueNotices(this.rules, student, now)
    for (const { name, about, value, silent, facets } of due) {
      this.told.set(`${name} ${about}`, value)
      if (!silent) this.sent.push([name, ...facets].join(' '))
    }
    return next
  }
}
/** An attempt of which a facet is shown from an instant on. */
function handed(
  handedInAt: Instant,
  release: Rules['release'],
  now: Instant,
  more: Partial<ReleaseContext> = {},
): NoticeAttempt {
  const context: ReleaseContext = {
    handedInAt,
    markedAt: handedInAt,
    passed: true,
    attemptsUsedAt: null,
    due: null,
    classEnd: { is: 'at', at: at('12:45') },
    everyoneEnd: { is: 'at', at: at('13:00') },
    releasedAt: null,
    againUntil: { is: 'beforeAll' },
    viewed: [],
    ...more,
  }
  return {
    id: 'a1',
    number: 1,
    handedInAt,
    state: 'handed',
    visible: visibleFacets(release, context, now),
    gradeInLists: true,
  }
}

describe('letters that are due', () => {
  it('tell once of the quiz, and of a change of times to whom it touches', () => {
    const who = new Person(rules)
    who.look(at('08:00'))
    who.look(at('08:01'))
    expect(who.sent).toEqual(['opening'])
    who.rules = { ...rules, windows: [{ ...sampleWindow, closes: at('13:00') }] }
    who.look(at('08:02'))
    who.look(at('08:03'))
    expect(who.sent).toEqual(['opening', 'times'])
    // Back again is a change as well.
    who.rules = rules
    who.look(at('08:04'))
    expect(who.sent).toEqual(['opening', 'times', 'times'])
    who.rules = { ...rules, windows: [] }
    who.look(at('08:04'))
    expect(who.sent).toEqual(['opening', 'times', 'times', 'times'])
    who.rules = rules
    who.look(at('08:04'))
    // What is no time of theirs changes nothing for them.
    who.rules = { ...rules, windows: [sampleWindow, { ...sampleWindow, id: 'w2', classes: ['other'] }] }
    who.look(at('08:05'))
    expect(who.sent).toHaveLength(5)
  })

  it('say nothing beforehand of what is not announced, and nothing of what is over', () => {
    const quiet = new Person({ ...rules, announced: false })
    expect(quiet.look(at('08:00'))).toBe(at('09:00'))
    expect(quiet.sent).toEqual([])
    quiet.look(at('09:00'))
    expect(quiet.sent).toContain('opening')
    const late = new Person(rules)
    late.look(at('20:00'))
    expect(late.sent).toEqual([])
  })

  it('say nothing to whom it is held back from, until it is given', () => {
    const who = new Person({ ...rules, heldBack: ['tue'] })
    who.look(at('08:00'))
    who.look(at('10:00'))
    expect(who.sent).toEqual([])
    who.rules = rules
    who.look(at('10:01'))
    expect(who.sent).toEqual(['opening', 'reminder'])
    who.rules = { ...rules, heldBack: ['tue'] }
    who.look(at('10:02'))
    expect(who.sent).toEqual(['opening', 'reminder', 'times'])
  })

  it('remind once before the end of a window, who has not begun and wants reminders', () => {
    const who = new Person(rules)
    expect(who.look(at('08:30'))).toBe(at('09:00'))
    expect(who.look(at('09:30'))).toBe(at('09:59'))
    expect(who.sent).toEqual(['opening'])
    who.look(at('10:00'))
    who.look(at('10:30'))
    expect(who.sent).toEqual(['opening', 'reminder'])
    const none = new Person(rules)
    none.noReminders = true
    none.look(at('10:00'))
    expect(none.sent).toEqual(['opening'])
    const begun = new Person(rules)
    begun.attempts = [{ id: 'a', number: 1, handedInAt: null, state: 'open', visible: null, gradeInLists: false }]
    begun.look(at('10:00'))
    expect(begun.sent).toEqual(['opening'])
    // In a window that is shorter than the hours before, as it opens.
    const short = new Person({ ...rules, windows: [{ ...sampleWindow, closes: at('10:00') }] })
    expect(short.look(at('08:00'))).toBe(at('09:00'))
    const due = new Person({ ...rules, windows: [{ ...sampleWindow, due: at('11:30') }] })
    due.look(at('09:29'))
    expect(due.sent).toEqual(['opening'])
    due.look(at('09:30'))
    expect(due.sent).toEqual(['opening', 'reminder'])
  })

  it('acknowledge a paper once, and tell of what is shown later than on handing in', () => {
    const release = {
      ...never,
      score: { ...never.score, from: { at: 'handIn' as const, offset: 0 } },
      key: { ...never.key, from: { at: 'windowClosed' as const, offset: 0 } },
      marks: { ...never.marks, from: { at: 'everyoneDone' as const, offset: 0 } },
      grade: { ...never.grade, from: { at: 'everyoneDone' as const, offset: 0 } },
    }
    const who = new Person({ ...rules, release })
    const look = (now: Instant) => {
      who.attempts = [handed(at('09:30'), release, now)]
      return who.look(now)
    }
    expect(look(at('09:31'))).toBe(at('12:45'))
    expect(who.sent).toEqual(['opening', 'receipt'])
    look(at('12:45'))
    look(at('12:50'))
    expect(who.sent).toEqual(['opening', 'receipt', 'release key'])
    look(at('13:00'))
    expect(who.sent).toEqual(['opening', 'receipt', 'release key', 'release grade marks', 'results'])
    // A release that is taken back and comes again tells nothing new.
    look(at('12:50'))
    look(at('13:00'))
    expect(who.sent).toHaveLength(5)
  })

  it('tell once of what is hidden for a while, and of a paper again that was taken up again', () => {
    const until = { ...never.questions, from: { at: 'instant' as const, instant: at('10:00') }, until: at('10:30') }
    const key = { ...never.key, from: { at: 'instant' as const, instant: at('10:40') } }
    const [first, second] = [
      { ...never, questions: until },
      { ...never, questions: { ...until, until: null }, key },
    ]
    const who = new Person({ ...rules, release: first })
    const look = (now: Instant, release: Rules['release'] = first, handedInAt = at('09:30')) => {
      who.attempts = [handed(handedInAt, release, now)]
      who.look(now)
    }
    look(at('10:00'))
    look(at('10:40'), { ...first, key })
    look(at('10:41'), second)
    expect(who.sent).toEqual(['opening', 'receipt', 'release questions', 'release key'])
    look(at('10:45'), second, at('10:44'))
    expect(who.sent.filter((each) => each === 'receipt')).toHaveLength(2)
  })

  it('tell nothing that is a day old, whatever was switched on since', () => {
    const release = { ...never, key: { ...never.key, from: { at: 'windowClosed' as const, offset: 0 } } }
    const who = new Person({ ...rules, release })
    const now = plus(at('12:45'), 25 * hour)
    who.attempts = [handed(at('09:30'), release, now)]
    who.look(now)
    expect(who.sent).toEqual([])
    const soon = new Person({ ...rules, release })
    soon.attempts = [handed(at('09:30'), release, plus(at('12:45'), 23 * hour))]
    soon.look(plus(at('12:45'), 23 * hour))
    expect(soon.sent).toEqual(['release key'])
  })

  it('of papers without names tell only what is the same for everybody', () => {
    const release = { ...never, score: { ...never.score, from: { at: 'windowClosed' as const, offset: 0 } } }
    const who = new Person({ ...rules, release, anonymous: true })
    who.look(at('10:00'))
    who.attempts = [handed(at('10:10'), release, at('12:45'))]
    who.look(at('12:45'))
    expect(who.sent).toEqual(['opening'])
  })

  it('are all silent where they are off, and noted all the same', () => {
    const off = Object.fromEntries(
      noticeNames.map((name) => [name, { ...all[name], on: false }]),
    ) as unknown as Rules['notices']
    const who = new Person({ ...rules, notices: off })
    who.look(at('10:00'))
    expect(who.sent).toEqual([])
    who.rules = rules
    who.look(at('10:01'))
    expect(who.sent).toEqual([])
  })
})

describe('a letter', () => {
  const schedule = scheduleFor(
    { ...rules, windows: [{ ...sampleWindow, due: at('11:30'), latestStart: at('11:00') }] },
    sampleStudent(),
  )
  const facts = (name: NoticeName): LetterFacts => ({
    name,
    title: 'Tides',
    school: 'Kelp Lane School',
    student: 'Petra Lund',
    zone: 'Europe/London',
    schedule,
    words: 'Bring your tables.',
    site: 'https://quiz.example',
    quiz: 'q1',
    attempt: 'a1',
    handedIn: { at: at('09:30'), answered: 1, questions: 5, code: 'abc123' },
    facets: ['key', 'comments'],
    grade: { text: '72.5 %', passed: true },
    at: at('11:30'),
    stop: 'https://quiz.example/reminders/t',
  })
  it.each(noticeNames)('%s: is to its student, with the teacher’s words and a place to go on', (name) => {
    const { subject, body } = letterOf(facts(name))
    expect(subject).toContain('Tides')
    expect(body).toMatch(/^Hello Petra Lund,\n\nBring your tables\.\n\n/)
    expect(body).toContain(['receipt', 'release', 'results'].includes(name) ? '/review/a1' : '/my/q1')
    expect(body.includes('/reminders/t')).toBe(name === 'reminder')
    expect(body.endsWith('\nKelp Lane School\n')).toBe(true)
    expect(`${subject}${body}`).not.toMatch(/undefined|null|NaN/)
  })
  it('says a student’s own times in the school’s zone', () => {
    expect(letterOf(facts('opening')).body).toContain(
      'from Tue 14 May, 10:00 to Tue 14 May, 12:59; start by Tue 14 May, 12:00; due Tue 14 May, 12:30; you have 45 minutes\n(times of Kelp Lane School, Europe/London)',
    )
  })
  it('says what can be seen, and a result only with its grade', () => {
    expect(letterOf(facts('release')).body).toContain('you can now see: correct answers and comments on answers.')
    expect(letterOf(facts('results')).body).toContain('is 72.5 %: passed.')
    expect(letterOf(facts('receipt')).body).toContain(
      '1 answer to 5 questions was kept. The code of this receipt is abc123.',
    )
  })
  it('of times that were taken out says so, and without an address leads nowhere', () => {
    const gone = letterOf({ ...facts('times'), schedule: { ...schedule, windows: [] }, site: '', words: null })
    expect(gone.body).toContain('your times for it were taken out')
    expect(gone.body).not.toContain('http')
  })
  it('times are told anew when a window, its due time, its last start or the limit is another', () => {
    const own = (more: object, limit = 45) =>
      timesOf(scheduleFor({ ...rules, limit, windows: [{ ...sampleWindow, ...more }] }, sampleStudent()))
    const seen = new Set([
      own({}),
      own({ opens: at('08:00') }),
      own({ closes: at('12:30') }),
      own({ due: at('11:30') }),
      own({ latestStart: at('11:00') }),
      own({}, 60),
    ])
    expect(seen.size).toBe(6)
    expect(own({ password: 'x' })).toBe(own({}))
  })
})

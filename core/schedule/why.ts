import { count, duration, sentenceTime } from '../kit/phrases'
import { day, minute, plus, type Instant } from '../kit/time'
import { addTo, setAt } from '../quiz/edits/make'
import type { Remedy } from '../quiz/check/check'
import type { QuizState } from '../quiz/state'
import { noAccommodation } from '../quiz/accommodation'
import type { Quiz, Student } from '../quiz/schema'
import { blankNeed } from '../rules/needs'
import { whoWords } from '../rules/window/who'
import { blankWindow } from '../rules/windows'
import type { Sat } from './attempts'
import { lastStartOf } from './clock'
import { maySit, seesQuiz, type MaySit, type WhyNot } from './may-sit'
import { givenIn, mostGenerous, scheduleFor, standsInstead, type Schedule } from './schedule'

/** Whether somebody sees a quiz and can sit it, for their teacher: the rule that decides, and what would let them. */
export interface Why {
  sees: boolean
  may: boolean
  /** In the teacher's words. */
  sentence: string
  /** In the words that the student reads, where they see it. */
  told: string
  remedy: Remedy | null
}

interface Asked {
  quiz: Quiz
  state: QuizState
  student: Student
  sat: Sat
  now: Instant
  zone: string
  names: ReadonlyMap<string, string>
  /** An id for what a remedy adds. */
  newId: string
  /** Places that are taken, where only so many may sit it. */
  taken?: number
}

/** When the wait after their last attempt is over. */
const readyAt = ({ quiz, sat, now }: Asked): Instant =>
  sat.attempts
    .map(({ handedInAt }) => plus(handedInAt ?? now, quiz.rules.attempts.wait * minute))
    .reduce((latest, each) => (each > latest ? each : latest), now)

/** A window of their own, for a day from an instant: theirs in place of what they have. */
function ownWindow({ quiz, student, now, newId }: Asked, label: string, from: Instant = now): Remedy {
  const { windows } = quiz.rules
  const window = blankWindow({ id: newId, students: [student.id], opens: now, closes: plus(from, day) })
  return { label, edit: addTo(['rules', 'windows'], windows.at(-1)?.id ?? null, [window]) }
}

/** The most attempts that somebody can be given beside those that everybody has. */
const mostMore = 20

/** One attempt beside all that they have: it counts on what was given before, also where that stands in place of all else. */
function oneMore({ quiz, student, newId }: Asked): Remedy | null {
  const own = mostGenerous(givenIn(quiz.rules, student))
  if (own.moreAttempts >= mostMore) return null
  const instead = standsInstead(quiz.rules, student)
  const blank = blankNeed({ id: newId, students: [student.id], groups: [] }, instead ? own : noAccommodation)
  const need = { ...blank, moreAttempts: own.moreAttempts + 1, instead }
  return {
    label: 'Give them one more attempt',
    edit: addTo(['rules', 'needs'], quiz.rules.needs.at(-1)?.id ?? null, [need]),
  }
}

/** The windows that count for them, in words. */
function windowsWords(schedule: Schedule, { student, names, zone }: Asked): string {
  return schedule.windows
    .map((window) => {
      const own = window.students.includes(student.id)
      const whose = own ? 'their own window' : `the window of ${whoWords(window, names)}`
      const last = lastStartOf(schedule, window)
      return `${whose}, from ${sentenceTime(window.opens, zone)}${last ? ` to ${sentenceTime(last, zone)}` : ''}`
    })
    .join('; ')
}

type No = Extract<MaySit, { may: false }>

function decided(why: WhyNot, found: No, schedule: Schedule, asked: Asked): { words: string; remedy: Remedy | null } {
  const { state, sat, quiz, zone } = asked
  const from = found.from && sentenceTime(found.from, zone)
  const windows = windowsWords(schedule, asked)
  switch (why) {
    case 'sitting':
      return { words: `is working on attempt ${found.sitting} and may go on with it`, remedy: null }
    case 'state':
      return { words: `cannot: the quiz is ${state}`, remedy: null }
    case 'notMeant':
      return {
        words: 'does not see it: no window is for them, nor for a class or group of theirs',
        remedy: ownWindow(asked, 'Let them sit it for a day from now'),
      }
    case 'held':
      return {
        words:
          schedule.held === 'class'
            ? 'does not see it: all quizzes of their class are held back, on the page of the class'
            : 'does not see it: it is held back from their class',
        remedy: ownWindow(asked, 'Let them sit it all the same, for a day from now'),
      }
    case 'full':
      return {
        words: `finds no place: ${count(quiz.rules.places!, 'place')}, all taken`,
        // There may be more than places: some were taken before there were so few.
        remedy: {
          label: 'Add a place',
          edit: setAt(quiz, ['rules', 'places'], Math.max(quiz.rules.places!, asked.taken ?? 0) + 1),
        },
      }
    case 'used': {
      const allowed = count(schedule.attempts.count ?? 0, 'attempt')
      return { words: `has used ${allowed}, which is all that there is`, remedy: oneMore(asked) }
    }
    case 'passed':
      return { words: 'has passed, and the rules give attempts until then', remedy: null }
    case 'reached':
      return {
        words: `has reached ${schedule.attempts.untilShare} %, and the rules give attempts until then`,
        remedy: null,
      }
    case 'allRight':
      return { words: 'has answered everything right, and further attempts hold only what was missed', remedy: null }
    case 'marking':
      return {
        words: 'waits for a mark: until it is there, nobody knows what a further attempt would be',
        remedy: null,
      }
    case 'wait':
      return {
        words: `has to wait ${duration(quiz.rules.attempts.wait)} after an attempt, until ${from}`,
        remedy: null,
      }
    case 'waitTooLong':
      return {
        words: `would have to wait ${duration(quiz.rules.attempts.wait)} after attempt ${sat.attempts.length}, and by then it is closed`,
        remedy: ownWindow(asked, 'Let them sit it for a day when the wait is over', readyAt(asked)),
      }
    case 'opens':
      return {
        words: `can sit it from ${from}: ${windows}`,
        remedy: ownWindow(asked, 'Let them sit it now, for a day'),
      }
    case 'latestStart':
    case 'closed':
      return {
        words: `is too late${why === 'latestStart' ? ' to start' : ''}: ${windows}`,
        remedy: ownWindow(asked, 'Let them sit it for a day from now'),
      }
  }
}

/** Who can see and sit a quiz, and why not: the same decision as the student's own page, in a sentence for the teacher. */
export function whySit(asked: Asked): Why {
  const { quiz, state, student, sat, now, zone } = asked
  const schedule = scheduleFor(quiz.rules, student)
  const found = maySit(state, schedule, sat, now, zone)
  const sees = seesQuiz(state, schedule, quiz.rules.announced, sat.attempts.length, now)
  if (state === 'draft') {
    const opened = whySit({ ...asked, state: 'open' })
    const sentence = `The quiz is a draft. Opened now, ${opened.sentence}`
    return { ...opened, sees, may: false, told: sees ? found.sentence : '', sentence }
  }
  if (found.may)
    return {
      sees,
      may: true,
      sentence: `${student.name} can start attempt ${found.attempt}: ${windowsWords(schedule, asked)}.`,
      told: found.sentence,
      remedy: null,
    }
  const { words, remedy } = decided(found.why, found, schedule, asked)
  const unseen = !sees && found.why === 'opens' ? ' It is not announced to them, so they do not see it yet.' : ''
  return { sees, may: false, sentence: `${student.name} ${words}.${unseen}`, told: sees ? found.sentence : '', remedy }
}

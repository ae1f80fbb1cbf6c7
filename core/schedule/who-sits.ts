import { list, sentenceTime } from '../kit/phrases'
import type { Instant } from '../kit/time'
import type { QuizState } from '../quiz/state'
import type { Rules } from '../quiz/schema'
import { studentOfClass } from './assigned'
import { notSat } from './attempts'
import { lastStartOf } from './clock'
import { maySit, seesQuiz } from './may-sit'
import { scheduleFor } from './schedule'

/**
 * Which classes see a quiz and can sit it, and when, in one sentence for the teacher: by the decision that the student's own
 * page asks (semantics §3). Classes of whom the same holds are named together. What single students have is for `whySit`.
 * @param classes those to speak of, in their order; `held` are those whose quizzes are held back
 */
export function whoSits(
  rules: Rules,
  state: QuizState,
  classes: readonly { id: string; name: string; held?: boolean }[],
  now: Instant,
  zone: string,
): string {
  // A draft is spoken of as it would be opened.
  const opened = state === 'draft' ? 'open' : state
  const parts = new Map<string, string[]>()
  for (const { id, name, held } of classes) {
    const schedule = scheduleFor(rules, { ...studentOfClass(id), ...(held ? { held: [id] } : {}) })
    const found = maySit(opened, schedule, notSat, now, zone)
    const sees = seesQuiz(opened, schedule, rules.announced, 0, now)
    const words = wordsOf(found, sees, schedule, zone)
    parts.set(words, [...(parts.get(words) ?? []), name])
  }
  const sentence = [...parts]
    .map(([words, names]) => `${list(names)} ${names.length > 1 ? plural(words) : words}`)
    .join('; ')
  return sentence ? `${sentence}.` : ''
}

/** "does not see it" of several. */
const plural = (words: string) => words.replace('does not see', 'do not see')

function wordsOf(
  found: ReturnType<typeof maySit>,
  sees: boolean,
  schedule: ReturnType<typeof scheduleFor>,
  zone: string,
): string {
  if (found.may) {
    const window = schedule.windows.find(({ id }) => id === found.window)!
    const last = lastStartOf(schedule, window)
    return last ? `can sit it now, until ${sentenceTime(last, zone)}` : 'can sit it now'
  }
  switch (found.why) {
    case 'opens':
      return `can sit it from ${sentenceTime(found.from!, zone)}${sees ? '' : ', and does not see it before'}`
    case 'latestStart':
    case 'closed':
      return 'cannot begin it any more'
    case 'state':
      return 'cannot sit it'
    case 'held':
      return schedule.held === 'class'
        ? 'does not see it, for all quizzes of the class are held back'
        : 'does not see it yet, for it is held back from them'
    default:
      return 'does not see it'
  }
}

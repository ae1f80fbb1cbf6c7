import { few } from '../../kit/phrases'
import { removeFrom, setAt, together } from '../edits/make'
import type { Quiz } from '../schema'
import { look, type CheckContext, type Found } from './check'

type Student = CheckContext['students'][number]

/** Checks of who sits: what is given to somebody in vain, students of two classes, classes of nobody. */

/** What is given to somebody and changes nothing in this quiz. */
export function uselessNeedChecks(quiz: Quiz, { students }: CheckContext): Found {
  const { limit, windows } = quiz.rules
  const ends = windows.some(({ closes, due, latestStart }) => closes !== null || due !== null || latestStart !== null)
  const timed = quiz.content.sections.some((section) => section.limit !== null)
  const reasons: { who: (need: Student['schedule']['given'][number]) => boolean; words: string }[] = [
    {
      who: (need) =>
        (need.factor > 1 || need.extraMinutes > 0) && limit === null && !timed && !(need.stretchWindow && ends),
      words: 'there is no time limit that more time could lengthen',
    },
    { who: (need) => need.breakMinutes > 0 && limit === null, words: 'there is no clock that a break could stop' },
    { who: (need) => need.laterMinutes > 0 && !ends, words: 'no window ends that could end later' },
    {
      who: (need) => need.moreAttempts > 0 && quiz.rules.attempts.count === null,
      words: 'everybody has any number of attempts',
    },
  ]
  return reasons.flatMap(({ who, words }, i) => {
    const named = students.filter(({ schedule }) => schedule.given.some(who)).map(({ name }) => name)
    return named.length
      ? [
          look(
            `need-useless:${i}`,
            'rules',
            'An accommodation changes nothing here',
            `${few(named)}: ${words}.`,
            i === 0 ? { label: 'Set a limit of 60 minutes', edit: setAt(quiz, ['rules', 'limit'], 60) } : null,
          ),
        ]
      : []
  })
}

/** Students who are in two classes whose windows differ, and classes without students. */
export function peopleChecks(quiz: Quiz, { students, names }: CheckContext): Found {
  const { windows } = quiz.rules
  const classes = [...new Set(windows.flatMap((window) => window.classes))]
  const several = students.filter(
    ({ schedule }) =>
      schedule.windows.length > 1 &&
      new Set(schedule.windows.map(({ classes: meant, opens, closes }) => `${meant.join()} ${opens} ${closes}`)).size >
        1 &&
      new Set(schedule.windows.map(({ classes: meant }) => meant.join())).size > 1 &&
      schedule.windows.every(({ students: own, groups }) => !own.length && !groups.length),
  )
  const filled = new Set(students.flatMap((student) => student.classes))
  const held = students.filter(({ schedule }) => schedule.held === 'class')
  const empty = classes.filter((each) => names.has(each) && !filled.has(each))
  return [
    ...(held.length
      ? [
          look(
            'held-back',
            'rules',
            'Held back on the page of the class',
            `${few(held.map(({ name }) => name))}: all quizzes of their class are held back, and this one with them.`,
          ),
        ]
      : []),
    ...(several.length
      ? [
          look(
            'two-windows',
            'rules',
            'In two classes with different windows',
            `${few(several.map(({ name }) => name))} may start in the window of either class; whichever ends later is theirs.`,
          ),
        ]
      : []),
    ...empty.map((each) =>
      look(
        `empty-class:${each}`,
        'rules',
        'A class without students',
        `Nobody is in ${names.get(each)!}: its window lets nobody sit.`,
        {
          label: 'Take that class out',
          edit: together(
            windows.flatMap((window) =>
              !window.classes.includes(each)
                ? []
                : window.classes.length + window.groups.length + window.students.length > 1
                  ? removeFrom(quiz, ['rules', 'windows', window.id, 'classes'], [each])
                  : removeFrom(quiz, ['rules', 'windows'], [window.id]),
            ),
          )!,
        },
      ),
    ),
  ]
}

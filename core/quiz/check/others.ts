import { count, few, sentenceTime } from '../../kit/phrases'
import { hasEnded, instantOfEnd, latest, type Instant } from '../../kit/time'
import { leakBetween } from '../../release/between'
import { telling } from '../../release/names'
import { facetLabels } from '../../release/schema'
import { facetsOf } from '../../release/under-rules'
import { latestEnd } from '../../schedule/starts'
import { setAt, together } from '../edits/make'
import type { Quiz } from '../schema'
import { look, type CheckContext, type Found } from './check'

const endWords = (until: Instant | null, zone: string) =>
  until ? `until ${sentenceTime(until, zone)}` : 'without an end'

/** Other quizzes that share questions with this one: what each gives away of the other. */
export function sharedQuestionChecks(quiz: Quiz, { others = [], students, zone }: CheckContext): Found {
  return others.flatMap(({ id, title, shared, rules, students: theirs }): Found => {
    const questions = count(shared, 'question')
    const out = leakBetween({ rules: quiz.rules, everyone: students }, theirs)
    const back = leakBetween({ rules, everyone: theirs }, students)
    const moment = out?.until ? { at: 'instant' as const, instant: out.until } : null
    const names = telling.filter((name) => facetsOf(quiz.rules).includes(name))
    const edit = moment && together(names.map((name) => setAt(quiz, ['rules', 'release', name, 'from'], moment)))
    return [
      ...(out
        ? [
            look(
              `shared-out:${id}`,
              'rules',
              `Gives away ${questions} of “${title}”`,
              `From ${sentenceTime(out.at, zone)} “${facetLabels[out.facet].toLowerCase()}” is shown here; ${questions} are in “${title}” as well, which ${count(out.sitters.length, 'student')} can still sit then, ${endWords(out.until, zone)}.`,
              edit ? { label: `Show it when “${title}” is over`, edit } : null,
            ),
          ]
        : []),
      ...(back
        ? [
            look(
              `shared-in:${id}`,
              'rules',
              `“${title}” gives away ${questions} of this`,
              `From ${sentenceTime(back.at, zone)} “${facetLabels[back.facet].toLowerCase()}” is shown there; ${questions} are in this quiz as well, which ${count(back.sitters.length, 'student')} can still sit then, ${endWords(back.until, zone)}.`,
            ),
          ]
        : []),
    ]
  })
}

/** Who has already seen what gives the key away, while others can still sit: after somebody was added or given more time. */
export function alreadySeenChecks(quiz: Quiz, { seen = [], begun, students, zone, now }: CheckContext): Found {
  const known = seen.filter(({ facet }) => telling.includes(facet))
  if (!known.length) return []
  const knows = new Set(known.map(({ student }) => student))
  const waiting = students.filter(({ schedule }) => {
    const { count: most } = schedule.attempts
    const used = most !== null && (begun?.get(schedule.student) ?? 0) >= most
    return !used && !knows.has(schedule.student) && !hasEnded(latestEnd(schedule), now)
  })
  if (!waiting.length) return []
  const [first] = [...known].sort((a, b) => (a.at < b.at ? -1 : 1))
  const until = instantOfEnd(latest(waiting.map(({ schedule }) => latestEnd(schedule))))
  const who = [...new Set(known.map(({ name }) => name))]
  return [
    look(
      'seen-already',
      'rules',
      'Some have seen the answers already',
      `${few(who)} ${who.length === 1 ? 'has' : 'have'} seen “${facetLabels[first!.facet].toLowerCase()}”, first ${sentenceTime(first!.at, zone)}; ${few(waiting.map(({ name }) => name))} can still sit, ${endWords(until, zone)}. What has been seen cannot be taken back: another draw or other questions would help.`,
    ),
  ]
}

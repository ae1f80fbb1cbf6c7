import { count, duration } from '../kit/words'
import type { Content, Rules } from '../quiz/schema'

/** What students are told before they start, written from the rules. Nothing in it is set by hand. */
export function toldToStudents(
  rules: Rules,
  content: Pick<Content, 'movement' | 'wrongCost'>,
  limit: number | null,
): string[] {
  const told: string[] = []
  if (limit !== null) {
    told.push(`You have ${duration(limit)}.`)
    told.push('If you lose your connection, come back: your answers are kept and your clock keeps running.')
  } else told.push('There is no time limit. Your answers are kept as you go, and you may come back.')
  if (limit !== null && rules.atClosing === 'window')
    told.push('The paper also ends when the window closes, even if your time is not up.')
  const ends =
    limit !== null
      ? 'When time is up'
      : rules.windows.some((window) => window.closes !== null)
        ? 'When the window closes'
        : null
  if (rules.atDeadline === 'handIn' && ends) told.push(`${ends}, what is there is handed in.`)
  if (rules.atDeadline === 'finish' && ends)
    told.push(`${ends} you may finish, and what comes after is flagged as late.`)
  if (rules.atDeadline === 'unsent')
    told.push('Hand in before time is up: a paper that is not handed in counts as zero.')
  if (content.movement === 'forward')
    told.push('You go through the pages forward only: a page that you have left cannot be changed.')
  if (content.wrongCost.by !== 'none')
    told.push('A wrong answer to a single choice costs points; leaving it out does not.')
  if (rules.attempts.count === null) told.push('You may sit it as often as you like.')
  else if (rules.attempts.count > 1) told.push(`You have up to ${count(rules.attempts.count, 'attempt')}.`)
  return told
}

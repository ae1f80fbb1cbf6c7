import { fixed, exact } from '../../kit/exact'
import { minute, ms } from '../../kit/time'
import { duration } from '../../kit/words'
import type { Quiz } from '../schema'
import { allRows, rowPoints } from '../walk'
import { type Found, stop, look } from './check'

export function attemptChecks(rules: Quiz['rules']): Found {
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

export function passChecks({ content, rules }: Quiz): Found {
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

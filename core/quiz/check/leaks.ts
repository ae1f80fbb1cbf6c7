import { count, sentenceTime } from '../../kit/words'
import { leaks } from '../../release'
import { facetLabels } from '../../release/schema'
import type { Quiz } from '../schema'
import { type CheckContext, type Found, look } from './check'

export function leakChecks({ rules }: Quiz, context: CheckContext): Found {
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

import { seededRandom } from '../../kit/random'
import { kindOf } from '../kinds'
import type { Question } from '../schema'
import { mapQuestionHtml } from '../texts'
import { ExpressionError, namesIn, takenNames } from './expression'
import { instanceOf } from './instance'
import { drawValues, sizeOf } from './sample'
import { hasPlaceholder, type Values, type Vary } from './schema'

const seed = '7e5'.padEnd(64, '0')

/** Some instances, always the same for the same question: for an author to look at. @throws ExpressionError */
export function sampleInstances(question: Question, n: number): { values: Values; question: Question }[] {
  if (!question.vary) return []
  const random = seededRandom(seed, ['sample'])
  return Array.from({ length: n }, () => drawValues(question.vary!, random)).flatMap((values) =>
    values ? [{ values, question: instanceOf(question, values) }] : [],
  )
}

/** Names that stand twice, values that are none, computations that use what comes later. */
function variableFaults(vary: Vary): string[] {
  const faults: string[] = []
  const before = new Set<string>()
  for (const { name, over } of vary.variables) {
    if (takenNames.has(name))
      faults.push(`“${name}” has a meaning of its own in computations. Give the variable another name.`)
    if (before.has(name)) faults.push(`There are two variables “${name}”. Rename one.`)
    if (sizeOf({ name, over }) === 0) faults.push(`“${name}” has no value: its steps lead nowhere.`)
    if (sizeOf({ name, over }) > 1_000_000) faults.push(`“${name}” takes more than a million values. Use larger steps.`)
    if (over.by === 'computed')
      faults.push(
        ...namesIn(over.as)
          .filter((used) => !before.has(used))
          .map((used) => `“${name}” is computed from “${used}”, which does not stand above it.`),
      )
    before.add(name)
  }
  for (const condition of vary.conditions)
    faults.push(
      ...namesIn(condition)
        .filter((used) => !before.has(used))
        .map((used) => `The condition “${condition}” names “${used}”, which is not one of the variables.`),
    )
  return faults
}

const inWords = (values: Values) =>
  Object.entries(values)
    .map(([name, value]) => `${name} = ${value}`)
    .join(', ')

/** How many instances are tried before a varying question is taken for sound. */
const tried = 60

/**
 * What is impossible or ambiguous in a varying question, found before it is kept: no values meet the conditions, a
 * computation fails or is not finite, two options become equal, a key is no key.
 */
export function varyFaults(question: Question): string[] {
  if (!question.vary) {
    let used = false
    mapQuestionHtml(question, (html) => {
      used ||= hasPlaceholder(html)
      return html
    })
    return used ? ['The text holds a computation, but the question has no variables. Add them under “Varies”.'] : []
  }
  try {
    const faults = variableFaults(question.vary)
    return faults.length ? faults : instanceFaults(question)
  } catch (error) {
    if (error instanceof ExpressionError) return [error.message]
    throw error
  }
}

function instanceFaults(question: Question): string[] {
  const random = seededRandom(seed, ['faults'])
  const kind = kindOf(question.kind)
  for (let i = 0; i < tried; i++) {
    const values = drawValues(question.vary!, random)
    if (!values) return ['No values meet all conditions. Loosen one of them, or widen a range.']
    try {
      const instance = instanceOf(question, values)
      const read = kind.body.safeParse(instance.body)
      if (!read.success) return [`With ${inWords(values)}: ${read.error.issues[0]!.message}`]
      const [fault] = kind.faults(instance.body)
      if (fault) return [`With ${inWords(values)}: ${fault}`]
    } catch (error) {
      if (error instanceof ExpressionError) return [`With ${inWords(values)}: ${error.message}`]
      throw error
    }
  }
  return []
}

import { z } from 'zod'

const kinds: Record<string, string> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'yes or no',
  array: 'a list',
  tuple: 'a list',
  object: 'something of several parts',
  record: 'something of several parts',
  date: 'a date',
  null: 'nothing',
}
const wanted = (kind: string) => kinds[kind] ?? 'something else'

/** How many of what a bound counts. */
function counted(origin: string, n: number | bigint): string {
  const one = Number(n) === 1
  if (origin === 'string') return `${n} ${one ? 'character' : 'characters'}`
  if (origin === 'array' || origin === 'set') return `${n} ${one ? 'entry' : 'entries'}`
  return String(n)
}

/** What a schema that says nothing of its own says where something is not as it should be: a sentence, in our words. */
export function schemaWords(issue: z.core.$ZodRawIssue): string {
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined ? 'This is missing.' : `Here ${wanted(issue.expected)} is wanted.`
    case 'too_small':
      return `At least ${counted(issue.origin, issue.minimum)} here.`
    case 'too_big':
      return `At most ${counted(issue.origin, issue.maximum)} here.`
    case 'not_multiple_of':
      return `This goes in steps of ${issue.divisor}.`
    case 'invalid_value':
      return `Here one of these is wanted: ${issue.values.map(String).join(', ')}.`
    case 'unrecognized_keys':
      return `Nothing here is called ${issue.keys.map((key) => `“${key.slice(0, 60)}”`).join(', ')}.`
    case 'invalid_format':
      return 'This is not written as it should be.'
    default:
      return 'This is none of what it can be.'
  }
}

/** From now on every schema speaks our words where it has none of its own. */
export function speakOurWords(): void {
  z.config({ customError: schemaWords })
}

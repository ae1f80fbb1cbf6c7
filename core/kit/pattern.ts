import { RE2JS } from 're2js'

/**
 * Patterns over whole texts (QTI patternMatch). Matched in linear time, so that no pattern can hold the server up;
 * look-around and back references are therefore not understood.
 */
export function matchesPattern(pattern: string, text: string, caseMatters: boolean): boolean {
  return compiled(pattern, caseMatters)?.matches(text) ?? false
}

/** A sentence about what is wrong with a pattern, or null. */
export function patternFault(pattern: string): string | null {
  return compiled(pattern, true)
    ? null
    : `The pattern “${pattern.slice(0, 40)}” cannot be read. Check its brackets; look-around and back references are not understood.`
}

const known = new Map<string, RE2JS | null>()

function compiled(pattern: string, caseMatters: boolean): RE2JS | null {
  const key = `${caseMatters ? 'c' : 'i'}${pattern}`
  if (!known.has(key)) {
    if (known.size > 500) known.clear()
    known.set(key, attempt(pattern, caseMatters))
  }
  return known.get(key)!
}

function attempt(pattern: string, caseMatters: boolean): RE2JS | null {
  try {
    return RE2JS.compile(pattern, caseMatters ? 0 : RE2JS.CASE_INSENSITIVE)
  } catch {
    return null
  }
}

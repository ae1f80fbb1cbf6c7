import { cleanName } from './names'

/** A field that a school keeps of its students, beside what Thistle needs. */
export interface OwnField {
  id: string
  name: string
  sort: FieldSort
  /** What may be chosen; empty for other sorts. */
  choices: string[]
}
export const fieldSorts = ['text', 'number', 'day', 'choice'] as const
export type FieldSort = (typeof fieldSorts)[number]
export const fieldSortWords: Record<FieldSort, string> = {
  text: 'words',
  number: 'a number',
  day: 'a day',
  choice: 'one of a list',
}
export const longestValue = 200

/**
 * A value as it is kept, out of what was typed; '' for none. A number may be written with a comma.
 * @returns the value, or what is wrong with it, in a sentence
 */
export function readOwnValue(field: OwnField, typed: string): { value: string } | { fault: string } {
  const value = cleanName(typed)
  if (!value) return { value }
  if ([...value].length > longestValue) return { fault: `“${field.name}” has at most ${longestValue} characters.` }
  switch (field.sort) {
    case 'text':
      return { value }
    case 'number': {
      const written = value.replace(',', '.').replace('\u2212', '-')
      return /^-?\d{1,15}(\.\d{1,6})?$/.test(written)
        ? { value: written }
        : { fault: `“${field.name}” is a number, as 12 or 3.5.` }
    }
    case 'day':
      return isDay(value) ? { value } : { fault: `“${field.name}” is a day, as 2026-09-01.` }
    case 'choice':
      return field.choices.includes(value)
        ? { value }
        : { fault: `“${field.name}” is one of: ${field.choices.join(', ')}.` }
  }
}

function isDay(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false
  const at = new Date(`${text}T00:00:00Z`)
  return !Number.isNaN(at.getTime()) && at.toISOString().startsWith(text)
}

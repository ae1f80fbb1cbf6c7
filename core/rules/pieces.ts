import { setAt } from '../quiz/edits/make'
import type { Path } from '../quiz/edits/edit'
import type { Quiz } from '../quiz/schema'
import { duration } from '../kit/phrases'
import type { Control, Offer, Option, Slot } from './rule'

/** A slot with the words given. @param name what the control is called */
export function slot(name: string, path: Path, value: unknown, words: string, control: Control, also?: Slot[]): Slot {
  return { name, path, value, words, control, ...(also ? { also } : {}) }
}

/** A slot that is one of a few values. The words are those of the option chosen, with what was filled in. */
export function choice(name: string, path: Path, value: unknown, options: readonly Option[], words?: string): Slot {
  return slot(name, path, value, words ?? optionOf(options, value)?.label ?? String(value), { sort: 'choice', options })
}

/** The option that a value belongs to: the same value, or the same but for what is filled in. */
export function optionOf(options: readonly Option[], value: unknown): Option | undefined {
  const plain = (each: unknown, without?: string) =>
    JSON.stringify(each, (key, part: unknown) => (key !== '' && key === without ? undefined : part))
  return options.find((option) => plain(option.value, option.fill?.key) === plain(value, option.fill?.key))
}

/** "45 minutes", or the word for none. */
export const minutesOr = (minutes: number | null, none: string): string => (minutes ? duration(minutes) : none)

/** A link that sets a value. */
export function offer(words: string, quiz: Quiz, path: Path, value: unknown): Offer {
  return { offer: words, edit: setAt(quiz, path, value) }
}

/** "limit 45 → 60 minutes", or in full where the two do not share a unit. */
export function changedMinutes(title: string, none: string) {
  return (before: number | null, after: number | null): string[] =>
    before && after && (before % 60 || after % 60)
      ? [`${title} ${before} → ${after} minutes`]
      : [`${title} ${minutesOr(before, none)} → ${minutesOr(after, none)}`]
}

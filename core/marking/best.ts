import { exact, fixed, type Exact } from '../kit/exact'
import { least } from '../analysis/item'

/** How a list of best results is told: by names, by initials, or a student's own place alone. */
export const bestForms = ['names', 'initials', 'place'] as const
export type BestForm = (typeof bestForms)[number]

export interface BestResult {
  place: number
  /** Null where only the own place is told. */
  who: string
  percent: string
  own: boolean
}
export interface BestResults {
  /** The student's own place, as far as they are graded. */
  place: number | null
  of: number
  list: BestResult[]
}

const longest = 10
/** "Nell Ashdown" as "N. A." */
export const initials = (name: string): string =>
  name
    .split(/[\s-]+/)
    .filter(Boolean)
    .map((word) => `${[...word][0]!.toLocaleUpperCase('en')}.`)
    .join(' ')

/**
 * The best counting grades of those who share a class, the student's own place among them. Equal shares have one place. Null
 * below the least number of which anything is told, so that nobody can be worked out of it.
 * @param decimals the quiz's
 */
export function bestResults(
  grades: readonly { id: string; name: string; share: Exact | null }[],
  own: string,
  form: BestForm,
  decimals: number,
): BestResults | null {
  const graded = grades
    .flatMap(({ id, name, share }) => (share === null ? [] : [{ id, name, share: exact(share) }]))
    .sort((a, b) => b.share.compare(a.share) || (a.name < b.name ? -1 : 1))
  if (graded.length < least) return null
  const placeOf = (index: number) => graded.findIndex(({ share }) => share.equals(graded[index]!.share)) + 1
  const at = graded.findIndex(({ id }) => id === own)
  return {
    place: at < 0 ? null : placeOf(at),
    of: graded.length,
    list:
      form === 'place'
        ? []
        : graded.slice(0, longest).map(({ id, name, share }, index) => ({
            place: placeOf(index),
            who: form === 'names' ? name : initials(name),
            percent: `${fixed(share.mul(100), decimals)} %`,
            own: id === own,
          })),
  }
}

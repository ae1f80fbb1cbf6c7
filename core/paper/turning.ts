import type { Movement } from '../rules/content/movement'

/**
 * The lowest page that can still be turned to from one: where moving is forward only none before it, section by section none
 * of an earlier section. What lies before it is closed for changes. The one place that decides it.
 * @param sections the pages of each section
 */
export function lowestPage(movement: Movement, sections: readonly (readonly number[])[], page: number): number {
  if (movement === 'free') return 0
  if (movement === 'forward') return page
  return Math.min(page, ...(sections.find((pages) => pages.includes(page)) ?? []))
}

import type { Pages } from '../quiz/schema'

/**
 * Page numbers (from 0) of the questions of a paper.
 * "All" is one page; "section" one a section; "count" n questions each, a new section on a new page.
 * @param sizes questions in each section, in order
 */
export function pageNumbers(
  sizes: readonly number[],
  pages: Pages,
): { count: number; page(section: number, index: number): number } {
  if (pages.by === 'all') return { count: 1, page: () => 0 }
  const perPage = pages.by === 'section' ? Infinity : pages.count
  const starts: number[] = []
  let next = 0
  for (const size of sizes) {
    starts.push(next)
    if (size > 0) next += perPage === Infinity ? 1 : Math.ceil(size / perPage)
  }
  return {
    count: Math.max(1, next),
    page: (section, index) => starts[section]! + (perPage === Infinity ? 0 : Math.floor(index / perPage)),
  }
}

import type { Pages } from '../quiz/schema'

/** A section as it is parted into pages. */
export interface PagedSection {
  /** Questions in it. */
  size: number
  /** Its own way, or that of the quiz. */
  pages: Pages
  /** Places (from 0) before which a page begins, where it is parted by hand. */
  breaks: readonly number[]
}

/** How many pages a question lies behind the first page of its section. */
function within({ pages, breaks }: PagedSection, index: number): number {
  if (pages.by === 'count') return Math.floor(index / pages.count)
  return pages.by === 'breaks' ? breaks.filter((place) => place > 0 && place <= index).length : 0
}

/**
 * Page numbers (from 0) of the questions of a paper. "All" puts neighbouring sections on one page; otherwise a section
 * begins one: whole, n questions each, or parted where breaks stand. A break with nothing before or behind it parts nothing.
 */
export function pageNumbers(sections: readonly PagedSection[]): {
  count: number
  page(section: number, index: number): number
} {
  const starts: number[] = []
  let next = 0
  let open = false
  for (const section of sections) {
    const together = section.pages.by === 'all'
    if (!section.size) {
      starts.push(next)
      continue
    }
    const start = together && open ? next - 1 : next
    starts.push(start)
    next = start + 1 + within(distinct(section), section.size - 1)
    open = together
  }
  return {
    count: Math.max(1, next),
    page: (section, index) => starts[section]! + within(distinct(sections[section]!), index),
  }
}

/** Several breaks in one place are one. */
const distinct = (section: PagedSection): PagedSection => ({ ...section, breaks: [...new Set(section.breaks)] })

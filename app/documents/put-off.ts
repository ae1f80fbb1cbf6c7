import type { Sheet } from '~~/core/paper/schema'

/** A sheet on which what was put off stands on a page of its own, behind the last. @param items their ids */
export function withPutOff(sheet: Sheet, items: readonly string[]): Sheet {
  if (!items.length) return sheet
  const off = new Set(items)
  return {
    ...sheet,
    pages: sheet.pages + 1,
    sections: sheet.sections.map((section) => ({
      ...section,
      entries: section.entries.map((entry) =>
        entry.type === 'question' && off.has(entry.id) ? { ...entry, page: sheet.pages } : entry,
      ),
    })),
  }
}

/** The lowest page that can still be turned to from one, by the way in which a paper is gone through. */
export function lowestPage({ movement, sections }: Pick<Sheet, 'movement' | 'sections'>, page: number): number {
  if (movement === 'free') return 0
  if (movement === 'forward') return page
  const pagesOf = (section: Sheet['sections'][number]) => [
    ...section.entries.map((entry) => entry.page),
    ...(section.waits ? [section.waits.page] : []),
  ]
  const here = sections.map(pagesOf).find((pages) => pages.includes(page)) ?? [page]
  return Math.min(...here)
}

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

/** The pages of each section of a sheet. */
export const pagesBySection = ({ sections }: Pick<Sheet, 'sections'>): number[][] =>
  sections.map(({ entries, waits }) => [...entries.map(({ page }) => page), ...(waits ? [waits.page] : [])])

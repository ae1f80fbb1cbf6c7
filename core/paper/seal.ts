import { kindOf } from '../question/kinds'
import { instanceOf } from '../question/vary/instance'
import type { Edition } from '../quiz/schema'
import { sheet, type Paper, type Sheet, type SheetEntry } from './schema'

/**
 * The form of a paper that may leave the server before any key is released (semantics §4.6). Built from an
 * allow-list and passed through a strict schema; nothing in it depends on key, credit, tolerance or comments.
 */
export function sealPaper(paper: Paper, edition: Edition): Sheet {
  const { content } = edition
  let number = 0
  return sheet.parse({
    title: content.title,
    intro: content.intro,
    movement: content.movement,
    pages: paper.pages,
    sections: content.sections.map((section) => {
      const items = paper.items.filter((item) => item.section === section.id)
      const entries: SheetEntry[] = items.map((item) => {
        const question = instanceOf(edition.questions[item.question]!.question, item.values ?? {})
        return {
          type: 'question', id: item.id, number: ++number, page: item.page, points: item.points,
          stem: question.stem, language: question.language, tools: question.tools,
          body: kindOf(question.kind).seal(question.body, item.options),
        }
      })
      return { title: section.title, intro: section.intro, entries: withTexts(entries, section.rows, items) }
    }).filter((section) => section.entries.length > 0),
  })
}

type SectionRows = Edition['content']['sections'][number]['rows']

/** Text rows stand before the position that the rows above them fill. */
function withTexts(entries: SheetEntry[], rows: SectionRows, items: Paper['items']): SheetEntry[] {
  const result = [...entries]
  let position = 0
  let added = 0
  for (const row of rows) {
    if (row.type === 'text') {
      const page = items[Math.min(position, items.length - 1)]?.page ?? 0
      result.splice(position + added, 0, { type: 'text', page, html: row.html })
      added++
    } else position += row.type === 'question' ? 1 : row.draw
  }
  return result
}

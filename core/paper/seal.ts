import { kindOf } from '../question/kinds'
import { stimulusIn } from '../question/stimulus'
import { readableIn, readIn } from '../question/texts'
import { instanceOf } from '../question/vary/instance'
import type { Edition } from '../quiz/schema'
import { rowSize } from '../quiz/walk'
import { sheet, type Paper, type PaperItem, type Sheet, type SheetEntry } from './schema'

/** What the questions of a paper share, in the order in which it is met. */
export function stimuliOn(paper: Paper, edition: Edition): string[] {
  return [...new Set(paper.items.flatMap((item) => edition.questions[item.question]?.question.stimulus ?? []))].filter(
    (id) => edition.stimuli[id],
  )
}

/** Languages in which some question of a paper can be read; a single one is no choice. */
export function languagesOn(paper: Paper, edition: Edition): string[] {
  return [
    ...new Set(
      paper.items.flatMap((item) => {
        const { question } = edition.questions[item.question]!
        return [question.language, ...readableIn(question)]
      }),
    ),
  ].sort()
}

/** A question as it stands on a paper: in the reader's language where it has one, with its values. */
export function questionOnPaper(
  edition: Edition,
  item: Pick<PaperItem, 'question' | 'values'>,
  language: string | null,
) {
  return instanceOf(readIn(edition.questions[item.question]!.question, language), item.values ?? {})
}

/**
 * The form of a paper that may leave the server before any key is released (semantics §4.6). Built from an
 * allow-list and passed through a strict schema; nothing in it depends on key, credit, tolerance or comments.
 * @param language in which the student reads; what is not translated stays in the language it was written in
 */
export function sealPaper(paper: Paper, edition: Edition, language: string | null = null): Sheet {
  const { content } = edition
  const stimuli = stimuliOn(paper, edition)
  let number = 0
  return sheet.parse({
    title: content.title,
    intro: content.intro,
    movement: content.movement,
    pages: paper.pages,
    languages: languagesOn(paper, edition),
    language,
    stimuli: stimuli.map((id) => stimulusIn(edition.stimuli[id]!, language)),
    sections: content.sections
      .map((section) => {
        const items = paper.items.filter((item) => item.section === section.id)
        const entries: SheetEntry[] = items.map((item) => {
          const question = questionOnPaper(edition, item, language)
          const shared = question.stimulus === null ? -1 : stimuli.indexOf(question.stimulus)
          return {
            type: 'question',
            id: item.id,
            number: ++number,
            page: item.page,
            points: item.points,
            stem: question.stem,
            language: question.language,
            tools: question.tools,
            body: kindOf(question.kind).seal(question.body, item.options),
            stimulus: shared < 0 ? null : shared,
          }
        })
        return { title: section.title, intro: section.intro, entries: withTexts(entries, section.rows, items) }
      })
      .filter((section) => section.entries.length > 0),
  })
}

type SectionRows = Edition['content']['sections'][number]['rows']

/** A position, moved to before the stimulus group that it would cut in two: in a shuffled section groups stand anywhere. */
function beforeGroup(position: number, rows: SectionRows, items: Paper['items']): number {
  const row = items[position]?.row
  if (row === undefined || rows.find(({ id }) => id === row)?.type !== 'stimulus') return position
  return items.findIndex((item) => item.row === row)
}

/** Text rows stand before the position that the rows above them fill. */
function withTexts(entries: SheetEntry[], rows: SectionRows, items: Paper['items']): SheetEntry[] {
  const result = [...entries]
  let position = 0
  let added = 0
  for (const row of rows) {
    if (row.type === 'text') {
      const at = beforeGroup(position, rows, items)
      const page = items[Math.min(at, items.length - 1)]?.page ?? 0
      result.splice(at + added, 0, { type: 'text', page, html: row.html })
      added++
    } else position += rowSize(row)
  }
  return result
}

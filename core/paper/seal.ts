import { kindOf } from '../question/kinds'
import { stimulusAs } from '../question/stimulus'
import { together } from '../question/language'
import { readableIn, readAs } from '../question/texts'
import { instanceOf } from '../question/vary/instance'
import { exact, sum } from '../kit/exact'
import type { Edition, Row, Section } from '../quiz/schema'
import { positionsOf } from './positions'
import { requiredRows } from './required'
import { sheet, type Paper, type PaperItem, type Sheet, type SheetEntry } from './schema'

/** What questions share, in the order in which it is met. */
export function stimuliOn({ items }: Pick<Paper, 'items'>, edition: Edition): string[] {
  return [...new Set(items.flatMap((item) => edition.questions[item.question]?.question.stimulus ?? []))].filter(
    (id) => edition.stimuli[id],
  )
}

/** Sections of a paper as a sheet has them: those that give it questions or texts. Sheets name them by their place. */
export function sectionsOn(paper: Paper, edition: Edition): Section[] {
  const given = new Set(paper.items.map((item) => item.section))
  return edition.content.sections.filter(
    (section) => given.has(section.id) || section.rows.some((row) => row.type === 'text'),
  )
}

/** Languages in which a paper is offered: those that the quiz names, or else those in which some question of it can be read. A single one is no choice. */
export function languagesOn(paper: Paper, edition: Edition): string[] {
  if (edition.content.languages.length) return edition.content.languages
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
  return instanceOf(readAs(edition.questions[item.question]!.question, language), item.values ?? {})
}

/** The language that a paper is read in: the one chosen, or two where two may be read together, as far as they are offered; else the first that the quiz names. */
export function languageOf(edition: Edition, chosen: string | null): string | null {
  const offered = edition.content.languages
  const codes = chosen?.split(together) ?? []
  const read = edition.content.sideBySide ? codes : codes.slice(0, 1)
  const known = read.length && read.every((each) => !offered.length || offered.includes(each))
  return known ? read.join(together) : (offered[0] ?? null)
}

/**
 * The form of a paper that may leave the server before any key is released (semantics §4.6). Built from an
 * allow-list and passed through a strict schema; nothing in it depends on key, credit, tolerance or comments.
 * @param language in which the student reads; what is not translated stays in the language it was written in
 * @param entered sections with a clock of their own that the student has entered: of others nothing is told but their size
 */
export function sealPaper(
  paper: Paper,
  edition: Edition,
  language: string | null = null,
  entered: ReadonlySet<string> = new Set(),
): Sheet {
  const { content } = edition
  const isShut = (section: Section) => section.limit !== null && !entered.has(section.id)
  const shut = new Set(content.sections.filter(isShut).map(({ id }) => id))
  const stimuli = stimuliOn({ items: paper.items.filter((item) => !shut.has(item.section)) }, edition)
  const required = requiredRows(content)
  const read = languageOf(edition, language)
  let number = 0
  return sheet.parse({
    title: content.title,
    intro: content.intro,
    movement: content.movement,
    pages: paper.pages,
    languages: languagesOn(paper, edition),
    language: read,
    mixed: !content.languages.length,
    sideBySide: content.sideBySide,
    stimuli: stimuli.map((id) => stimulusAs(edition.stimuli[id]!, read)),
    sections: sectionsOn(paper, edition).map((section) => {
      const items = paper.items.filter((item) => item.section === section.id)
      const { title, limit } = section
      if (shut.has(section.id)) {
        number += items.length
        const points = sum(items.map((item) => exact(item.points))).valueOf()
        const waits = { page: items[0]?.page ?? 0, questions: items.length, points }
        return { title, intro: '', clocked: true, waits, entries: [] }
      }
      const entries: SheetEntry[] = items.map((item) => {
        const question = questionOnPaper(edition, item, read)
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
          required: required.has(item.row),
          body: kindOf(question.kind).seal(question.body, item.options),
          stimulus: shared < 0 ? null : shared,
        }
      })
      return {
        title,
        intro: section.intro,
        clocked: limit !== null,
        waits: null,
        entries: withTexts(entries, section.rows, items),
      }
    }),
  })
}

/** Text rows among the questions. One that a page break parts from what follows closes the page before it. */
function withTexts(entries: SheetEntry[], rows: readonly Row[], items: Paper['items']): SheetEntry[] {
  const result = [...entries]
  const places = positionsOf(rows, items)
  let added = 0
  rows.forEach((row, index) => {
    if (row.type !== 'text') return
    const at = places.get(row.id)!
    const behind = rows.slice(index + 1).find((each) => each.type !== 'text')?.type === 'break' || at >= items.length
    const page = items[behind && at > 0 ? at - 1 : at]?.page ?? 0
    result.splice(at + added, 0, { type: 'text', page, html: row.html })
    added++
  })
  return result
}

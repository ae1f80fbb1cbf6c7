import { contentRules, usualRules } from '../rules'
import { usualOf } from '../rules/values-of'
import {
  row,
  section,
  type Content,
  type Quiz,
  type Row,
  type RowInput,
  type Section,
  type SectionInput,
} from './schema'

/** A row with the usual values of what is left out. @throws ZodError for what is no row */
export const newRow = (parts: RowInput): Row => row.parse(parts)

/** A section with the usual values of what is left out. @throws ZodError for what is no section */
export const newSection = (parts: Partial<SectionInput> & { id: string; title: string }): Section =>
  section.parse({ order: 'kept', rows: [], ...parts })

export function blankContent(title: string, sectionId: string): Content {
  return {
    title,
    intro: '',
    sections: [newSection({ id: sectionId, title: 'Section 1' })],
    objectives: [],
    rowPoints: null,
    after: '',
    closing: [],
    ...usualOf(contentRules),
  }
}

/** A new quiz. @param sectionId id of its first section */
export function newQuiz(title: string, sectionId: string): Quiz {
  return { content: blankContent(title, sectionId), rules: usualRules }
}

import { contentRules, usualRules } from '../rules'
import { usualOf } from '../rules/values-of'
import type { Content, Quiz } from './schema'

export function blankContent(title: string, sectionId: string): Content {
  return {
    title,
    intro: '',
    sections: [{ id: sectionId, title: 'Section 1', intro: '', order: 'kept', rows: [] }],
    ...usualOf(contentRules),
  }
}

/** A new quiz. @param sectionId id of its first section */
export function newQuiz(title: string, sectionId: string): Quiz {
  return { content: blankContent(title, sectionId), rules: usualRules }
}

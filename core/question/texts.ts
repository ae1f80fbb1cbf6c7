import { kindOf, type MapHtml } from './kinds'
import type { Question } from './schema'

/** All HTML of a question, mapped: for cleaning, for rendering maths, for putting values in, for translating. */
export function mapQuestionHtml(question: Question, map: MapHtml): Question {
  const { comments } = question
  return {
    ...question,
    stem: map(question.stem, 'stem'),
    body: kindOf(question.kind).mapHtml(question.body, map),
    comments: { right: map(comments.right, 'right'), wrong: map(comments.wrong, 'wrong'), general: map(comments.general, 'general') },
    hints: question.hints.map((hint, i) => map(hint, `hint:${i}`)),
  } as Question
}

/** A question's texts by their keys, in reading order; empty ones left out. */
export function textsOf(question: Question): Map<string, string> {
  const texts = new Map<string, string>()
  mapQuestionHtml(question, (html, key) => { if (html !== '') texts.set(key, html); return html })
  return texts
}

/** The question in another language; what is not translated stays as it was written. */
export function inLanguage(question: Question, language: string): Question {
  const texts = question.translations[language]
  if (!texts || language === question.language) return question
  return { ...mapQuestionHtml(question, (html, key) => texts[key] || html), language } as Question
}

/** Keys of the texts that a language is missing. */
export function untranslated(question: Question, language: string): string[] {
  const texts = question.translations[language] ?? {}
  return language === question.language ? [] : [...textsOf(question).keys()].filter((key) => !texts[key])
}

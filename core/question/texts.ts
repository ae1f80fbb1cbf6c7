import { kindOf, type MapHtml } from './kinds'
import { gapMark } from './kinds/gaps'
import { together } from './language'
import { withSpans } from './marked-spans'
import type { Question } from './schema'

/** All HTML of a question, mapped: for cleaning, for rendering maths, for putting values in, for translating. */
export function mapQuestionHtml(question: Question, map: MapHtml): Question {
  const { comments } = question
  return {
    ...question,
    stem: map(question.stem, 'stem'),
    body: kindOf(question.kind).mapHtml(question.body, map),
    comments: {
      right: map(comments.right, 'right'),
      wrong: map(comments.wrong, 'wrong'),
      general: map(comments.general, 'general'),
    },
    hints: question.hints.map((hint, i) => map(hint, `hint:${i}`)),
  } as Question
}

/** A question's texts by their keys, in reading order; empty ones left out. */
export function textsOf(question: Question): Map<string, string> {
  const texts = new Map<string, string>()
  mapQuestionHtml(question, (html, key) => {
    if (html !== '') texts.set(key, html)
    return html
  })
  return texts
}

/** The question in another language; what is not translated stays as it was written. */
export function inLanguage(question: Question, language: string): Question {
  const texts = question.translations[language]
  if (!texts || language === question.language) return question
  return { ...mapQuestionHtml(question, (html, key) => texts[key] || html), language } as Question
}

/** Languages other than its own in which a question can be read: those into which what is asked has been translated. */
export function readableIn(question: Question): string[] {
  return Object.entries(question.translations)
    .filter(([language, texts]) => language !== question.language && Boolean(texts.stem || texts.text))
    .map(([language]) => language)
}

/** The question as somebody reads it who asked for a language: in that one, if it can be read in it. */
export function readIn(question: Question, language: string | null): Question {
  return language !== null && readableIn(question).includes(language) ? inLanguage(question, language) : question
}

const canBeRead = (question: Question, language: string) =>
  language === question.language || readableIn(question).includes(language)

/** A text with another one under it. Gaps stand in the first only: under it they are lines. */
const withUnder = (html: string, under: string, language: string) =>
  `${html}<br><span lang="${language}">${withSpans(under, gapMark, () => '____')}</span>`

/** The question as somebody reads it who asked for a language, or for two of them together. */
export function readAs(question: Question, language: string | null): Question {
  const [first = null, second] = language?.split(together) ?? []
  const read = readIn(question, first)
  if (second === undefined || second === read.language || !canBeRead(question, second)) return read
  const texts = textsOf(readIn(question, second))
  return mapQuestionHtml(read, (html, key) => {
    const under = texts.get(key)
    return under === undefined || under === html ? html : withUnder(html, under, second)
  })
}

/** As mapQuestionHtml, and the translations with it. */
export function mapEveryHtml(question: Question, map: (html: string) => string): Question {
  const mapped = mapQuestionHtml(question, map)
  return {
    ...mapped,
    translations: Object.fromEntries(
      Object.entries(question.translations).map(([code, texts]) => [
        code,
        Object.fromEntries(Object.entries(texts).map(([key, text]) => [key, map(text)])),
      ]),
    ),
  }
}

/** Keys of the texts that a language is missing. */
export function untranslated(question: Question, language: string): string[] {
  const texts = question.translations[language] ?? {}
  return language === question.language ? [] : [...textsOf(question).keys()].filter((key) => !texts[key])
}

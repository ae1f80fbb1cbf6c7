import { kindOf, plainText, type Question } from '../../../../core/question'
import { mapQuestionHtml } from '../../../../core/question'

/** Words as they are searched: lower case, without accents, up to 40 letters. "HW" and "5" count. */
export function wordsOf(text: string): string[] {
  const plain = text
    .normalize('NFD')
    .replace(/\p{Mn}/gu, '')
    .toLowerCase()
  return [...new Set(plain.match(/[\p{L}\p{N}]+(?:[.'’][\p{L}\p{N}]+)*/gu) ?? [])].map((word) => word.slice(0, 40))
}

/** Everything of a question that a search looks into. */
export function searchable(question: Question, objectiveWords: string): string {
  const texts: string[] = [
    question.internalName,
    ...question.tags,
    question.source,
    question.grade,
    ...Object.values(question.fields),
    objectiveWords,
  ]
  mapQuestionHtml(question, (html) => {
    texts.push(plainText(html))
    return html
  })
  texts.push(kindOf(question.kind).keyText(question.body))
  return texts.join(' ')
}

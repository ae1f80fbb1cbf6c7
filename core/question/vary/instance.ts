import { escapeHtml } from '../../kit/escape'
import { numberForPeople } from '../../kit/number-text'
import { mapQuestionHtml } from '../texts'
import type { Question } from '../schema'
import { compute } from './expression'
import { placeholder, type Values } from './schema'

/** A computation as it was typed, out of the HTML that it stands in. */
export const decode = (text: string) =>
  text
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&nbsp;/g, ' ')
    .replace(/&amp;/g, '&')

/** Numbers as people read them: a minus sign, and the question's decimal mark. */
const forPeople = (text: string, comma: boolean): string => escapeHtml(numberForPeople(text, comma))

/** Puts values into all computations of a text. @throws ExpressionError */
export function filled(text: string, values: Values, forReading = true, comma = false): string {
  return text.replace(new RegExp(placeholder.source, 'g'), (_whole, source: string, decimals: string | undefined) => {
    const value = compute(decode(source), values, decimals === undefined ? undefined : Number(decimals))
    return forReading ? forPeople(value, comma) : value
  })
}

type Answers = { answers?: Record<string, unknown>[]; gaps?: { body: Answers }[]; style?: string; unit?: string }

/** Keys are plain data: what stands in them is computed without marks for people. */
function filledKeys<T extends Answers>(body: T, values: Values): T {
  const fill = (value: unknown) => (typeof value === 'string' ? filled(value, values, false) : value)
  return {
    ...body,
    ...(body.answers
      ? {
          answers: body.answers
            .map((answer) => ({
              ...answer,
              value: fill(answer.value),
              text: fill(answer.text),
              near:
                answer.near &&
                Object.fromEntries(Object.entries(answer.near).map(([name, value]) => [name, fill(value)])),
            }))
            .map(withoutUndefined),
        }
      : {}),
    ...(body.gaps ? { gaps: body.gaps.map((gap) => ({ ...gap, body: filledKeys(gap.body, values) })) } : {}),
  }
}

const withoutUndefined = (value: object) =>
  Object.fromEntries(Object.entries(value).filter(([, each]) => each !== undefined))

/**
 * A varying question with the values of one paper in stem, options, comments and key (semantics §2): from there on a
 * question like any other. One that does not vary is returned as it is.
 * @throws ExpressionError
 */
export function instanceOf(question: Question, values: Values): Question {
  if (!question.vary) return question
  const comma = (question.body as Answers).style === 'comma'
  const texts = mapQuestionHtml(question, (html) => filled(html, values, true, comma))
  return { ...texts, body: filledKeys(texts.body as Answers, values), vary: null } as Question
}

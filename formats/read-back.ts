import { kindOf, plainText, type Question } from '../core/question'

/** Names, places and rules of a body that a line or a list has no words for; what of them changes a score is told by itself. */
const wordless = new Set([
  'id',
  'target',
  'fixed',
  'credit',
  'rule',
  'layout',
  'inOrder',
  'lower',
  'upper',
  'tellHowMany',
  'comment',
  'label',
  'longest',
  'slips',
])
const worded = new Set(['html', 'text', 'value', 'unit'])

const bodyWords = ({ body }: Question): string =>
  JSON.stringify(body, (name, value: unknown) =>
    worded.has(name) && typeof value === 'string' ? plainText(value) : wordless.has(name) ? undefined : value,
  )

/** Whether what was read back of a question asks the same, in the same words, and has the same key. */
export const isReadBack = (question: Question, back: Question): boolean =>
  plainText(back.stem) === plainText(question.stem) &&
  bodyWords(back) === bodyWords(question) &&
  kindOf(back.kind).keyText(back.body as never) === kindOf(question.kind).keyText(question.body as never)

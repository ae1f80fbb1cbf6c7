import { plainText } from './allowed-html'
import type { Question } from './schema'
import { kindOf } from './kinds'
import { gapText } from './kinds/gaps'
import { readableIn } from './texts'

/** A question as somebody reads it who looks for what gives it away: plain words, no markup. */
export interface Reading {
  stem: string
  /** The key in words; empty where there is none to give away. */
  key: string
  options: { words: string; fixed: boolean; right: boolean }[]
  /** Its options keep the authored order whatever the quiz says. */
  inOrder: boolean
  byHand: boolean
  /** It has no key, and is worth no points. */
  keyless: boolean
  /** In which it can be read. */
  languages: string[]
}

/** The words of a question, for the checks of a quiz. Options are those of single and multiple choice. */
export function readingOf(question: Question): Reading {
  const kind = kindOf(question.kind)
  const stem = `${plainText(question.stem)} ${question.kind === 'gaps' ? gapText(question.body.text) : ''}`.trim()
  const options =
    question.kind === 'choice' || question.kind === 'trueFalse' || question.kind === 'yesNo'
      ? question.body.options.map(({ html, fixed, credit }) => ({ words: plainText(html), fixed, right: credit === 1 }))
      : question.kind === 'choices'
        ? question.body.options.map(({ html, fixed, right }) => ({ words: plainText(html), fixed, right }))
        : []
  return {
    stem,
    key: kind.byHand || question.keyless ? '' : kind.keyText(question.body),
    options,
    inOrder: 'inOrder' in question.body && question.body.inOrder,
    byHand: Boolean(kind.byHand) && !question.keyless,
    keyless: question.keyless,
    languages: [question.language, ...readableIn(question)],
  }
}

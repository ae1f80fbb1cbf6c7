import { z } from 'zod'
import { certain } from '../../kit/chances'
import { Fraction, exact } from '../../kit/exact'
import { matchesPattern, patternFault } from '../../kit/pattern'
import { slipsBetween } from '../../kit/slips'
import { html } from '../html-schema'
import type { Kind } from './kind'
import { textAnswer, type TextAnswer } from './number'

/** Accepted answers of one question. */
export const mostTexts = 60

export const textBody = z.strictObject({
  answers: z
    .array(
      z.strictObject({
        how: z.enum(['is', 'begins', 'contains', 'ends', 'matches']),
        text: z.string().max(200),
        credit: z.number().min(0).max(1).multipleOf(0.01).default(1),
        comment: html.default(''),
        /** Whether capitals and accents matter in this one; left out, as the question says. */
        caseMatters: z.boolean().optional(),
        accentsMatter: z.boolean().optional(),
      }),
    )
    .max(mostTexts, `A question has at most ${mostTexts} accepted answers.`),
  caseMatters: z.boolean().default(false),
  accentsMatter: z.boolean().default(false),
  /** Typing slips that are allowed where the whole answer is compared (Damerau–Levenshtein). */
  slips: z.int().min(0).max(3).default(0),
  label: z.string().max(60).default(''),
  /** Characters that the field takes. */
  longest: z.int().min(1).max(500).default(100),
})
export type TextBody = z.infer<typeof textBody>

const withoutAccents = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{Mn}/gu, '')
    .normalize('NFC')

/** Normalised as semantics §2 says: NFC, trimmed, inner spaces folded; case and accents only if asked. */
export function normalised(text: string, body: Pick<TextBody, 'caseMatters' | 'accentsMatter'>): string {
  const tidy = text.normalize('NFC').replace(/\s+/gu, ' ').trim()
  const plain = body.accentsMatter ? tidy : withoutAccents(tidy)
  return body.caseMatters ? plain : plain.toLowerCase()
}

/** A pattern as it meets normalised answers. Its letters keep their case: \W is not \w. */
const patternFor = (pattern: string, body: Pick<TextBody, 'accentsMatter'>) =>
  body.accentsMatter ? pattern.normalize('NFC') : withoutAccents(pattern)

/** What of capitals and accents matters in one accepted answer. */
const rulesFor = (body: Pick<TextBody, 'caseMatters' | 'accentsMatter'>, accepted: TextBody['answers'][number]) => ({
  caseMatters: accepted.caseMatters ?? body.caseMatters,
  accentsMatter: accepted.accentsMatter ?? body.accentsMatter,
})

function best(body: TextBody, answer: TextAnswer): TextBody['answers'][number] | undefined {
  return body.answers
    .filter((accepted) => {
      const rules = rulesFor(body, accepted)
      const [given, wanted] = [normalised(answer.text, rules), normalised(accepted.text, rules)]
      switch (accepted.how) {
        case 'is':
          return given === wanted || (body.slips > 0 && slipsBetween(given, wanted) <= body.slips)
        case 'begins':
          return given.startsWith(wanted)
        case 'contains':
          return given.includes(wanted)
        case 'ends':
          return given.endsWith(wanted)
        case 'matches':
          return matchesPattern(patternFor(accepted.text, rules), given, rules.caseMatters)
      }
    })
    .sort((a, b) => b.credit - a.credit)[0]
}

/** An accepted answer to begin with. */
export const blankAnswer = (text: string, credit = 1): TextBody['answers'][number] => ({
  how: 'is',
  text,
  credit,
  comment: '',
})

export const howLabels = {
  is: 'is',
  begins: 'begins with',
  contains: 'contains',
  ends: 'ends with',
  matches: 'matches the pattern',
} as const

/** A short text that is marked by accepted answers (QTI textEntryInteraction, string). */
export const text: Kind<TextBody, TextAnswer> = {
  name: 'text',
  label: 'Text',
  body: textBody,
  answer: textAnswer,
  blank: () => ({
    answers: [blankAnswer('')],
    caseMatters: false,
    accentsMatter: false,
    slips: 0,
    label: '',
    longest: 100,
  }),
  keylessFaults: () => [],
  faults(body) {
    const faults: string[] = []
    if (!body.answers.length) faults.push('Give at least one accepted answer.')
    if (body.answers.some((answer) => normalised(answer.text, rulesFor(body, answer)) === ''))
      faults.push('An accepted answer is empty. Write it or take it out.')
    faults.push(
      ...body.answers.flatMap((answer) => (answer.how === 'matches' ? (patternFault(answer.text) ?? []) : [])),
    )
    if (body.slips && body.answers.some((answer) => answer.how === 'is' && [...answer.text].length <= body.slips * 2))
      faults.push('An accepted answer is so short that with these slips almost any word would do. Allow fewer.')
    if (body.answers.length && !body.answers.some((answer) => answer.credit === 1))
      faults.push('No accepted answer earns full credit.')
    if (body.answers.some((answer) => answer.how !== 'matches' && answer.text.length > body.longest))
      faults.push('An accepted answer is longer than the field takes.')
    return faults
  },
  options: () => [],
  score(body, answer) {
    const met = best(body, answer)
    return {
      fraction: met ? exact(met.credit) : new Fraction(0),
      parts: [{ part: met ? String(body.answers.indexOf(met)) : 'none', right: met?.credit === 1 }],
    }
  },
  isEmpty: (answer) => answer.text.trim() === '',
  guessable: () => null,
  guesses: () => certain(0),
  seal: (body) => ({ asks: 'text', label: body.label, longest: body.longest }),
  open: (answer) => answer,
  close: (answer) => answer,
  // A beginning, a part or an end is its own shortest answer; of a pattern no answer is known.
  solution: (body) => ({
    text: body.answers.find((answer) => answer.credit === 1 && answer.how !== 'matches')?.text ?? '',
  }),
  keyText: (body) =>
    body.answers
      .filter((answer) => answer.credit === 1)
      .map((answer) => (answer.how === 'is' ? answer.text : `${howLabels[answer.how]} “${answer.text}”`))
      .join(' or '),
  answerText: (_body, answer) => answer.text.trim(),
  comments(body, answer) {
    const comment = best(body, answer)?.comment
    return comment ? [comment] : []
  },
  mapHtml: (body, map) => ({
    ...body,
    answers: body.answers.map((answer, i) => ({ ...answer, comment: map(answer.comment, `answer:${i}:comment`) })),
  }),
}

import { z } from 'zod'
import { certain } from '../../kit/chances'
import { Fraction } from '../../kit/exact'
import { mediaSource } from '../allowed-html'
import type { Kind, Score } from './kind'
import { textAnswer, type TextAnswer } from './number'
import { id } from './options'

/** What markers look for, with the most that each earns (as a share of the question's points, in per cent). */
const rubric = z
  .array(
    z.strictObject({
      id,
      title: z.string().trim().min(1, 'Name what is looked for.').max(160),
      words: z.string().trim().max(1000).default(''),
      share: z.number().min(0).max(100).multipleOf(0.5),
    }),
  )
  .max(20, 'A rubric has at most 20 lines.')
export type Rubric = z.infer<typeof rubric>

const guide = {
  rubric: rubric.default([]),
  /** A model answer for markers; part of the key. */ model: z.string().max(20_000).default(''),
}

function rubricFaults(lines: Rubric): string[] {
  const total = lines.reduce((all, line) => all + line.share, 0)
  return lines.length && total !== 100 ? [`The lines of the rubric add up to ${total} %, not to 100 %.`] : []
}

const undecided = (): Score => ({ fraction: new Fraction(0), parts: [] })
const keyOf = (body: { rubric: Rubric; model: string }) =>
  body.model || body.rubric.map((line) => `${line.title} (${line.share} %)`).join(' · ') || 'marked by hand'

/** What the kinds that people mark have in common. */
const byHand = {
  byHand: true as const,
  options: () => [],
  score: undecided,
  guessable: () => null,
  guesses: () => certain(0),
  solution: () => null,
  comments: () => [] as string[],
}

export const writtenBody = z.strictObject({
  ...guide,
  /** Characters that are taken. */
  longest: z.int().min(1).max(20_000).default(5000),
  /** Height of the field, in lines. */
  lines: z.int().min(2).max(40).default(8),
})
export type WrittenBody = z.infer<typeof writtenBody>
const longAnswer = z.strictObject({ text: z.string().max(20_000, 'This answer is longer than 20,000 characters.') })

/** An answer of some length, marked by hand along a rubric (QTI extendedTextInteraction). */
export const written: Kind<WrittenBody, TextAnswer> = {
  ...byHand,
  name: 'written',
  label: 'Written answer',
  body: writtenBody,
  answer: longAnswer,
  blank: () => ({ rubric: [], model: '', longest: 5000, lines: 8 }),
  faults: (body) => rubricFaults(body.rubric),
  keylessFaults: () => [],
  isEmpty: (answer) => answer.text.trim() === '',
  seal: (body) => ({ asks: 'written', longest: body.longest, lines: body.lines }),
  open: (answer) => answer,
  close: (answer) => answer,
  keyText: keyOf,
  answerText: (_body, answer) => answer.text.trim(),
  mapHtml: (body) => body,
}

export const shortBody = z.strictObject({
  ...guide,
  label: z.string().max(60).default(''),
  longest: z
    .int()
    .min(1, 'At least one character has to be taken.')
    .max(90, 'A short answer takes at most 90 characters; a written answer takes more.')
    .default(90),
})
export type ShortBody = z.infer<typeof shortBody>

/** A few words, marked by hand. */
export const short: Kind<ShortBody, TextAnswer> = {
  ...byHand,
  name: 'short',
  label: 'Short answer by hand',
  body: shortBody,
  answer: textAnswer,
  blank: () => ({ rubric: [], model: '', label: '', longest: 90 }),
  faults: (body) => rubricFaults(body.rubric),
  keylessFaults: () => [],
  isEmpty: (answer) => answer.text.trim() === '',
  seal: (body) => ({ asks: 'text', label: body.label, longest: body.longest }),
  open: (answer) => answer,
  close: (answer) => answer,
  keyText: keyOf,
  answerText: (_body, answer) => answer.text.trim(),
  mapHtml: (body) => body,
}

export const recordingBody = z.strictObject({
  ...guide,
  /** Longest recording, in seconds. */ seconds: z.int().min(5).max(600).default(60),
})
export type RecordingBody = z.infer<typeof recordingBody>
export const recordingAnswer = z.strictObject({
  sound: z.union([z.literal(''), z.string().regex(mediaSource, 'This recording is not one that Thistle keeps.')]),
  seconds: z.number().min(0).max(3600),
})
export type RecordingAnswer = z.infer<typeof recordingAnswer>

/** Sound as an answer (QTI uploadInteraction), marked by hand. */
export const recording: Kind<RecordingBody, RecordingAnswer> = {
  ...byHand,
  name: 'recording',
  label: 'Recording',
  body: recordingBody,
  answer: recordingAnswer,
  blank: () => ({ rubric: [], model: '', seconds: 60 }),
  faults: (body) => rubricFaults(body.rubric),
  keylessFaults: () => [],
  isEmpty: (answer) => answer.sound === '',
  seal: (body) => ({ asks: 'recording', seconds: body.seconds }),
  open: (answer) => answer,
  close: (answer) => answer,
  keyText: keyOf,
  answerText: (_body, answer) => (answer.sound ? `a recording of ${Math.round(answer.seconds)} s` : ''),
  mapHtml: (body) => body,
}

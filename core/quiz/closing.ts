import { Parser } from 'htmlparser2'
import { z } from 'zod'
import { escapeHtml } from '../kit/escape'
import { html } from '../question/html-schema'
import { id } from '../question/schema'

/** Words for those who reached a share of the points, in percent, and no higher band. */
export const band = z.strictObject({
  id,
  from: z
    .number('A boundary is a number of percent.')
    .min(0, 'A boundary is at least 0 %.')
    .max(100, 'A boundary is at most 100 %.')
    .multipleOf(0.01, 'Boundaries go in hundredths of a percent.'),
  html,
})
export type Band = z.infer<typeof band>

/** A boundary as people type it: 85, 85 %, 85.0 or 85,0. @returns percent, or null for what is none */
export function readBoundary(typed: string): number | null {
  const read = /^(\d{1,3})(?:[.,](\d{1,2}))?\s*%?$/.exec(typed.trim())
  if (!read) return null
  const percent = Number(`${read[1]}.${read[2] ?? '0'}`)
  return percent <= 100 ? percent : null
}

const falling = (bands: readonly Band[]) => [...bands].sort((a, b) => b.from - a.from)

/** Bands from the highest down, each with where it ends: below the one before it. */
export function bandsFor(bands: readonly Band[]): (Band & { below: number | null })[] {
  return falling(bands).map((each, i, all) => ({ ...each, below: all[i - 1]?.from ?? null }))
}

/** The band that a share belongs to, in percent as it is shown; null where none reaches down so far. */
export function bandAt(bands: readonly Band[], percent: number): Band | null {
  return falling(bands).find((each) => percent >= each.from) ?? null
}

/** What is wrong with bands taken together: a gap below the lowest, and two that begin at one boundary. */
export function closingFaults(bands: readonly Band[]): { gap: number | null; overlap: number | null } {
  const from = falling(bands).map((each) => each.from)
  return {
    gap: from.length && from.at(-1)! > 0 ? from.at(-1)! : null,
    overlap: from.find((each, i) => from[i - 1] === each) ?? null,
  }
}

/** What may stand in curly brackets in closing words. What is not shown to the student yet is null. */
export interface ClosingValues {
  name: string
  quiz: string
  score: string | null
  grade: string | null
  date: string
}
export const placeholders = ['name', 'quiz', 'score', 'grade', 'date'] as const
const placeholder = /\{([a-z]+)\}/g

/** Stretches of markup that are text, as they are written. */
function textParts(source: string): { from: number; to: number }[] {
  const parts: { from: number; to: number }[] = []
  const parser = new Parser(
    {
      ontext() {
        parts.push({ from: parser.startIndex, to: parser.endIndex + 1 })
      },
    },
    { decodeEntities: false },
  )
  parser.end(source)
  return parts
}

/** Words with the values of one student in the place of {name}, {quiz}, {score}, {grade} and {date}, in their texts only. */
export function wordsFor(source: string, values: ClosingValues): string {
  let result = ''
  let at = 0
  for (const { from, to } of textParts(source)) {
    result += source.slice(at, from)
    result += source
      .slice(from, to)
      .replace(placeholder, (written, name: string) =>
        Object.hasOwn(values, name) ? escapeHtml(values[name as keyof ClosingValues] ?? 'not shown yet') : written,
      )
    at = to
  }
  return result + source.slice(at)
}

/** Names in curly brackets that mean nothing. */
export function unknownPlaceholders(source: string): string[] {
  const names = textParts(source).flatMap(({ from, to }) =>
    [...source.slice(from, to).matchAll(placeholder)].map(([, name]) => name!),
  )
  return [...new Set(names)].filter((name) => !(placeholders as readonly string[]).includes(name))
}

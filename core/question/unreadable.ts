import { readQuantity, type Asked } from '../kit/quantity'
import type { SealedBody, SealedGap } from './kinds/sealed'

/**
 * A sentence that asks the student back at once when an answer cannot be read, else null (semantics §2). It knows
 * only what stands on the sheet, so it can tell nothing of rightness.
 */
export function unreadable(
  body: SealedBody,
  answer: { text?: string | undefined; gaps?: Record<string, string> | undefined },
): string | null {
  if (body.asks === 'gaps')
    return (
      body.gaps.map((gap) => unreadableGap(gap, answer.gaps?.[gap.id] ?? '')).find((sentence) => sentence !== null) ??
      null
    )
  const text = answer.text?.trim() ?? ''
  if (text === '') return null
  if (body.asks === 'text' || body.asks === 'written')
    return text.length > body.longest ? `At most ${body.longest} characters are taken.` : null
  return body.asks === 'number' ? unreadableNumber(text, body) : null
}

/** The same for one gap of a text. */
export function unreadableGap(gap: SealedGap, given: string): string | null {
  return gap.asks === 'number' && given.trim() !== '' ? unreadableNumber(given, gap) : null
}

function unreadableNumber(text: string, asked: Asked): string | null {
  const read = readQuantity(text, asked)
  return read.ok ? null : read.reason
}

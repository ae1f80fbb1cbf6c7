import { readQuantity } from '../kit/quantity'
import type { SealedBody } from './kinds/kind'

/**
 * A sentence that asks the student back at once when an answer cannot be read, else null (semantics §2). It knows
 * only what stands on the sheet, so it can tell nothing of rightness.
 */
export function unreadable(body: SealedBody, answer: { text?: string | undefined }): string | null {
  const text = answer.text?.trim() ?? ''
  if (text === '') return null
  if (body.asks === 'text') return text.length > body.longest ? `At most ${body.longest} characters are taken.` : null
  if (body.asks !== 'number') return null
  const read = readQuantity(text, body)
  return read.ok ? null : read.reason
}

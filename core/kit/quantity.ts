import type { Fraction } from './exact'
import { readNumber, type NumberStyle } from './numbers-read'
import { convert, unitNamed } from './units'

/** How a quantity is asked for. */
export interface Asked {
  unit: string
  unitAsked: boolean
  style: NumberStyle
}

export type ReadQuantity = { ok: true; value: Fraction; unit: string } | { ok: false; reason: string }

/**
 * Reads a number with the unit that may follow it, in the unit asked for.
 * With `unitAsked` and no unit given here (a sealed question), any known unit reads, and nothing is converted.
 */
export function readQuantity(text: string, asked: Asked): ReadQuantity {
  const read = readNumber(text, asked.style)
  if (!read.ok) return read
  if (read.rest === '')
    return asked.unitAsked
      ? { ok: false, reason: 'Write the unit after the number.' }
      : { ok: true, value: read.value, unit: asked.unit }
  if (!asked.unit && !asked.unitAsked)
    return { ok: false, reason: `Write the number alone: “${read.rest}” is not understood.` }
  const unit = read.rest === asked.unit ? asked.unit : unitNamed(read.rest)
  if (!unit) return { ok: false, reason: `“${read.rest}” is not a unit that is known here.` }
  if (!asked.unit || unit === asked.unit) return { ok: true, value: read.value, unit }
  const value = convert(read.value, unit, unitNamed(asked.unit) ?? asked.unit)
  return value
    ? { ok: true, value, unit: asked.unit }
    : { ok: false, reason: `The answer is not measured in “${read.rest}”.` }
}

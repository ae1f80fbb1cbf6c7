import { UnreadableFile } from '../bundle'
import { decodeText } from '../text'
import { readCase } from './case'
import { readObjectivesCsv } from './csv'
import type { PortableObjective } from './portable'

export { readCase, writeCase } from './case'
export { readObjectivesCsv, writeObjectivesCsv } from './csv'
export type { KeptObjective, PortableObjective } from './portable'

/** Reads objectives: a CASE package in JSON, or CSV. @throws UnreadableFile */
export function readObjectives(bytes: Uint8Array): PortableObjective[] {
  const text = decodeText(bytes)
  if (text.includes('\u0000')) throw new UnreadableFile('This is neither a CASE package in JSON nor CSV.')
  if (
    !text
      .trimStart()
      .replace(/^\uFEFF/, '')
      .startsWith('{')
  )
    return readObjectivesCsv(text)
  let read: unknown
  try {
    read = JSON.parse(text)
  } catch {
    throw new UnreadableFile('This JSON is broken.')
  }
  return readCase(read)
}

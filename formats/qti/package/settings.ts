import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex } from '@noble/hashes/utils.js'
import {
  question as questionSchema,
  stimulus as stimulusSchema,
  type Question,
  type Stimulus,
} from '../../../core/question'

/**
 * What QTI has no place for (slips allowed, how an ordering is scored, thinking levels …) stands as Thistle's own JSON in the
 * metadata of a resource, which content packaging leaves open to other namespaces. It counts only as long as the
 * file beside it is byte for byte what Thistle wrote: whoever changes the file is believed.
 */
export const settingsNamespace = 'urn:thistle:question:1'

export interface ItemSettings {
  id: string
  folder: string[]
  objectives: string[]
  question: Question
}
export interface StimulusSettings {
  id: string
  stimulus: Stimulus
}

/** Settings as text, bound to the file that they stand beside. */
export const sealSettings = (file: Uint8Array, settings: ItemSettings | StimulusSettings): string =>
  JSON.stringify({ digest: bytesToHex(sha256(file)), ...settings })

function opened(text: string | null, file: Uint8Array): Record<string, unknown> | null {
  if (!text) return null
  try {
    const read = JSON.parse(text) as Record<string, unknown>
    return read.digest === bytesToHex(sha256(file)) ? read : null
  } catch {
    return null
  }
}

const texts = (value: unknown): string[] => (Array.isArray(value) ? value.map(String) : [])

/** The question that Thistle put beside an item, if the item is still what Thistle wrote. */
export function itemSettings(text: string | null, file: Uint8Array): ItemSettings | null {
  const read = opened(text, file)
  const found = questionSchema.safeParse(read?.question)
  return read && found.success
    ? { id: String(read.id), folder: texts(read.folder), objectives: texts(read.objectives), question: found.data }
    : null
}

/** As itemSettings, for what questions share. */
export function stimulusSettings(text: string | null, file: Uint8Array): StimulusSettings | null {
  const read = opened(text, file)
  const found = stimulusSchema.safeParse(read?.stimulus)
  return read && found.success ? { id: String(read.id), stimulus: found.data } : null
}

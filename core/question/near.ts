import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import { plainText } from './allowed-html'
import { gapText } from './kinds/gaps'
import type { Question } from './schema'

/**
 * What near-duplicates have in common: the words of the stem (and of a text with gaps) without numbers, spacing, case,
 * accents and punctuation. Two questions with the same words and other numbers are near-duplicates.
 */
export function nearWords(question: Question): string {
  const text = `${plainText(question.stem)} ${question.kind === 'gaps' ? gapText(question.body.text) : ''}`
  return text
    .normalize('NFD')
    .replace(/\p{Mn}/gu, '')
    .toLowerCase()
    .replace(/\{=[^}]*\}/g, '')
    .replace(/[^\p{L}]+/gu, '')
}

/** Sixteen hexadecimal digits of their digest; empty where there are too few words to compare. */
export function nearKey(question: Question): string {
  const words = nearWords(question)
  return words.length < 12 ? '' : bytesToHex(sha256(utf8ToBytes(words))).slice(0, 16)
}

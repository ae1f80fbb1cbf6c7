import { randomBytes as chance } from 'node:crypto'
import { onStage } from '../database/stage'

/** On a stage the same come at every performance: what was begun in one is found in the next. */
const randomBytes = (length: number): Buffer => onStage()?.bytes(length) ?? chance(length)

const letters = 'abcdefghijkmnpqrstuvwxyz23456789'

/** A new id: 14 letters of 32, 70 random bits. */
export function newId(): string {
  return Array.from(randomBytes(14), (byte) => letters[byte & 31]).join('')
}

/** A new secret for an edition: 32 bytes in hexadecimal. */
export function newSecret(): string {
  return randomBytes(32).toString('hex')
}

/** An address that nobody guesses: 128 bits, in letters and digits. */
export const newAddress = (): string => randomBytes(16).toString('hex')

import { expect, it } from 'vitest'
import { seededRandom } from '../core/kit/random'
import { base64Length, bytesOfBase64, putBase64 } from './base64'

const written = (bytes: Uint8Array): string => {
  const into = new Uint8Array(base64Length(bytes.length))
  expect(putBase64(bytes, into, 0)).toBe(into.length)
  return new TextDecoder().decode(into)
}

it('writes what the platform writes, and reads it back, at every length around a piece', () => {
  const { below } = seededRandom('64', ['base64'])
  for (const length of [0, 1, 2, 3, 4, 5, 24_575, 24_576, 24_577, 24_578, 60_000]) {
    const bytes = Uint8Array.from({ length }, () => below(256))
    expect(written(bytes) === Buffer.from(bytes).toString('base64')).toBe(true)
    expect(bytesOfBase64(written(bytes))).toEqual(bytes)
  }
})

it('reads the examples of RFC 4648 §10, also in lines', () => {
  const examples = { '': '', 'Zg==': 'f', 'Zm8=': 'fo', Zm9v: 'foo', 'Zm9vYg==': 'foob', 'Zm9v\nYmE=\n': 'fooba' }
  for (const [base64, said] of Object.entries(examples))
    expect(new TextDecoder().decode(bytesOfBase64(base64)!)).toBe(said)
})

it('what is none is null, never bytes that happen to come of it', () => {
  for (const none of ['Zg', 'Zg=', 'Z===', '====', 'Zm9v-_', 'Zm9v*m9v', 'Zg==Zg==', 'Zm9v é'])
    expect(bytesOfBase64(none), none).toBeNull()
})

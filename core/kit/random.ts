import { hmac } from '@noble/hashes/hmac.js'
import { sha256 } from '@noble/hashes/sha2.js'
import { concatBytes, hexToBytes, utf8ToBytes } from '@noble/hashes/utils.js'
import { uniformInt } from 'pure-rand/distribution/uniformInt'
import { xoroshiro128plusFromState } from 'pure-rand/generator/xoroshiro128plus'

/** A source of unbiased choices. It is a plain object so that callers never see the generator under it. */
export interface Random {
  /** A whole number in [0, bound), each equally likely. `bound` is at least 1. */
  below(bound: number): number
}

/** Each part is preceded by its length, so that ("ab","c") and ("a","bc") never give the same seed. */
function lengthPrefixed(parts: readonly string[]): Uint8Array {
  return concatBytes(
    ...parts.flatMap((part) => {
      const bytes = utf8ToBytes(part)
      const length = new Uint8Array(4)
      new DataView(length.buffer).setUint32(0, bytes.length)
      return [length, bytes]
    }),
  )
}

/**
 * The generator for one paper: 128 bits of HMAC-SHA-256(secret, parts), loaded whole as the state of
 * xoroshiro128+ (its ordinary seed would take only 32 bits; semantics §4.1).
 * @param secret hexadecimal, 32 bytes of an edition's secret
 * @param parts what names the paper: student, attempt, …
 */
export function seededRandom(secret: string, parts: readonly string[]): Random {
  const digest = hmac(sha256, hexToBytes(secret), lengthPrefixed(parts))
  const view = new DataView(digest.buffer, digest.byteOffset)
  const state = [0, 4, 8, 12].map((at) => view.getInt32(at))
  const generator = xoroshiro128plusFromState(state)
  return { below: (bound) => (bound <= 1 ? 0 : uniformInt(generator, 0, bound - 1)) }
}

/** Fisher–Yates: a new array with the same members, every order equally likely. */
export function shuffled<T>(members: readonly T[], random: Random): T[] {
  const result = members.slice()
  for (let last = result.length - 1; last > 0; last--) {
    const other = random.below(last + 1)
    const moved = result[last]!
    result[last] = result[other]!
    result[other] = moved
  }
  return result
}

/** As `shuffled`, but members for which `isFixed` holds keep their place. */
export function shuffledAround<T>(members: readonly T[], isFixed: (member: T) => boolean, random: Random): T[] {
  const free = members.filter((member) => !isFixed(member))
  const moving = shuffled(free, random)
  if (free.length === members.length) return moving
  let next = 0
  return members.map((member) => (isFixed(member) ? member : moving[next++]!))
}

/** A standard normal value (Box & Muller 1958, Annals of Mathematical Statistics 29). */
export function normal(random: Random): number {
  const parts = 2 ** 30
  const u = (random.below(parts) + 0.5) / parts
  return Math.sqrt(-2 * Math.log(u)) * Math.cos((2 * Math.PI * random.below(parts)) / parts)
}

const half = 36 ** 3
const idCount = half ** 2
/** All names of three letters and digits: two of them make an id, quicker than a conversion of each number. */
const halves = Array.from({ length: half }, (_, i) => i.toString(36).padStart(3, '0'))

/**
 * A source of short names that mean nothing outside one paper, no two alike: a walk with a random start and a random
 * step through all names of six letters and digits. The step shares no factor with their number (2¹²·3¹²), so the walk
 * meets each name once before any comes again.
 */
export function opaqueIds(random: Random): () => string {
  let at = random.below(idCount)
  const step = random.below(idCount / 6) * 6 + (random.below(2) ? 5 : 1)
  return () => {
    at = (at + step) % idCount
    return halves[Math.floor(at / half)]! + halves[at % half]!
  }
}

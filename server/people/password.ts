import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto'

interface Cost {
  N: number
  r: number
  p: number
}
/** What the OWASP password storage cheat sheet recommends for scrypt with 32 MiB. */
const cost: Cost = { N: 2 ** 15, r: 8, p: 3 }
/** The cost of hashes that do not say theirs: those of before they did. */
const unsaid: Cost = { N: 2 ** 15, r: 8, p: 1 }

const derive = (password: string, salt: Buffer, { N, r, p }: Cost): Promise<Buffer> =>
  new Promise((done, failed) =>
    scrypt(password.normalize('NFC'), salt, 32, { N, r, p, maxmem: 256 * N * r }, (error, key) =>
      error ? failed(error) : done(key),
    ),
  )

const said = ({ N, r, p }: Cost) => `N=${N},r=${r},p=${p}`

/** "scrypt$N=32768,r=8,p=3$salt$key", salt and key in base64. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16)
  return `scrypt$${said(cost)}$${salt.toString('base64')}$${(await derive(password, salt, cost)).toString('base64')}`
}

interface Hash {
  cost: Cost
  salt: Buffer
  key: Buffer
}

/** The parts of a hash; null where it is of no known form. */
function parts(hash: string): Hash | null {
  const found = /^scrypt\$(?:N=(\d{1,7}),r=(\d{1,2}),p=(\d{1,2})\$)?([\w+/=]+)\$([\w+/=]+)$/.exec(hash)
  if (!found) return null
  const [, N, r, p, salt, key] = found
  return {
    cost: N ? { N: Number(N), r: Number(r), p: Number(p) } : unsaid,
    salt: Buffer.from(salt!, 'base64'),
    key: Buffer.from(key!, 'base64'),
  }
}

/**
 * Whether a password is the one that was hashed; compared in constant time. False where the hash is of no known form.
 */
export async function isPassword(password: string, hash: string): Promise<boolean> {
  const read = parts(hash)
  if (read?.key.length !== 32) return false
  return timingSafeEqual(await derive(password, read.salt, read.cost), read.key)
}

/** Whether a hash costs something else than one that is made today: it is made anew when its password is next at hand. */
export function isDated(hash: string): boolean {
  const read = parts(hash)
  return read === null || said(read.cost) !== said(cost) || !hash.includes(said(cost))
}

/** What a session remembers of the password it was given for (the same as SHA2(password_hash, 256) in SQL). */
export const passwordMark = (hash: string): string => createHash('sha256').update(hash).digest('hex')

/** Compares a quiz password without telling by time how much of it was right. */
export function samePassword(given: string, wanted: string): boolean {
  const digest = (text: string) => createHash('sha256').update(text.trim().normalize('NFC')).digest()
  return timingSafeEqual(digest(given), digest(wanted))
}

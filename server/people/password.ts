import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto'

/** scrypt at N = 2^15, r = 8, p = 1 (about 32 MiB): the OWASP password storage cheat sheet's order of cost. */
const cost = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 }

const derive = (password: string, salt: Buffer): Promise<Buffer> =>
  new Promise((done, failed) =>
    scrypt(password.normalize('NFC'), salt, 32, cost, (error, key) => (error ? failed(error) : done(key))),
  )

/** "scrypt$salt$key", both in base64. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16)
  return `scrypt$${salt.toString('base64')}$${(await derive(password, salt)).toString('base64')}`
}

/**
 * Whether a password is the one that was hashed; compared in constant time. False where the hash is of no known form.
 */
export async function isPassword(password: string, hash: string): Promise<boolean> {
  const [name, salt, key] = hash.split('$')
  if (name !== 'scrypt' || !salt || !key) return false
  const expected = Buffer.from(key, 'base64')
  return timingSafeEqual(await derive(password, Buffer.from(salt, 'base64')), expected)
}

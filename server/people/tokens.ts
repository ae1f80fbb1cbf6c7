import { createHash, randomBytes } from 'node:crypto'

/** What a browser is known by: 256 random bits, which its cookie carries and nothing here keeps. */
export const newToken = (): string => randomBytes(32).toString('base64url')

/** What is kept of a token: its SHA-256, in hexadecimal. */
export const tokenKey = (token: string): string => createHash('sha256').update(token).digest('hex')

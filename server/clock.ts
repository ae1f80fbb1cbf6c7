import { readFileSync } from 'node:fs'
import { iso, type Instant } from '../core/kit/time'

/**
 * The server's clock, the one place where Thistle reads the time. Whoever starts the server (tests) may name a file
 * in THISTLE_CLOCK_FILE that holds an offset in milliseconds, "+5400000"; no client can set it.
 */
export function serverNow(): Instant {
  const file = process.env.THISTLE_CLOCK_FILE
  const offset = file ? Number(readFileSync(file, 'utf8')) || 0 : 0
  return iso(Date.now() + offset)
}

import { inject } from 'vitest'
import { openDatabase, type Database } from '../../server/database/database'

/**
 * The demo school and a server that several browser tests share (set up once by `browser-setup.ts`): for tests that do not
 * hang on one another's order. What a test needs of its own it makes under ids of its own.
 */
export function sharedScene(): { db: Database; address: string; now: string } {
  const { url, address, now } = inject('scene')
  return { db: openDatabase(url, 4), address, now }
}

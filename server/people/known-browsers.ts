import { minute, plus, type Instant } from '../../core/kit/time'
import { toSql } from '../database/codec'
import type { Db } from '../database/database'
import { tokenKey } from './tokens'

/** A browser that nobody has signed in with for so long is as good as new. */
export const rememberedFor = 400 * 24 * 60 * minute

/** Whether somebody has signed in with this browser before. */
export async function isKnownTo(db: Db, person: string, browser: string): Promise<boolean> {
  return Boolean(
    await db.one('SELECT 1 AS yes FROM known_browser WHERE token = ? AND person_id = ?', [tokenKey(browser), person]),
  )
}

/** Notes that somebody has signed in with this browser. */
export async function noteBrowser(db: Db, person: string, browser: string, now: Instant): Promise<void> {
  await db.run('INSERT INTO known_browser (token, person_id, at) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE at = ?', [
    tokenKey(browser),
    person,
    toSql(now),
    toSql(now),
  ])
}

export async function forgetBrowsers(db: Db, now: Instant): Promise<void> {
  await db.run('DELETE FROM known_browser WHERE at < ? LIMIT 1000', [toSql(plus(now, -rememberedFor))])
}

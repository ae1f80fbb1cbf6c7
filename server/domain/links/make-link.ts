import type { QuizLinkRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { newToken } from '../../people/tokens'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { rosterChanged } from '../classes/roster-stamp'
import { newId } from '../ids'
import { recordLine } from '../record'

/** The link of a quiz: its audience, which windows name as they name classes, and the word of its address. */
export interface QuizLink {
  audience: string
  token: string
}

/** The link of a quiz, or null where it has none. */
export async function linkOf(db: Db, quiz: string): Promise<QuizLink | null> {
  const row = await db.one<QuizLinkRow>('SELECT * FROM quiz_link WHERE quiz_id = ?', [quiz])
  return row ? { audience: row.class_id, token: row.token } : null
}

/**
 * Makes the link of a quiz, or gives it another address: the old one then leads nowhere, and whoever has come by it stays.
 * Made twice at once it is one.
 */
export async function makeLink(database: Database, person: Person, quiz: string, now: Instant): Promise<QuizLink> {
  return database.transaction(async (db) => {
    const token = newToken().slice(0, 32)
    const changed = await db.run('UPDATE quiz_link SET token = ? WHERE quiz_id = ?', [token, quiz])
    if (!changed) {
      const audience = newId()
      await db.run("INSERT INTO class (id, school_id, name, link_of) VALUES (?, ?, 'Everyone with the link', ?)", [
        audience,
        person.school,
        quiz,
      ])
      await db.run('INSERT INTO quiz_link (quiz_id, class_id, token) VALUES (?, ?, ?)', [quiz, audience, token])
      await rosterChanged(db, person.school)
    }
    await recordLine(db, now, person.id, changed ? 'link changed' : 'link made', quiz, {})
    return (await linkOf(db, quiz))!
  })
}

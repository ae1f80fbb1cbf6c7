import type { PersonRow } from '../../database/tables'
import type { Db } from '../../database/database'
import { notFound } from '../problem'

/** Whether somebody gets reminders, by the word in their letters: it lets nobody do anything else. */
export async function remindersAt(db: Db, word: string): Promise<{ on: boolean }> {
  const row = await db.one<Pick<PersonRow, 'reminders'>>('SELECT reminders FROM person WHERE reminder_word = ?', [word])
  if (!row) throw notFound('This address')
  return { on: Boolean(row.reminders) }
}

export async function setRemindersAt(db: Db, word: string, on: boolean): Promise<{ on: boolean }> {
  await remindersAt(db, word)
  await db.run('UPDATE person SET reminders = ? WHERE reminder_word = ?', [on ? 1 : 0, word])
  return { on }
}

/** The same for who is signed in. */
export async function ownReminders(db: Db, person: string): Promise<{ on: boolean }> {
  const row = await db.one<Pick<PersonRow, 'reminders'>>('SELECT reminders FROM person WHERE id = ?', [person])
  return { on: Boolean(row?.reminders) }
}

export async function setOwnReminders(db: Db, person: string, on: boolean): Promise<{ on: boolean }> {
  await db.run('UPDATE person SET reminders = ? WHERE id = ?', [on ? 1 : 0, person])
  return { on }
}

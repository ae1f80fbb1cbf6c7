import { z } from 'zod'
import type { AttemptNoteRow } from '../../database/tables'
import type { Instant } from '../../../core/kit/time'
import { fromJson, toJson } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import { Problem } from '../problem'
import { loadPaper } from './attempts'
import { answerSave } from './save'
import { ownAttempt } from './own-attempt'

/** Stretches of a question's text, by places of characters in it. */
const stretch = z
  .tuple([z.int().min(0).max(100_000), z.int().min(0).max(100_000)])
  .refine(([from, to]) => from < to, 'A highlight has a length.')
export const noteRequest = z.strictObject({
  item: answerSave.shape.item,
  note: z.string().max(5000, 'A note has at most 5,000 characters.'),
  marks: z.array(stretch).max(60, 'There are at most 60 highlights on a question.'),
})
export type OwnNote = Omit<z.infer<typeof noteRequest>, 'item'>

/** A student's own notes and highlights, by item. */
export async function loadNotes(db: Db, attempt: string): Promise<Record<string, OwnNote>> {
  const rows = await db.rows<AttemptNoteRow>('SELECT * FROM attempt_note WHERE attempt_id = ?', [attempt])
  return Object.fromEntries(rows.map(({ item, note, marks }) => [item, { note, marks: fromJson(marks) }]))
}

/**
 * Keeps a student's own note and highlights on a question, in place of what was there; empty ones go. They are no answers:
 * any device of theirs may write them while the paper is sat.
 * @throws Problem 404 for a paper of somebody else's, 409 when it is handed in, 422 for a question that is not on it
 */
export async function keepNote(
  database: Database,
  student: string,
  attempt: string,
  { item, note, marks }: z.infer<typeof noteRequest>,
  now: Instant,
): Promise<void> {
  const { state } = await ownAttempt(database, student, attempt, now)
  if (state !== 'open') throw new Problem(409, 'ended', 'This paper has been handed in.', { attempt })
  if (!(await loadPaper(database, attempt)).items.some((each) => each.id === item))
    throw new Problem(422, 'item', 'There is no such question on this paper.')
  if (note === '' && !marks.length)
    await database.run('DELETE FROM attempt_note WHERE attempt_id = ? AND item = ?', [attempt, item])
  else
    await database.run('REPLACE INTO attempt_note (attempt_id, item, note, marks) VALUES (?, ?, ?, ?)', [
      attempt,
      item,
      note,
      toJson(marks),
    ])
}

import type { SchoolWordsRow } from '../../../database/tables'
import { z } from 'zod'
import { noVocabulary, vocabulary, type Vocabulary } from '../../../../core/question/vocabulary'
import { toJson } from '../../../database/codec'
import { readVocabulary } from '../../../documents/read'
import type { Database, Db } from '../../../database/database'
import type { Person } from '../../../people/people'
import { Problem } from '../../problem'

export const vocabularyChange = z.strictObject({ on: z.int().min(0), words: vocabulary })

/** How a school describes its questions. */
export async function loadVocabulary(
  db: Db,
  person: Pick<Person, 'school'>,
): Promise<{ revision: number; words: Vocabulary }> {
  const row = await db.one<Pick<SchoolWordsRow, 'revision' | 'body'>>(
    'SELECT revision, body FROM school_words WHERE school_id = ?',
    [person.school],
  )
  return row ? { revision: row.revision, words: readVocabulary(row.body) } : { revision: 0, words: noVocabulary }
}

/** Keeps a change, if nobody has made one in between. Questions keep what they were given: a level that is gone is no longer offered. */
export async function keepVocabulary(
  database: Database,
  person: Person,
  on: number,
  words: Vocabulary,
): Promise<{ revision: number }> {
  const won =
    on === 0
      ? await database.run('INSERT IGNORE INTO school_words (school_id, revision, body) VALUES (?, 1, ?)', [
          person.school,
          toJson(words),
        ])
      : await database.run(
          'UPDATE school_words SET revision = revision + 1, body = ? WHERE school_id = ? AND revision = ?',
          [toJson(words), person.school, on],
        )
  if (!won)
    throw new Problem(409, 'newer', 'A colleague has changed these words just now. Load them again and put yours in.')
  return { revision: on + 1 }
}

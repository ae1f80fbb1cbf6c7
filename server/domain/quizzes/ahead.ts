import type { QuestionRow } from '../../database/tables'
import { allRows, questionsUsed, withHeld, type Edition, type Held } from '../../../core/quiz'
import { same } from '../../../core/quiz/edits/paths'
import type { Db } from '../../database/database'
import { loadEdition } from './edition'
import type { LoadedQuiz } from './quizzes'

/** Questions that follow the newest version, of which there is a newer one than students sit. */
async function hasNewerVersions(db: Db, { questions, content }: Edition): Promise<boolean> {
  const pinned = new Set(
    allRows(content).flatMap((row) => (row.type === 'question' && row.version !== null ? [row.question] : [])),
  )
  const following = Object.keys(questions).filter((id) => !pinned.has(id))
  if (!following.length) return false
  const rows = await db.rows<Pick<QuestionRow, 'id' | 'version'>>('SELECT id, version FROM question WHERE id IN (?)', [
    following,
  ])
  return rows.some(({ id, version }) => version > questions[id]!.version)
}

/**
 * Whether a quiz, given to classes once more, would be another than its newest edition: edited since, with questions of
 * newer versions, or with conditions that find something else.
 * @param held what its conditions find (heldNow)
 */
export async function isAhead(
  db: Db,
  row: Pick<LoadedQuiz, 'quiz' | 'revision' | 'edition' | 'editionRevision'>,
  held: Held,
): Promise<boolean> {
  if (row.edition === null) return false
  if (row.editionRevision !== row.revision) return true
  const edition = await loadEdition(db, row.edition)
  return (
    !same(questionsUsed(withHeld(row.quiz.content, held)), questionsUsed(edition.content)) ||
    (await hasNewerVersions(db, edition))
  )
}

import { createHmac } from 'node:crypto'
import type { EditionRow, QuizRow } from '../../database/tables'
import { allRows, questionsUsed, type Edition, type Quiz } from '../../../core/quiz'
import { mapEveryHtml, mapStimulusHtml, type Question } from '../../../core/question'
import type { Db } from '../../database/database'
import { Remembered } from '../../database/remembered'
import { readEdition } from '../../documents/read'
import { loadQuestions, shown } from '../bank/questions/questions'
import { loadVersions } from '../bank/questions/rows'
import { cleanHtml, renderMaths } from '../bank/material/clean-html'
import { loadStimuli } from '../bank/material/stimuli'
import { newId, newSecret } from '../ids'
import { notFound } from '../problem'

const asShown = (html: string) => renderMaths(cleanHtml(html))

/** Questions in the versions that rows are pinned to. */
export async function pinnedIn(db: Db, quiz: Quiz): Promise<Map<string, { version: number; question: Question }>> {
  const pinned = allRows(quiz.content).flatMap((row) =>
    row.type === 'question' && row.version !== null ? [{ id: row.question, version: row.version }] : [],
  )
  const bodies = await loadVersions(db, pinned)
  return new Map(
    pinned.flatMap(({ id, version }) => {
      const question = bodies.get(id)
      return question ? [[id, { version, question }] as const] : []
    }),
  )
}

/** What the papers of a quiz are drawn from: made once, whoever asks first. */
export async function drawSecret(db: Db, quiz: string): Promise<string> {
  const known = () => db.one<Pick<QuizRow, 'draw_secret'>>('SELECT draw_secret FROM quiz WHERE id = ?', [quiz])
  let row = await known()
  if (row?.draw_secret === null) {
    await db.run('UPDATE quiz SET draw_secret = ? WHERE id = ? AND draw_secret IS NULL', [newSecret(), quiz])
    row = await known()
  }
  if (!row?.draw_secret) throw notFound('This quiz')
  return row.draw_secret
}

/** The secret of an edition by its number, or of a draw that only rehearsals see. @returns 64 hexadecimal digits */
export const secretOf = (own: string, name: string): string =>
  createHmac('sha256', Buffer.from(own, 'hex')).update(name).digest('hex')

/**
 * Freezes the content of a quiz: the newest version of each question or the one it is pinned to, texts as shown, a secret
 * of its own.
 */
export async function freeze(db: Db, school: string, quiz: Quiz, number: number, secret: string): Promise<Edition> {
  const [newest, pinned] = [await loadQuestions(db, school, questionsUsed(quiz.content)), await pinnedIn(db, quiz)]
  const found = new Map([...newest].map(([id, each]) => [id, pinned.get(id) ?? each]))
  const stimuli = await loadStimuli(db, school, [
    ...new Set([...found.values()].flatMap(({ question }) => question.stimulus ?? [])),
  ])
  return {
    id: newId(),
    number,
    secret: secretOf(secret, `edition ${number}`),
    content: {
      ...quiz.content,
      intro: asShown(quiz.content.intro),
      after: asShown(quiz.content.after),
      closing: quiz.content.closing.map((band) => ({ ...band, html: asShown(band.html) })),
      sections: quiz.content.sections.map((section) => ({
        ...section,
        intro: asShown(section.intro),
        rows: section.rows.map((row) => (row.type === 'text' ? { ...row, html: asShown(row.html) } : row)),
      })),
    },
    questions: Object.fromEntries(
      [...found].map(([id, { version, question }]) => [
        id,
        { version, question: shown(mapEveryHtml(question, cleanHtml)) },
      ]),
    ),
    stimuli: Object.fromEntries([...stimuli].map(([id, { stimulus }]) => [id, mapStimulusHtml(stimulus, asShown)])),
  }
}

/** Editions never change, so a process may remember some: it holds no state that another would need. */
const remembered = new Remembered<Edition>(40)

/** What a stage has laid out need not be read again. */
export const rememberEdition = (edition: Edition): void => {
  remembered.set(edition.id, edition)
}

/** An edition by its id. Refuses an unknown one; who may see it is for the caller to ask. */
export async function loadEdition(db: Db, id: string): Promise<Edition> {
  const known = remembered.get(id)
  if (known) return known
  const row = await db.one<Pick<EditionRow, 'body'>>('SELECT body FROM edition WHERE id = ?', [id])
  if (!row) throw notFound('This edition')
  const edition = readEdition(row.body)
  remembered.set(id, edition)
  return edition
}

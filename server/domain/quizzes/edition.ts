import type { EditionRow } from '../../database/tables'
import { questionsUsed, type Edition, type Quiz } from '../../../core/quiz'
import { mapEveryHtml, mapStimulusHtml } from '../../../core/question'
import type { Db } from '../../database/database'
import { Remembered } from '../../database/remembered'
import { readEdition } from '../../documents/read'
import { loadQuestions, shown } from '../bank/questions/questions'
import { cleanHtml, renderMaths } from '../bank/material/clean-html'
import { loadStimuli } from '../bank/material/stimuli'
import { newId, newSecret } from '../ids'
import { notFound } from '../problem'

const asShown = (html: string) => renderMaths(cleanHtml(html))

/** Freezes the content of a quiz: the newest version of each question, texts as shown, a secret of its own. */
export async function freeze(db: Db, school: string, quiz: Quiz, number: number): Promise<Edition> {
  const found = await loadQuestions(db, school, questionsUsed(quiz.content))
  const stimuli = await loadStimuli(db, school, [
    ...new Set([...found.values()].flatMap(({ question }) => question.stimulus ?? [])),
  ])
  return {
    id: newId(),
    number,
    secret: newSecret(),
    content: {
      ...quiz.content,
      intro: asShown(quiz.content.intro),
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

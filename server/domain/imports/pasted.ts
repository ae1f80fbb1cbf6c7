import { questionsFromHtml } from '../../../formats/document/html'
import { writeMarkdown } from '../../../formats/markdown/write'
import { mapQuestionHtml } from '../../../core/question'
import { cleanHtml } from '../bank/material/clean-html'

/**
 * What was copied out of a word processor as Markdown, so that it can be looked at and changed before anything is kept. Options
 * of which none is marked come unticked; what could not be understood is told.
 */
export function pastedAsText(html: string): { text: string; problems: string[] } {
  const items = questionsFromHtml(html, true)
  const outgoing = items.flatMap(({ question, folder }, i) =>
    question ? [{ id: String(i), folder, objectives: [], question: mapQuestionHtml(question, cleanHtml) }] : [],
  )
  return {
    text: outgoing.length ? writeMarkdown(outgoing) : '',
    problems: items.flatMap(({ problem, notes, question, place }) =>
      [
        ...(problem === null ? [] : [problem]),
        ...notes,
        ...(JSON.stringify(question).includes('<img')
          ? ['Its pictures do not come along; bring in the document itself.']
          : []),
      ].map((each) => `${place}: ${each}`),
    ),
  }
}

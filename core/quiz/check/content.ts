import { list } from '../../kit/phrases'
import { languageName } from '../../question/language-name'
import { unsatisfiable } from '../../paper/draw'
import type { Facts } from '../../figures'
import { coverageOf } from '../../figures/coverage'
import { papersOf } from '../../figures/papers'
import { bandsFor, closingFaults, unknownPlaceholders } from '../closing'
import { removeFrom, setAt } from '../edits/make'
import type { Content, Quiz, Section } from '../schema'
import { allRows, drawRows, fixedOf, fixedQuestions, questionsUsed } from '../walk'
import { look, stop, type CheckContext, type Found } from './check'

/** Checks of what a quiz promises: objectives, versions, languages, closing words. */

/** An objective with all that lies above it. */
function upFrom(objective: string, context: CheckContext): string[] {
  const up: string[] = []
  for (let at: string | null = objective; at && !up.includes(at); at = context.objectives.get(at)?.parent ?? null)
    up.push(at)
  return up
}

/** Questions with the objectives that they count for: their own and all above those. */
function factsWithAbove(content: Content, context: CheckContext): Facts {
  return new Map(
    questionsUsed(content).flatMap((id) => {
      const facts = context.questions.get(id)?.facts
      if (!facts) return []
      return [[id, { ...facts, objectives: [...new Set(facts.objectives.flatMap((each) => upFrom(each, context)))] }]]
    }),
  )
}

/** Whether some paper has no question on an objective in these sections. Exact; where pools overlap and are spread, spreading is not counted on. */
function someLacks(objective: string, content: Content, sections: readonly Section[], facts: Facts): boolean {
  const has = (question: string) => Boolean(facts.get(question)?.objectives.includes(objective))
  const rows = sections.flatMap((section) => section.rows)
  if (rows.flatMap(fixedOf).some(has)) return false
  const here = new Set(rows.map((row) => row.id))
  const without = drawRows(content).map((row) => ({
    id: row.id,
    draw: row.draw,
    holds: here.has(row.id) ? row.questions.filter((question) => !has(question)) : row.questions,
  }))
  if (unsatisfiable(without, new Set(fixedQuestions(content))).length) return false
  if (papersOf(content, facts).overlap) return true
  const papers = papersOf({ ...content, sections: [...sections] }, facts)
  return !coverageOf(papers, facts).some((each) => each.objective === objective && each.atLeast > 0)
}

/** Objectives that are named for the quiz or a section, and that some paper lacks. */
export function objectiveChecks(quiz: Quiz, context: CheckContext): Found {
  const { content } = quiz
  if (!questionsUsed(content).length) return []
  const facts = factsWithAbove(content, context)
  const named = [
    ...content.objectives.map((objective) => ({ objective, sections: content.sections, key: 'quiz', where: '' })),
    ...content.sections.flatMap((section) =>
      section.objectives.map((objective) => ({
        objective,
        sections: [section],
        key: section.id,
        where: ` in “${section.title}”`,
      })),
    ),
  ]
  return named
    .filter(({ objective, sections }) => someLacks(objective, content, sections, facts))
    .map(({ objective, key, where }) => {
      const title = context.objectives.get(objective)?.title ?? 'An objective that is no longer there'
      const none = !questionsUsed(content).some((id) => facts.get(id)?.objectives.includes(objective))
      return look(
        `objective:${key}:${objective}`,
        'compose',
        none ? 'No question on an objective' : 'Some papers lack an objective',
        none
          ? `“${title}” is named${where}, and no question is on it.`
          : `“${title}” is named${where}, but there are papers without a question on it.`,
        { label: 'Find questions on it', goTo: 'finder', objective },
      )
    })
}

/** Questions that stay at a version of which there is a newer one, or that is not there. */
export function pinnedChecks(quiz: Quiz, context: CheckContext): Found {
  return allRows(quiz.content).flatMap((row) => {
    if (row.type !== 'question' || row.version === null) return []
    const question = context.questions.get(row.question)
    if (!question || row.version === question.version) return []
    const remedy = {
      label: `Take version ${question.version}`,
      edit: setAt(quiz, ['rows', row.id, 'version'], question.version),
    }
    return row.version > question.version
      ? [
          stop(
            `no-version:${row.id}`,
            'compose',
            'A version that is not there',
            `“${question.title}” stays at version ${row.version}, but it has only ${question.version}.`,
            remedy,
          ),
        ]
      : [
          look(
            `pinned:${row.id}`,
            'compose',
            'A newer version is there',
            `“${question.title}” stays at version ${row.version}; version ${question.version} is there. Open the row to see what changed.`,
            remedy,
          ),
        ]
  })
}

/** Questions that cannot be read in a language in which the quiz is offered. */
export function languageChecks(quiz: Quiz, context: CheckContext): Found {
  const { content } = quiz
  const read = questionsUsed(content).flatMap((id) => {
    const question = context.questions.get(id)
    return question?.reading ? [{ id, title: question.title, languages: question.reading.languages }] : []
  })
  return content.languages.flatMap((language) => {
    const lack = read.filter((each) => !each.languages.includes(language))
    if (!lack.length) return []
    const names = list(lack.slice(0, 3).map(({ title }) => `“${title}”`))
    return [
      look(
        `language:${language}`,
        'compose',
        `Not all can be read in ${languageName(language)}`,
        `${names}${lack.length > 3 ? ` and ${lack.length - 3} more` : ''} ${lack.length === 1 ? 'has' : 'have'} no translation into ${languageName(language)}, and will be read as written.`,
        { label: 'Translate the first', open: lack[0]!.id },
      ),
    ]
  })
}

/** Closing words that somebody would miss, or that say what was not meant. */
export function closingChecks(quiz: Quiz): Found {
  const { content } = quiz
  const bands = bandsFor(content.closing)
  const { gap, overlap } = closingFaults(content.closing)
  const unknown = [content.after, ...content.closing.map(({ html }) => html)].flatMap(unknownPlaceholders)
  return [
    ...(gap === null
      ? []
      : [
          look(
            'closing-gap',
            'compose',
            'Closing words leave a gap',
            `Below ${gap} % nothing is said. Add words from 0 % if somebody should be told something else there.`,
            {
              label: 'Say the lowest from 0 % on',
              edit: setAt(quiz, ['content', 'closing', bands.at(-1)!.id, 'from'], 0),
            },
          ),
        ]),
    ...(overlap === null
      ? []
      : [
          look(
            'closing-overlap',
            'compose',
            'Closing words overlap',
            `Two bands of closing words begin at ${overlap} %, and only one of them is read.`,
            {
              label: 'Take out the one that is not read',
              edit: removeFrom(quiz, ['content', 'closing'], [bands.findLast(({ from }) => from === overlap)!.id]),
            },
          ),
        ]),
    ...(unknown.length
      ? [
          look(
            'closing-names',
            'compose',
            'Words in brackets that stand for nothing',
            `${list([...new Set(unknown)].map((name) => `{${name}}`))} will be read as written. {name}, {quiz}, {score}, {grade} and {date} stand for those of the student.`,
          ),
        ]
      : []),
  ]
}

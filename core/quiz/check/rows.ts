import { count, list } from '../../kit/phrases'
import { unsatisfiable } from '../../paper/draw'
import type { Edit } from '../edits/edit'
import { removeFrom, removeRow, setAt, together } from '../edits/make'
import type { DrawRow, Quiz, Row } from '../schema'
import {
  allRows,
  drawRows,
  gives,
  fixedOf,
  fixedQuestions,
  questionsOf,
  questionsUsed,
  rowPoints,
  rowSize,
} from '../walk'
import { mostHeld } from '../condition'
import { type CheckContext, type Found, stop, look } from './check'

export function rowChecks(quiz: Quiz, context: CheckContext): Found {
  const { content } = quiz
  const found: Found = []
  if (!questionsUsed(content).length) {
    found.push(
      stop(
        'no-questions',
        'compose',
        'There is no question yet',
        'Pick questions from the finder and add them to a section.',
        { label: 'Find questions', goTo: 'finder' },
      ),
    )
  } else if (
    quiz.rules.counts !== 'survey' &&
    allRows(content).reduce((total, row) => total + rowPoints(row), 0) === 0
  ) {
    found.push(
      stop(
        'no-points',
        'compose',
        'No question is worth a point',
        'Give at least one row more than 0 points, or no grade can be formed.',
        {
          label: 'One point for each question',
          edit: together(
            allRows(content)
              .filter(gives)
              .map((row) => setAt(quiz, ['rows', row.id, 'points'], 1)),
          )!,
        },
      ),
    )
  }
  for (const row of allRows(content)) {
    const ids = questionsOf(row)
    const bad = ids.filter((id) => !context.questions.get(id)?.usable)
    if (!bad.length) continue
    const names = bad
      .slice(0, 3)
      .map((id) => `“${context.questions.get(id)?.title ?? 'a question that is no longer in the bank'}”`)
    const keep = ids.filter((id) => !bad.includes(id))
    const edit = without(quiz, row, bad)
    found.push(
      stop(
        `unusable:${row.id}`,
        'compose',
        `${count(bad.length, 'question')} cannot be used`,
        `${list(names)} ${bad.length === 1 ? 'is' : 'are'} retired, not finished, or in a bank of others and not taken yet.`,
        {
          label: keep.length ? `Take out of the ${row.type === 'pool' ? 'pool' : 'group'}` : 'Take out of the quiz',
          edit,
        },
      ),
    )
  }
  return found
}

export function duplicateChecks(quiz: Quiz, context: CheckContext): Found {
  const { content } = quiz
  const seen = new Set<string>()
  return allRows(content).flatMap((row) => {
    const again = fixedOf(row).filter((question) => seen.has(question))
    fixedOf(row).forEach((question) => seen.add(question))
    if (!again.length) return []
    const names = list(
      again.slice(0, 3).map((question) => `“${context.questions.get(question)?.title ?? 'One question'}”`),
    )
    return [
      stop(
        `twice:${row.id}`,
        'compose',
        'A question stands twice',
        `${names} ${again.length === 1 ? 'is' : 'are'} on every paper by an earlier row already, and no paper holds a question twice.`,
        { label: 'Take out the second', edit: without(quiz, row, again) },
      ),
    ]
  })
}

/** Takes questions out of a row; a row that would be left empty goes. */
export function without(quiz: Quiz, row: Row, questions: readonly string[]): Edit {
  const keep = questionsOf(row).filter((question) => !questions.includes(question))
  if (row.type === 'pool' && row.condition && keep.length)
    return together([
      setAt(quiz, ['rows', row.id, 'condition'], {
        ...row.condition,
        except: [...new Set([...row.condition.except, ...questions])],
      }),
      ...(row.draw > keep.length ? [setAt(quiz, ['rows', row.id, 'draw'], keep.length)] : []),
    ])!
  if (!keep.length || !gives(row) || row.type === 'question') return removeRow(quiz, row.id)
  const out = [...new Set(questions)].filter((question) => row.questions.includes(question))
  return together([
    removeFrom(quiz, ['rows', row.id, 'questions'], out),
    ...(row.draw > keep.length ? [setAt(quiz, ['rows', row.id, 'draw'], keep.length)] : []),
  ])!
}

const nameOf = (row: DrawRow, other: string) =>
  row.type === 'stimulus' ? 'A stimulus group' : row.title ? `“${row.title}”` : other

const kindOfRow = (row: DrawRow) => (row.type === 'stimulus' ? 'group' : 'pool')

export function poolChecks(quiz: Quiz): Found {
  const { content } = quiz
  const claimed = new Set(fixedQuestions(content))
  const pools = drawRows(content)
  const found: Found = []
  for (const row of pools) {
    const holds = row.questions.filter((question) => !claimed.has(question)).length
    if (holds >= row.draw) continue
    found.push(
      stop(
        `pool-short:${row.id}`,
        'compose',
        `A ${kindOfRow(row)} draws ${row.draw} of ${holds}`,
        `${nameOf(row, 'A pool')} holds ${count(holds, 'question')} that no fixed row claims, fewer than it draws.`,
        holds
          ? { label: `Draw ${holds}`, edit: setAt(quiz, ['rows', row.id, 'draw'], holds) }
          : { label: `Take out the ${kindOfRow(row)}`, edit: removeRow(quiz, row.id) },
      ),
    )
  }
  if (found.length) return found
  const impossible = unsatisfiable(
    pools.map((row) => ({ id: row.id, holds: row.questions, draw: row.draw })),
    claimed,
  )
  for (const id of impossible) {
    const row = pools.find((each) => each.id === id)!
    found.push(
      stop(
        `pools-together:${id}`,
        'compose',
        'Pools take each other’s questions',
        `${nameOf(row, 'This pool')} shares questions with others, and together they draw more than they hold.`,
        row.draw > 1
          ? { label: `Draw ${row.draw - 1}`, edit: setAt(quiz, ['rows', id, 'draw'], row.draw - 1) }
          : { label: `Take out the ${kindOfRow(row)}`, edit: removeRow(quiz, id) },
      ),
    )
  }
  return found
}

export function emptySections(quiz: Quiz): Found {
  const { content } = quiz
  if (!questionsUsed(content).length || content.sections.length === 1) return []
  return content.sections
    .filter((section) => section.rows.every((row) => rowSize(row) === 0))
    .map((section) =>
      look(
        `empty-section:${section.id}`,
        'compose',
        `“${section.title}” holds no question`,
        'Students do not see a section without questions.',
        { label: 'Take out the section', edit: removeFrom(quiz, ['sections'], [section.id]) },
      ),
    )
}

/** Questions without a key that are worth points, where something is marked. */
export function keylessChecks(quiz: Quiz, context: CheckContext): Found {
  if (quiz.rules.counts === 'survey') return []
  return allRows(quiz.content).flatMap((row) => {
    if (!gives(row) || row.points === 0) return []
    const bare = questionsOf(row).filter((id) => context.questions.get(id)?.reading?.keyless)
    if (!bare.length) return []
    const alone = bare.length === questionsOf(row).length
    return [
      stop(
        `keyless:${row.id}`,
        'compose',
        'Points for a question without a key',
        `${list(bare.slice(0, 3).map((id) => `“${context.questions.get(id)!.title}”`))} ${bare.length === 1 ? 'has' : 'have'} no key: nothing of it can be marked.`,
        alone
          ? { label: 'Ask it for no points', edit: setAt(quiz, ['rows', row.id, 'points'], 0) }
          : { label: `Take out of the ${row.type === 'pool' ? 'pool' : 'group'}`, edit: without(quiz, row, bare) },
      ),
    ]
  })
}

/** Conditions that find more than a pool holds: what is beyond is never drawn. */
export function cappedChecks(quiz: Quiz): Found {
  return allRows(quiz.content).flatMap((row) =>
    row.type === 'pool' && row.condition && row.questions.length >= mostHeld
      ? [
          look(
            `capped:${row.id}`,
            'compose',
            'A condition finds very many questions',
            `${nameOf(row, 'A pool')} holds the first ${mostHeld} that its condition finds; those beyond are never drawn. Narrow the condition.`,
          ),
        ]
      : [],
  )
}

import type { Content } from '../quiz/schema'
import { drawRows, fixedQuestions, pointsOf, allRows } from '../quiz/walk'
import type { KindName } from '../question/kinds'
import { blankBlueprint, type Blueprint, type Cell } from './schema'

/** What reading a blueprint off a quiz asks of a question. */
export interface Described {
  kind: KindName
  objectives: readonly string[]
  seconds: number
}

/**
 * The blueprint that a quiz follows already: how many questions of each main objective and kind every paper has, at least
 * and at most, and what it adds up to.
 */
export function blueprintOf(content: Content, describe: (question: string) => Described | undefined): Blueprint {
  const cells = new Map<string, Cell>()
  const add = (question: string, atLeast: number, atMost: number, before?: Map<string, number>) => {
    const { kind = null, objectives = [] } = describe(question) ?? {}
    const objective = objectives[0] ?? null
    const key = `${objective ?? ''}|${kind ?? ''}`
    const known = cells.get(key) ?? {
      id: `l${cells.size + 1}`,
      objective,
      kind,
      difficulty: null,
      level: null,
      count: { atLeast: 0, atMost: 0 },
    }
    known.count = { atLeast: known.count.atLeast + atLeast, atMost: (known.count.atMost ?? 0) + atMost }
    cells.set(key, known)
    before?.set(key, (before.get(key) ?? 0) + 1)
  }
  for (const question of fixedQuestions(content)) add(question, 1, 1)
  for (const row of drawRows(content)) {
    const held = new Map<string, number>()
    for (const question of row.questions) add(question, 0, 0, held)
    for (const [key, c] of held) {
      const { count } = cells.get(key)!
      count.atLeast += Math.max(0, row.draw - (row.questions.length - c))
      count.atMost = (count.atMost ?? 0) + Math.min(row.draw, c)
    }
  }
  const questions = fixedQuestions(content).length + drawRows(content).reduce((all, row) => all + row.draw, 0)
  const points = pointsOf(allRows(content))
  return {
    ...blankBlueprint(content.title),
    cells: [...cells.values()].filter(({ count }) => count.atMost),
    questions: questions ? { atLeast: questions, atMost: questions } : null,
    points: points ? { atLeast: points, atMost: points } : null,
  }
}

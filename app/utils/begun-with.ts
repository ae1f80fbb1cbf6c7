import type { Question } from '~~/core/question'

/** What a new question begins with when it is written to fill a line of a blueprint: objective, difficulty, thinking level. */
export function begunWith(
  query: Readonly<Record<string, unknown>>,
): Partial<Pick<Question, 'objectives' | 'difficulty' | 'levels'>> {
  const [scheme, level] = String(query.level ?? '').split(':')
  const difficulty = Number(query.difficulty)
  return {
    ...(query.objective ? { objectives: [String(query.objective)] } : {}),
    ...(Number.isInteger(difficulty) && difficulty >= 1 && difficulty <= 5 ? { difficulty } : {}),
    ...(scheme && level ? { levels: { [scheme]: level } } : {}),
  }
}

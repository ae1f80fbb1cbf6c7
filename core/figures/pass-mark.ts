import type { Papers } from './papers'

/** A judge's ratings: for each question, the chance that a student who only just deserves to pass gets it right. */
export type Ratings = ReadonlyMap<string, number>

export interface JudgedMark {
  /** The pass mark in points, the mean over judges, and as a share of the points possible. */
  points: number
  share: number
  /** s/√judges, in points; null with one judge. */
  error: number | null
  /** What each judge's ratings add up to, in points, in the order in which judges were given. */
  judges: number[]
  /** Questions that every judge has rated, and all that a paper may hold. */
  rated: number
  questions: number
}

/** How many points of a paper a question stands for: those of its row, times the chance that a pool gives it. */
export function weights({ fixed, pools }: Papers): Map<string, number> {
  const found = new Map<string, number>()
  const add = (question: string, points: number) => found.set(question, (found.get(question) ?? 0) + points)
  fixed.forEach(({ question, points }) => add(question, points))
  for (const { from, n } of pools) from.forEach(({ question, points }) => add(question, (points * n) / from.length))
  return found
}

/**
 * The pass mark by judges (modified Angoff; Angoff 1971, in Thorndike, Educational Measurement, 2nd ed.): a judge's mark
 * is the sum of their ratings weighted by points, the pass mark the mean over judges, its standard error s/√judges.
 * Questions that some judge has not rated stand at the mean of those that all have rated. Null before any question is
 * rated by all.
 */
export function judgedMark(papers: Papers, judges: readonly Ratings[]): JudgedMark | null {
  const weight = weights(papers)
  const possible = [...weight.values()].reduce((a, b) => a + b, 0)
  const rated = [...weight].filter(([question]) => judges.every((ratings) => ratings.has(question)))
  const ratedPoints = rated.reduce((all, [, points]) => all + points, 0)
  if (!judges.length || ratedPoints <= 0) return null
  const marks = judges.map(
    (ratings) =>
      (rated.reduce((all, [question, points]) => all + ratings.get(question)! * points, 0) / ratedPoints) * possible,
  )
  const n = marks.length
  const mean = marks.reduce((a, b) => a + b, 0) / n
  const s = n > 1 ? Math.sqrt(marks.reduce((all, mark) => all + (mark - mean) ** 2, 0) / (n - 1)) : null
  return {
    points: mean,
    share: mean / possible,
    error: s === null ? null : s / Math.sqrt(n),
    judges: marks,
    rated: rated.length,
    questions: weight.size,
  }
}

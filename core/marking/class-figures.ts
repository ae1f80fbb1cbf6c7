import { least } from '../analysis/item'
import { exact, fixed, sum, type Exact } from '../kit/exact'

export interface ClassFigures {
  graded: number
  passed: number
  /** Percent with the quiz's decimals; null where nobody is graded. */
  mean: string | null
  highest: string | null
}

/** Mean and highest counting grade of several students, from exact shares, rounded once (semantics §1). @param decimals the quiz's */
export function classFigures(
  grades: readonly { share: Exact | null; passed: boolean | null }[],
  decimals: number,
): ClassFigures {
  const shares = grades.flatMap(({ share }) => (share === null ? [] : [exact(share)]))
  const percent = (share: ReturnType<typeof exact>) => fixed(share.mul(100), decimals)
  return {
    graded: shares.length,
    passed: grades.filter((grade) => grade.passed).length,
    mean: shares.length ? percent(sum(shares).div(shares.length)) : null,
    highest: shares.length ? percent(shares.reduce((best, each) => (each.compare(best) > 0 ? each : best))) : null,
  }
}

/** The same as students may see it: nothing below the least number of which anything is told, so that nobody can be worked out of it. */
export function classFiguresForStudents(...given: Parameters<typeof classFigures>): ClassFigures | null {
  const figures = classFigures(...given)
  return figures.graded < least ? null : figures
}

/** A linear program with whole numbers, written in the LP format that solvers read. */

export interface Solved {
  /** By name of the variable; those that are not named are 0. */
  values: Record<string, number>
  /** Proven to be best within the gap; false where time ran out. */
  proven: boolean
}
/**
 * Solves a program in the LP format, to within a gap as a share of the best or, where that is more, to `near` it.
 * Null where there is no solution, or none was found in time.
 */
export type Solver = (lp: string, options: { seconds: number; gap: number; near: number }) => Promise<Solved | null>

export type Term = readonly [factor: number, variable: string]

const written = (n: number) => (Number.isInteger(n) ? String(n) : n.toPrecision(12))
const lines = 8

/** "3 x1 + 2 x2 - x3", some to a line: the format bounds how long lines are. */
function sum(terms: readonly Term[]): string {
  return terms
    .filter(([factor]) => factor !== 0)
    .map(([factor, variable], i) => {
      const sign = factor < 0 ? '- ' : i ? '+ ' : ''
      return `${sign}${written(Math.abs(factor))} ${variable}${i % lines === lines - 1 ? '\n ' : ''}`
    })
    .join(' ')
}

export class Program {
  private readonly rows: string[] = []
  private readonly limits: string[] = []
  private readonly whole: string[] = []
  private objective: Term[] = []

  /** A whole number from 0 to `most`, or a given one. */
  integer(variable: string, most: number, least = 0): string {
    this.limits.push(`${least} <= ${variable} <= ${most}`)
    this.whole.push(variable)
    return variable
  }

  /** Any number from 0. */
  real(variable: string): string {
    this.limits.push(`0 <= ${variable}`)
    return variable
  }

  require(terms: readonly Term[], relation: '<=' | '>=' | '=', bound: number): void {
    const left = sum(terms)
    if (left) this.rows.push(`${left} ${relation} ${written(bound)}`)
  }

  minimise(terms: Term[]): void {
    this.objective = terms
  }

  text(): string {
    const rows = this.rows.map((row, i) => ` r${i}: ${row}`)
    return [
      'Minimize',
      ` obj: ${sum(this.objective) || '0 nothing'}`,
      'Subject To',
      ...(rows.length ? rows : [' r0: nothing >= 0']),
      'Bounds',
      ...this.limits.map((limit) => ` ${limit}`),
      ...(this.whole.length ? ['General', ...this.whole.map((variable) => ` ${variable}`)] : []),
      'End',
      '',
    ].join('\n')
  }
}

import loadHighs from 'highs'
import type { Solver } from '../../core/blueprint'

let loaded: ReturnType<typeof loadHighs> | undefined

/**
 * HiGHS, compiled for the engine that runs this (Huangfu & Hall 2018, Mathematical Programming Computation 10). It keeps
 * its thread busy until it is done or its time is over.
 */
export const highs: Solver = async (lp, { seconds, gap, near }) => {
  const solver = await (loaded ??= loadHighs())
  const { Status: status, Columns: columns } = solver.solve(lp, {
    time_limit: seconds,
    mip_rel_gap: gap,
    mip_abs_gap: near,
    output_flag: false,
  })
  const values = Object.fromEntries(
    Object.entries(columns).flatMap(([name, column]) =>
      'Primal' in column && column.Primal ? [[name, column.Primal]] : [],
    ),
  )
  if (status === 'Optimal') return { values, proven: true }
  return status === 'Time limit reached' && Object.keys(values).length ? { values, proven: false } : null
}

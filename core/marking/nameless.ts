import { z } from 'zod'

/** A paper that has ended, as a teacher sees it without knowing who wrote it. */
export const namelessPaper = z.strictObject({
  id: z.string(),
  state: z.enum(['handed', 'unsent']),
  score: z.string().nullable(),
  possible: z.string().nullable(),
  percent: z.string().nullable(),
})
export type NamelessPaper = z.infer<typeof namelessPaper>

/**
 * What a teacher sees of a paper without a name: only what is named here, and only of one that has ended. Whatever says
 * when, how often, how late, on what or from where somebody sat leads back to them, and stays out.
 * @returns null while the paper is being written: someone watching the room could tell whose it is
 */
export function sealNameless(
  paper: { [name in keyof NamelessPaper]: NamelessPaper[name] | 'open' | null } & { id: string },
): NamelessPaper | null {
  if (paper.state === 'open') return null
  const { id, state, score, possible, percent } = paper
  return namelessPaper.parse({ id, state, score, possible, percent })
}

/** What a paper without a name is called: by its id, which says nothing of whose it is or when it was begun. */
export const namelessTitle = (id: string): string => `Paper ${id.slice(-4)}`

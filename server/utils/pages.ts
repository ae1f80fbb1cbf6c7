import { z } from 'zod'

/** A list that comes a page at a time: how many are known already. */
export const afterSome = z.object({ after: z.coerce.number().int().min(0).max(1_000_000).default(0) })

import { questionRoutes } from '~/client/questions'
import type { Hit } from '~~/server/domain/bank/finding/hits'

const atOnce = 6

/** Questions as they can stand in a quiz: those of banks of others as copies of our own. @throws ApiProblem */
export async function ownCopies(hits: readonly Hit[]): Promise<Hit[]> {
  const own = [...hits]
  for (let from = 0; from < own.length; from += atOnce) {
    const part = own.slice(from, from + atOnce)
    const copied = await Promise.all(
      part.map(async (hit) =>
        hit.origin ? { ...hit, id: (await questionRoutes.take({ id: hit.id })).id, origin: null } : hit,
      ),
    )
    own.splice(from, copied.length, ...copied)
  }
  return own
}

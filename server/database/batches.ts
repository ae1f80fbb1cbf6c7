/**
 * Some at a time, one after another: a packet has a limit, and so has what one transaction should hold. The one place in
 * which statements stand in a loop (lint sees to it).
 * @param most how many at once, or how heavy at once where `weight` says how heavy each is
 */
export async function inBatches<T>(
  items: readonly T[],
  most: number,
  work: (batch: readonly T[]) => Promise<unknown>,
  weight: (item: T) => number = () => 1,
): Promise<void> {
  let batch: T[] = []
  let heavy = 0
  for (const item of items) {
    if (batch.length && heavy + weight(item) > most) {
      await work(batch)
      batch = []
      heavy = 0
    }
    batch.push(item)
    heavy += weight(item)
  }
  if (batch.length) await work(batch)
}

/**
 * As inBatches, with several under way at once: while the database writes one, the next is made ready. What comes first and what
 * after makes no difference to `work`. An error ends it once those under way have ended.
 */
export async function inLanes<T>(
  items: readonly T[],
  most: number,
  lanes: number,
  work: (batch: readonly T[]) => Promise<unknown>,
): Promise<void> {
  let next = 0
  let failed: unknown = null
  const lane = async () => {
    while (next < items.length && failed === null) {
      const batch = items.slice(next, next + most)
      next += most
      try {
        await work(batch)
      } catch (error) {
        failed ??= error
      }
    }
  }
  await Promise.all(Array.from({ length: lanes }, lane))
  if (failed !== null) throw failed
}

/** One after another, each by itself. @returns what each gave, in order */
export async function mapInOrder<T, R>(items: readonly T[], work: (item: T) => Promise<R>): Promise<R[]> {
  const results: R[] = []
  for (const item of items) results.push(await work(item))
  return results
}

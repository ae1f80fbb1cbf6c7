/** How many members on each side tell where a thing stands. */
const near = 6

/** The ids about a member of a list, its own among them: what a move says of the place that it left. */
export function nearby(ids: readonly string[], id: string): string[] {
  const at = ids.indexOf(id)
  return ids.slice(Math.max(0, at - near), at + near + 1)
}

/** The ids on either side of a member. */
export function beside(ids: readonly string[], id: string): string[] {
  const at = ids.indexOf(id)
  return [ids[at - 1], ids[at + 1]].filter((each) => each !== undefined)
}

/**
 * Whether a thing still stands where it stood, as far as the members that were known go: those that colleagues have put
 * in or taken out about it do not move it. It has kept its place when one of its neighbours is still beside it.
 */
export function samePlace(now: readonly string[], was: readonly string[], id: string): boolean {
  const known = new Set(was)
  const here = new Set(now)
  const then = was.filter((each) => here.has(each))
  const present = now.filter((each) => known.has(each))
  const next = (list: readonly string[], by: number) => list[list.indexOf(id) + by] ?? null
  return next(then, -1) === next(present, -1) || next(then, 1) === next(present, 1)
}

/** Whether a value that was read from JSON holds things within things more than so many levels deep. Goes down no further. */
export function isDeeperThan(value: unknown, levels: number): boolean {
  let layer: unknown[] = [value]
  for (let level = 0; layer.length; level++) {
    if (level > levels) return true
    layer = layer.flatMap((each) =>
      typeof each === 'object' && each !== null ? (Object.values(each) as unknown[]) : [],
    )
  }
  return false
}

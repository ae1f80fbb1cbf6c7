import type { Cell } from './schema'

export type Count = Cell['count']

/** "4", "0–2", "3+", or nothing for none. */
export function countText({ atLeast, atMost }: Count): string {
  if (atMost === null) return `${atLeast}+`
  return atLeast === atMost ? String(atLeast) : `${atLeast}–${atMost}`
}

const most = 200

/** Reads a count as people type it: "4", "0-2", "0 to 2", "3+"; null for nothing. @returns undefined for what is no count */
export function readCount(typed: string): Count | null | undefined {
  const text = typed.trim()
  if (text === '' || text === '-' || text === '–') return null
  const one = /^(\d{1,3})$/.exec(text)
  const open = /^(\d{1,3})\s*\+$/.exec(text)
  const two = /^(\d{1,3})\s*(?:-|–|to|\.\.)\s*(\d{1,3})$/.exec(text)
  const count = one
    ? { atLeast: Number(one[1]), atMost: Number(one[1]) }
    : open
      ? { atLeast: Number(open[1]), atMost: null }
      : two
        ? { atLeast: Number(two[1]), atMost: Number(two[2]) }
        : undefined
  if (!count || count.atLeast > most || (count.atMost ?? 0) > most) return undefined
  return count.atMost !== null && count.atMost < count.atLeast ? undefined : count.atMost === 0 ? null : count
}

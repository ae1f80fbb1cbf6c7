/** n over k, exactly; 0 outside 0 ≤ k ≤ n. */
export function choose(n: number, k: number): bigint {
  if (k < 0 || k > n) return 0n
  let result = 1n
  for (let i = 1; i <= Math.min(k, n - k); i++) result = (result * BigInt(n - i + 1)) / BigInt(i)
  return result
}

/** Ordered selections of k out of n, exactly: n·(n−1)·…·(n−k+1). */
export function arrangements(n: number, k: number): bigint {
  if (k < 0 || k > n) return 0n
  let result = 1n
  for (let i = 0; i < k; i++) result *= BigInt(n - i)
  return result
}

/** How many of n over all, as a number in [0, 1]; exact up to one rounding, however large both are. */
export function share(part: bigint, whole: bigint): number {
  if (part === 0n) return 0
  const bits = 60n
  const shift = BigInt(Math.max(0, whole.toString(2).length - part.toString(2).length))
  return Number((part << (bits + shift)) / whole) / 2 ** Number(bits) / 2 ** Number(shift)
}

/** Derangements: permutations of so many things that leave none in its place, from 0 up to n. */
function derangements(n: number): bigint[] {
  const found = [1n, 0n]
  for (let i = 2; i <= n; i++) found[i] = BigInt(i - 1) * (found[i - 1]! + found[i - 2]!)
  return found
}

/** How many permutations of n things leave k of them in their places, by k from 0 to n: C(n, k)·D(n−k) (Montmort 1713). */
export function fixedPoints(n: number): bigint[] {
  const none = derangements(n)
  return Array.from({ length: n + 1 }, (_, k) => choose(n, k) * none[n - k]!)
}

/**
 * How many permutations of n things have k places at which a thing is followed by the one that comes next, by k from 0
 * to n − 1: C(n−1, k)·(D(n−k) + D(n−k−1)) with D the derangements (Riordan 1958, An Introduction to Combinatorial Analysis).
 */
export function successions(n: number): bigint[] {
  const none = derangements(n)
  return Array.from({ length: n }, (_, k) => choose(n - 1, k) * (none[n - k]! + none[n - k - 1]!))
}

/**
 * How many permutations of n things have a longest increasing subsequence of length k, by k from 0 to n: the squares of
 * the numbers of standard tableaux whose first row has k cells, summed (Schensted 1961, Canad. J. Math. 13; numbers by
 * the hook lengths of Frame, Robinson & Thrall 1954, Canad. J. Math. 6).
 */
export function longestIncreasing(n: number): bigint[] {
  const counts = Array.from({ length: n + 1 }, () => 0n)
  const whole = arrangements(n, n)
  const walk = (rows: number[], left: number) => {
    if (left === 0) {
      const tableaux = whole / hooks(rows)
      counts[rows[0] ?? 0]! += tableaux * tableaux
      return
    }
    for (let next = Math.min(left, rows.at(-1) ?? left); next >= 1; next--) walk([...rows, next], left - next)
  }
  walk([], n)
  return counts
}

/** The product of the hook lengths of a shape, given by its rows from the longest. */
function hooks(rows: readonly number[]): bigint {
  const columns = Array.from({ length: rows[0] ?? 0 }, (_, column) => rows.filter((row) => row > column).length)
  let product = 1n
  rows.forEach((row, i) => {
    for (let j = 0; j < row; j++) product *= BigInt(row - j + columns[j]! - i - 1)
  })
  return product
}

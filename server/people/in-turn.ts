import { Problem } from '../domain/problem'

/** A password takes a core for a fifth of a second: so many are looked at side by side in a process, and no more. */
const sideBySide = 3
/** A school that signs in at once waits in this line; longer than it is no honest one. */
const longestLine = 1000

let busy = 0
const line: (() => void)[] = []

/** Does something when it is its turn, in the order of asking. @throws Problem 503 where the line is too long */
export async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (line.length >= longestLine)
    throw new Problem(503, 'busy', 'Too many are signing in at this moment. Try again in a minute.')
  if (busy >= sideBySide) await new Promise<void>((done) => line.push(done))
  else busy++
  try {
    return await work()
  } finally {
    // Whoever is next takes over this place.
    const next = line.shift()
    if (next) next()
    else busy--
  }
}

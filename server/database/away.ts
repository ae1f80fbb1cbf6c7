/**
 * The database cannot be reached, does not answer in time, or is too busy. Where a change was under way it may have
 * been made or not: only asking again tells.
 */
export class DatabaseAway extends Error {
  override name = 'DatabaseAway'
}

/** What a connection says when it cannot be made, or has gone (Node.js and mysql2). */
const broken = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EHOSTUNREACH',
  'ENETUNREACH',
  'ENOTFOUND',
  'EAI_AGAIN',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
])
/**
 * What a server says that takes nothing just now (MariaDB error codes): too many connections 1040 and 1203, not yet part
 * of its cluster 1047, shutting down 1053 1077 1078 1079, network trouble 1158–1161, read-only 1290 (being handed over),
 * ended by another 1927, gone 2006 and 2013, a statement over its time 1969.
 */
const unwilling = new Set([
  1040, 1047, 1053, 1077, 1078, 1079, 1158, 1159, 1160, 1161, 1203, 1290, 1927, 1969, 2006, 2013,
])
/** What mysql2 says without a code of its own about a connection or a pool that is closed already. */
const closed = /closed state|Pool is closed|connection is closed/i

/** The same error as a database that is away, if it says that; else the error itself. */
export function asAway(error: unknown): unknown {
  if (error instanceof DatabaseAway || !(error instanceof Error)) return error
  const { code, errno } = error as { code?: string; errno?: number }
  if (
    (code !== undefined && broken.has(code)) ||
    (errno !== undefined && unwilling.has(errno)) ||
    closed.test(error.message)
  )
    return new DatabaseAway(error.message, { cause: error })
  return error
}

/**
 * Waits for something at most so long.
 * @param milliseconds at most; Infinity waits for ever
 * @param late what is done when it takes longer
 * @throws DatabaseAway when it takes longer
 */
export async function within<T>(work: Promise<T>, milliseconds: number, late: () => void): Promise<T> {
  if (milliseconds === Infinity) return work
  let timer: NodeJS.Timeout | undefined
  const tooLong = new Promise<never>((_, reject) => {
    timer = setTimeout(() => {
      late()
      reject(new DatabaseAway('The database does not answer.'))
    }, milliseconds)
  })
  try {
    return await Promise.race([work, tooLong])
  } finally {
    clearTimeout(timer)
  }
}

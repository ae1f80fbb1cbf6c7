import { currentDatabase } from '../database/current'
import { DatabaseAway } from '../database/away'
import { followDatabaseClock } from '../utils/database-clock'

const every = 30_000

/** Every process follows the clock of its database. */
export default defineNitroPlugin((nitro) => {
  const timer = setInterval(() => {
    followDatabaseClock(currentDatabase()).catch((error: unknown) => {
      // It counts on from what it knows.
      if (!(error instanceof DatabaseAway)) console.error('clock', error)
    })
  }, every)
  nitro.hooks.hook('close', () => clearInterval(timer))
})

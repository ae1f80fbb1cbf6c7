import { openDatabase, type Database } from './database'

let database: Database | undefined

/** The database of this process, opened at its first use. */
export function currentDatabase(): Database {
  const url = process.env.THISTLE_DATABASE_URL
  if (!url) throw new Error('THISTLE_DATABASE_URL is not set; npm start sets it.')
  return (database ??= openDatabase(url, Number(process.env.THISTLE_DATABASE_CONNECTIONS ?? 12)))
}

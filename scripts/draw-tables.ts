/**
 * Writes what the schema says of itself: docs/tables.svg, the picture of the tables, and server/database/tables.ts, their
 * rows as types. Run by `npm run tables`; `tests/server/tables.test.ts` fails where either is not current.
 */
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { openDatabase } from '../server/database/database'
import { drawTables, readTables, rowTypes } from '../server/database/schema-of'
import { migrate } from '../server/database/migrate'

const url = process.env.THISTLE_DATABASE_URL
if (!url) throw new Error('THISTLE_DATABASE_URL is not set; npm run tables sets it.')
const root = join(import.meta.dirname, '..')
const database = openDatabase(url, 2)
await migrate(database)
const tables = await readTables(database)
writeFileSync(join(root, 'server/database/tables.ts'), rowTypes(tables))
writeFileSync(join(root, 'docs/tables.svg'), await drawTables(tables))
await database.close()

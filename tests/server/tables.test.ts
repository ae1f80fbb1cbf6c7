import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Database } from '../../server/database/database'
import { drawTables, readTables, rowTypes, type Table } from '../../server/database/schema-of'
import { freshDatabase } from '../support/database'

let db: Database
let tables: Table[]
beforeAll(async () => {
  db = (await freshDatabase('tables')).db
  tables = await readTables(db)
})
afterAll(() => db.close())
const root = join(import.meta.dirname, '../..')
const kept = (name: string) => readFileSync(join(root, name), 'utf8')

describe('what is written down of the schema (npm run tables)', () => {
  it('the rows of tables as types are those of the schema', () => {
    expect(tables.length).toBeGreaterThan(30)
    // Without the line breaks that the formatter gives.
    const plain = (text: string) => text.replace(/\s+/g, ' ')
    expect(plain(kept('server/database/tables.ts'))).toBe(plain(rowTypes(tables)))
  })
  it('the picture of the tables is current', async () => {
    expect(kept('docs/tables.svg')).toBe(await drawTables(tables))
  })
})

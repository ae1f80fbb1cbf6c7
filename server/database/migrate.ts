import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { alone } from './alone'
import type { Database } from './database'

const folder = join(import.meta.dirname, 'migrations')

/** The statements of a migration file: they end with a semicolon at the end of a line. */
export function statements(source: string): string[] {
  return source
    .split('\n')
    .filter((line) => !line.trimStart().startsWith('--'))
    .join('\n')
    .split(/;\s*\n/)
    .map((statement) => statement.trim().replace(/;$/, ''))
    .filter(Boolean)
}

/**
 * Brings the database to the newest migration; one process at a time, on a cluster too. DDL commits by itself, so a file
 * may have stopped half way: each statement can be run again, and a file counts once all of it has run.
 * @returns names of the migrations that were run
 */
export async function migrate(db: Database): Promise<string[]> {
  await db.run(
    'CREATE TABLE IF NOT EXISTS migration (name VARCHAR(100) PRIMARY KEY, at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)) ENGINE=InnoDB',
  )
  return alone(db, 'migrate', async () => {
    const done = new Set((await db.rows<{ name: string }>('SELECT name FROM migration')).map(({ name }) => name))
    const waiting = (await readdir(folder)).filter((name) => name.endsWith('.sql') && !done.has(name)).sort()
    for (const name of waiting) {
      for (const statement of statements(await readFile(join(folder, name), 'utf8'))) await db.run(statement)
      await db.run('INSERT INTO migration (name) VALUES (?)', [name])
    }
    return waiting
  })
}

import { randomBytes } from 'node:crypto'
import type { ClassRow } from '../../database/tables'
import { minute, plus, type Instant } from '../../../core/kit/time'
import { joinCode, typedCode } from '../../../core/people'
import { fromSql, toSql } from '../../database/codec'
import type { Database, Db } from '../../database/database'
import type { Person } from '../../people/people'
import { countedTry, mostAtOne, mostFromAddress } from '../../people/tries'
import { Problem } from '../problem'
import { recordLine } from '../record'

const day = 24 * 60 * minute
/** A code goes on for so many days unless it is said otherwise. */
export const usualDays = 7
export const mostDays = 120

export interface JoinCode {
  code: string
  until: Instant
}

/** Gives a class a new code, whatever it had; the old one is over. */
export async function renewCode(
  database: Database,
  person: Person,
  classId: string,
  days: number,
  now: Instant,
): Promise<JoinCode> {
  const until = plus(now, days * day)
  return database.transaction(async (db) => {
    if (await db.one('SELECT 1 FROM class WHERE id = ? AND filed = 1', [classId]))
      throw new Problem(422, 'filed', 'This class is filed away. Bring it back first.')
    const code = await unusedCode(db)
    await db.run('UPDATE class SET join_code = ?, join_until = ? WHERE id = ?', [code, toSql(until), classId])
    await recordLine(db, now, person.id, 'join code made', classId, { until })
    return { code, until }
  })
}

/** One that no class has; of 260 million few are taken. */
async function unusedCode(db: Db): Promise<string> {
  const code = joinCode(randomBytes(8))
  return (await db.one('SELECT 1 AS yes FROM class WHERE join_code = ?', [code])) ? unusedCode(db) : code
}

/** Ends a class's code: nobody joins by it any more. */
export async function endCode(database: Database, person: Person, classId: string, now: Instant): Promise<void> {
  await database.transaction(async (db) => {
    if (await db.run('UPDATE class SET join_code = NULL, join_until = NULL WHERE id = ?', [classId]))
      await recordLine(db, now, person.id, 'join code ended', classId)
  })
}

/** The class of a code as somebody typed it. @throws Problem 429 where too many were tried, 422 where none has it */
export async function classByCode(
  database: Database,
  typed: string,
  { address, person }: { address: string; person: Person | null },
  now: Instant,
): Promise<Pick<ClassRow, 'id' | 'name' | 'school_id'>> {
  const code = typedCode(typed)
  let found: (Pick<ClassRow, 'id' | 'name' | 'school_id'> & { until: string }) | undefined
  const counted = [
    { by: `join:${address}`, most: mostFromAddress },
    ...(person ? [{ by: `join-person:${person.id}`, most: mostAtOne }] : []),
    { by: 'join:all', most: mostOverAll },
  ]
  await countedTry(database, counted, now, async () => {
    found = code
      ? await database.one(
          'SELECT id, name, school_id, join_until AS until FROM class WHERE join_code = ? AND filed = 0',
          [code],
        )
      : undefined
    return found !== undefined && fromSql(found.until) > now
  })
  if (!found || (person && found.school_id !== person.school))
    throw new Problem(422, 'no-class', 'No class has this code. Look at it again, or ask for a new one.')
  if (fromSql(found.until) <= now)
    throw new Problem(422, 'code-over', 'This code is over. Ask the teacher of the class for a new one.')
  return found
}

/** Wrong codes in a quarter of an hour, from everywhere together: of 260 million codes that finds none. */
const mostOverAll = 5000

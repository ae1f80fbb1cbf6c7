/** What every domain module counts on: whole transactions, tried again, and statements that tell what they did. */
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { byKey } from '../../server/database/by-key'
import type { Database } from '../../server/database/database'
import { freshDatabase } from '../support/database'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('database')).db
  await db.run('CREATE TABLE pot (name VARCHAR(20) PRIMARY KEY, coins INT NULL) ENGINE=InnoDB')
})
beforeEach(async () => {
  await db.run('DELETE FROM pot')
  await db.run('INSERT INTO pot (name, coins) VALUES ?', [
    [
      ['a', 10],
      ['b', 10],
      ['c', 10],
    ],
  ])
})
afterAll(() => db.close())
const coins = async () =>
  Object.fromEntries(
    (await db.rows<{ name: string; coins: number | null }>('SELECT name, coins FROM pot')).map((row) => [
      row.name,
      row.coins,
    ]),
  )

describe('a transaction', () => {
  it('happens whole or not at all', async () => {
    const broken = db.transaction(async (tx) => {
      await tx.run("UPDATE pot SET coins = 0 WHERE name = 'a'")
      throw new Error('in the middle')
    })
    await expect(broken).rejects.toThrow('in the middle')
    expect(await coins()).toEqual({ a: 10, b: 10, c: 10 })
  })
  it('is tried again when it meets another in a deadlock: both happen', async () => {
    const tries: Record<string, number> = {}
    let waiting: (() => void)[] = []
    /** Both have their first row before either asks for its second. */
    const meet = () =>
      new Promise<void>((done) => {
        waiting.push(done)
        if (waiting.length === 2) {
          waiting.forEach((go) => go())
          waiting = []
        }
      })
    const move = (from: string, to: string) =>
      db.transaction(async (tx) => {
        tries[from] = (tries[from] ?? 0) + 1
        await tx.run('UPDATE pot SET coins = coins - 1 WHERE name = ?', [from])
        if (tries[from] === 1) await meet()
        await tx.run('UPDATE pot SET coins = coins + 1 WHERE name = ?', [to])
      })
    await Promise.all([move('a', 'b'), move('b', 'a')])
    expect(await coins()).toEqual({ a: 10, b: 10, c: 10 })
    expect(Object.values(tries).sort()).toEqual([1, 2])
  })
  it('is not tried again for what trying cannot mend', async () => {
    let tries = 0
    const doubled = db.transaction(async (tx) => {
      tries++
      await tx.run("INSERT INTO pot (name, coins) VALUES ('a', 1)")
    })
    await expect(doubled).rejects.toMatchObject({ errno: 1062 })
    expect(tries).toBe(1)
  })
})

describe('a compare-and-set', () => {
  it('tells who won: rows that stay as they are do not count as changed', async () => {
    const take = () => db.run("UPDATE pot SET coins = 9 WHERE name = 'a' AND coins = 10")
    expect((await Promise.all([take(), take(), take()])).sort()).toEqual([0, 0, 1])
    expect(await db.run("UPDATE pot SET coins = 9 WHERE name = 'a'")).toBe(0)
  })
})

describe('many rows in one statement', () => {
  it('each gets its own value, and those that are not named keep theirs', async () => {
    const part = byKey('name', [
      ['a', 1],
      ['b', null],
    ])
    await db.run(`UPDATE pot SET coins = ${part.sql} WHERE name IN (?)`, [...part.values, ['a', 'b']])
    expect(await coins()).toEqual({ a: 1, b: null, c: 10 })
  })
  it('values are never read as SQL', async () => {
    const part = byKey('name', [['a', '7) END, name = (CASE 1 WHEN 1 THEN 8']])
    await db.run(`UPDATE pot SET coins = ${part.sql} WHERE name IN (?)`, [...part.values, ['a']]).catch(() => {})
    expect(Object.keys(await coins()).sort()).toEqual(['a', 'b', 'c'])
  })
})

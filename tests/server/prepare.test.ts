/** Laying out, once and by one; emptying only what is a demo. */
import { describe, expect, it } from 'vitest'
import { halfLaidOut, resetDemo, takeOutHalf, whyNotReset } from '../../demo/reset'
import { seedDemo } from '../../demo/seed'
import { alone } from '../../server/database/alone'
import { openDatabase, patient, type Database } from '../../server/database/database'
import { migrate } from '../../server/database/migrate'
import { freshDatabase } from '../support/database'

const day = '2030-05-14T09:00:00.000Z'
const school = (db: Database, demo: number) =>
  db.run("INSERT INTO school (id, name, zone, demo) VALUES ('gannet', 'Gannet Sound', 'UTC', ?)", [demo])

describe('one at a time', () => {
  it('of many that want it each has it, none beside another', async () => {
    const { db, url } = await freshDatabase('alone')
    const others = [openDatabase(url, 2, patient), openDatabase(url, 2, patient), db]
    let inside = 0
    const met: number[] = []
    const turns = await Promise.all(
      Array.from({ length: 6 }, (_, i) =>
        alone(others[i % 3]!, 'a turn', async () => {
          met.push(++inside)
          await db.one('SELECT SLEEP(0.02) AS slept')
          inside--
          return i
        }),
      ),
    )
    expect(met).toEqual(Array(6).fill(1))
    expect(turns).toHaveLength(6)
    await Promise.all(others.map((each) => each.close()))
  })
  it('who has gone without a word is waited for, not for ever; who fails lets go', async () => {
    const { db } = await freshDatabase('alone_gone')
    await db.run("INSERT INTO alone VALUES ('a turn', 'gone', UTC_TIMESTAMP(3) - INTERVAL 1 SECOND)")
    expect(await alone(db, 'a turn', () => Promise.resolve('mine'))).toBe('mine')
    await expect(alone(db, 'a turn', () => Promise.reject(new Error('failed')))).rejects.toThrow('failed')
    expect(await db.rows('SELECT * FROM alone')).toEqual([])
    await db.close()
  })
  it('four processes migrate an empty database at once', async () => {
    const { db, url } = await freshDatabase('migrating')
    await school(db, 1)
    await resetDemo(db)
    const others = Array.from({ length: 4 }, () => openDatabase(url, 3, patient))
    const ran = await Promise.all(others.map((other) => migrate(other)))
    expect(ran.filter((names) => names.length > 0)).toHaveLength(1)
    await Promise.all([db, ...others].map((each) => each.close()))
  })
})

describe('emptying', () => {
  it('leaves alone whatever is no demo', async () => {
    const { db } = await freshDatabase('reset')
    await school(db, 1)
    expect(await whyNotReset(db)).toBeNull()
    await db.run("INSERT INTO school (id, name, zone, demo) VALUES ('real', 'Harbour School', 'UTC', 0)")
    expect(await whyNotReset(db)).toMatch(/holds Harbour School, which is no demo school/)
    await expect(resetDemo(db)).rejects.toThrow(/left as it is/)
    expect(await db.one("SELECT name FROM school WHERE id = 'gannet'")).toBeDefined()
    await db.run("DELETE FROM school WHERE id = 'real'")
    await resetDemo(db)
    // Nothing is in it now; what is not ours is not ours either.
    expect(await whyNotReset(db)).toBeNull()
    await db.run('CREATE TABLE ledger (id INT)')
    expect(await whyNotReset(db)).toMatch(/not Thistle’s/)
    await expect(resetDemo(db)).rejects.toThrow(/not Thistle’s/)
    await db.close()
  })
  it('refuses Thistle’s tables without any demo', async () => {
    const { db } = await freshDatabase('reset_none')
    expect(await whyNotReset(db)).toMatch(/holds no demo school/)
    await db.close()
  })
  it('a demo school that was cut off is taken out and laid out anew; a whole one is not', async () => {
    const { db } = await freshDatabase('half')
    await school(db, halfLaidOut)
    expect(await takeOutHalf(db)).toBe(true)
    await migrate(db)
    await seedDemo(db, day)
    expect(await takeOutHalf(db)).toBe(false)
    expect(await db.one<{ demo: number }>('SELECT demo FROM school')).toEqual({ demo: 1 })
    await db.close()
  })
})

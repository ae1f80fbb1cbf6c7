/** Sessions end when they should, in every process; passwords are not guessed, and nobody is locked out by others. */
import { scryptSync } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Database } from '../../server/database/database'
import { iso, minute } from '../../core/kit/time'
import { hashPassword, isDated, isPassword } from '../../server/people/password'
import { signIn, type From } from '../../server/people/sign-in'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { openedQuiz, later } from '../support/quiz'
import { Caller, startServer, type RunningServer } from '../support/server'

let db: Database
let url: string
let servers: RunningServer[]
const day = '2030-05-14T09:00:00.000Z'
const [maren, password] = ['maren.holt@gannet.example', 'fair winds']
const from = (address: string, browser = `browser at ${address}`): From => ({ address, browser })

beforeAll(async () => {
  ;({ db, url } = await freshDatabase('signing_in', day))
  servers = await Promise.all([startServer(url), startServer(url)])
})
afterAll(async () => {
  for (const server of servers) await server.stop()
  await db.close()
})

/** Asks in both processes who a session belongs to. */
const whoIn = (caller: Caller) =>
  Promise.all(
    servers.map(async ({ address }) => {
      const reply = await fetch(`${address}/api/session`, { headers: caller.headers })
      return ((await reply.json()) as { person: { id: string } | null }).person?.id ?? null
    }),
  )
let offset = 0
/** Lets time pass, in all processes. */
const pass = (milliseconds: number) => {
  offset += milliseconds
  for (const server of servers) server.setClock(offset)
}
/** Longer than a process remembers a session. */
const forgotten = () => {
  pass(3100)
}

describe('sessions', () => {
  it('one of a process is one of all; signed out, a copied cookie is worth nothing', async () => {
    const caller = await new Caller(servers[0]!.address).as('p-maren')
    const copy = Object.assign(new Caller(servers[0]!.address), { cookie: caller.headers.cookie })
    expect(await whoIn(copy)).toEqual(['p-maren', 'p-maren'])
    await caller.call('DELETE', '/api/session')
    expect((await whoIn(copy))[0]).toBeNull()
    forgotten()
    expect(await whoIn(copy)).toEqual([null, null])
  })
  it.each([
    ['the password is another', "UPDATE person SET password_hash = 'scrypt$x$y' WHERE id = ?"],
    ['a right is taken', "UPDATE person SET role = 'student' WHERE id = ?"],
  ])('they end when %s', async (_why, change) => {
    const { password_hash } = (await db.one<{ password_hash: string }>(
      "SELECT password_hash FROM person WHERE id = 'p-maren'",
    ))!
    const caller = await new Caller(servers[0]!.address).as('p-maren')
    await db.run(change, ['p-maren'])
    forgotten()
    expect(await whoIn(caller)).toEqual([null, null])
    await db.run("UPDATE person SET password_hash = ?, role = 'teacher' WHERE id = 'p-maren'", [password_hash])
  })
  it('they end after two weeks unused, and last while they are used', async () => {
    const used = await new Caller(servers[0]!.address).as('p-maren')
    const unused = await new Caller(servers[0]!.address).as('p-idris')
    pass(10 * 24 * 60 * minute)
    expect(await whoIn(used)).toEqual(['p-maren', 'p-maren'])
    pass(5 * 24 * 60 * minute)
    expect(await whoIn(used)).toEqual(['p-maren', 'p-maren'])
    expect(await whoIn(unused)).toEqual([null, null])
  })
  it('the table of them opens nothing: it holds digests', async () => {
    const caller = await new Caller(servers[0]!.address).as('p-maren')
    const rows = await db.rows<{ token: string }>('SELECT token FROM session')
    expect(rows.length).toBeGreaterThan(0)
    for (const { token } of rows) expect(caller.headers.cookie).not.toContain(token)
    const stolen = Object.assign(new Caller(servers[0]!.address), { cookie: `thistle-session=${rows[0]!.token}` })
    expect(await whoIn(stolen)).toEqual([null, null])
  })
})

/** How many of these tries were tried: the others are told that they were too many. */
async function tried(tries: Promise<unknown>[]): Promise<number> {
  const ends = await Promise.allSettled(tries)
  return ends.filter((end) => !(end.status === 'rejected' && /Too many/.test(String(end.reason)))).length
}

describe('tries at passwords', () => {
  it('of sixty at once, in two processes, eight are tried', async () => {
    const statuses = await Promise.all(
      Array.from({ length: 60 }, async (_, i) => {
        const caller = new Caller(servers[i % 2]!.address)
        return (await caller.call('POST', '/api/session', { email: 'idris.quayle@gannet.example', password: `${i}` }))
          .status
      }),
    )
    expect(statuses.filter((status) => status === 401)).toHaveLength(8)
    expect(statuses.filter((status) => status === 429)).toHaveLength(52)
  })
  it('an address written otherwise that the database takes for the same is the same', async () => {
    const written = [
      maren,
      maren.toUpperCase(),
      ' maren.holt@gannet.example ',
      'máren.hólt@gannet.example',
      'maren.holt@gannet.example\u200b',
    ]
    const tries = Array.from({ length: 15 }, (_, i) =>
      signIn(db, written[i % written.length]!, `${i}`, from('10.0.0.1'), day),
    )
    expect(await tried(tries)).toBe(8)
  })
  it('an account is not guessed from many addresses, nor many accounts from one', async () => {
    const at = later(60, day)
    const silas = 'silas.penn@gannet.example'
    await signIn(db, silas, 'x', from('10.1.1.1'), at).catch(() => {})
    await db.run('UPDATE password_try SET tries = 35 WHERE tries = 1')
    const spread = Array.from({ length: 12 }, (_, i) => signIn(db, silas, `${i}`, from(`10.1.0.${i}`), at))
    expect(await tried(spread)).toBe(5)
    await signIn(db, 'nobody@gannet.example', 'x', from('10.2.0.1'), at).catch(() => {})
    await db.run('UPDATE password_try SET tries = 295 WHERE tries = 1')
    const sprayed = Array.from({ length: 12 }, (_, i) =>
      signIn(db, `nobody${i}@gannet.example`, 'summer', from('10.2.0.1'), at),
    )
    expect(await tried(sprayed)).toBe(5)
  })
  it('a stranger does not lock somebody out by failing in their name', async () => {
    const at = later(120, day)
    expect(await signIn(db, maren, password, from('10.3.0.1', 'hers'), at)).toBe('p-maren')
    const strangers = Array.from({ length: 12 }, (_, i) => signIn(db, maren, `${i}`, from('10.3.0.1'), at))
    expect(await tried(strangers)).toBe(8)
    await db.run('UPDATE password_try SET tries = 1000')
    // Where she has been before she comes in, from wherever; her own tries there are counted all the same.
    expect(await signIn(db, maren, password, from('10.3.0.1', 'hers'), at)).toBe('p-maren')
    expect(
      await tried(Array.from({ length: 12 }, (_, i) => signIn(db, maren, `${i}`, from('10.3.0.9', 'hers'), at))),
    ).toBe(8)
    // And the stranger's browser is known to nobody.
    await expect(signIn(db, maren, password, from('10.3.0.1', 'stranger'), at)).rejects.toThrow(/Too many/)
    await expect(signIn(db, maren, password, from('10.3.0.1', 'stranger'), later(16, at))).resolves.toBe('p-maren')
  })
  it('right ones are not counted: a class that signs in from one address', async () => {
    const at = later(180, day)
    for (let i = 0; i < 10; i++)
      expect(await signIn(db, maren, password, from('10.4.0.1', `b${i}`), at)).toBe('p-maren')
  })
  it('of sixty at once at a quiz, eight are tried', async () => {
    const quiz = await openedQuiz(db, 'guessed', { password: 'spring tide' })
    const nell = await person(db, 'p-nell-ashdown')
    const tries = Array.from({ length: 60 }, (_, i) =>
      startSitting(db, nell, quiz, { device: 'd1', password: `${i}` }, later(1)),
    )
    expect(await tried(tries)).toBe(8)
    // Her class mates are not kept out by that.
    const silas = await person(db, 'p-silas-penn')
    expect(
      (await startSitting(db, silas, quiz, { device: 'd1', password: 'spring tide' }, later(1))).attempt,
    ).toBeTruthy()
  })
})

describe('hashes', () => {
  const salt = Buffer.from('0123456789abcdef')
  const old = `scrypt$${salt.toString('base64')}$${scryptSync('fair winds', salt, 32, { N: 2 ** 15, r: 8, p: 1, maxmem: 2 ** 27 }).toString('base64')}`

  it('say their cost; those of before are read', async () => {
    const hash = await hashPassword('fair winds')
    expect(hash).toMatch(/^scrypt\$N=32768,r=8,p=3\$/)
    expect([isDated(hash), isDated(old)]).toEqual([false, true])
    expect([await isPassword('fair winds', hash), await isPassword('fair winds', old)]).toEqual([true, true])
    expect([await isPassword('foul winds', hash), await isPassword('foul winds', old)]).toEqual([false, false])
    for (const broken of ['', 'x', 'scrypt$$', 'scrypt$a$b', 'scrypt$N=0,r=0,p=0$a$b'])
      expect(await isPassword('fair winds', broken)).toBe(false)
  })
  it('are made anew at the next sign-in, and sessions go on', async () => {
    await db.run("UPDATE person SET password_hash = ? WHERE id = 'p-maren'", [old])
    const caller = await new Caller(servers[0]!.address).as('p-maren')
    expect(await signIn(db, maren, password, from('10.5.0.1'), iso(Date.parse(day) + 240 * minute))).toBe('p-maren')
    const { password_hash } = (await db.one<{ password_hash: string }>(
      "SELECT password_hash FROM person WHERE id = 'p-maren'",
    ))!
    expect(isDated(password_hash)).toBe(false)
    forgotten()
    expect(await whoIn(caller)).toEqual(['p-maren', 'p-maren'])
  })
})

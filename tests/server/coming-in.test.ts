/** How people come in: links for passwords, places of a roster, lines for news, what a request may not choose. */
import { request as httpRequest } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Database } from '../../server/database/database'
import { addToClass, bringBack, enrol, moveStudents, takeOut } from '../../server/domain/classes/members'
import { claimsOf, takeClaimBack } from '../../server/domain/classes/claims'
import { joinAsNew, joinClass } from '../../server/domain/classes/joining'
import { renewCode } from '../../server/domain/classes/join-codes'
import { listLetters } from '../../server/domain/outbox'
import { makeCalendarAddress } from '../../server/domain/people/calendar'
import { linkFor } from '../../server/domain/people/links'
import { makeNameless } from '../../server/domain/people/nameless'
import { makePasses, usePass } from '../../server/people/passes'
import { signIn } from '../../server/people/sign-in'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, openedQuiz, threeHours } from '../support/quiz'
import { Caller, startServer, type RunningServer } from '../support/server'

let db: Database
let url: string
let server: RunningServer
const good = 'three quiet harbours'
const at = 'http://thistle.example'
const from = { address: '10.9.0.1', browser: 'none' }
beforeAll(async () => {
  ;({ db, url } = await freshDatabase('coming_in', day))
  server = await startServer(url)
}, 60_000)
afterAll(async () => {
  await server.stop()
  await db.close()
})
const maren = () => person(db, 'p-maren')
/** A teacher who is not the administrator. */
const idris = () => person(db, 'p-idris')
const tokenOf = (link: string | null) => link!.split('/').at(-1)!

/** A student as the roster brings one in: without a password. */
async function rostered(id: string, email: string | null, number: string | null, inClass = 'c-saturday') {
  const { school } = await maren()
  await db.run(
    "INSERT INTO person (id, school_id, role, name, email, password_hash, outside_id) VALUES (?, ?, 'student', ?, ?, '', ?)",
    [id, school, `Student ${id}`, email, number],
  )
  await enrol(db, { id: 'roster', school }, inClass, [id], day, () => null)
}

describe('a link for a password', () => {
  it('of somebody who has one is the administrator’s alone', async () => {
    await db.run("INSERT IGNORE INTO class_teacher (class_id, person_id) VALUES ('c-saturday', 'p-idris')")
    const [student] = await db.rows<{ id: string }>(
      "SELECT p.id FROM person p JOIN enrolment e ON e.person_id = p.id WHERE e.class_id = 'c-saturday' AND p.password_hash <> '' ORDER BY p.id LIMIT 1",
    )
    await expect(linkFor(db, await idris(), student!.id, at, day)).rejects.toMatchObject({
      status: 403,
      sentence: expect.stringContaining('has a password'),
    })
    expect((await linkFor(db, await maren(), student!.id, at, day)).link).toContain('/come-in/')
  })

  it('is not to be had by putting somebody into a class, by address, by moving, or by bringing back', async () => {
    const inSchool = (id: string) =>
      db.run("INSERT INTO class (id, school_id, name) SELECT ?, school_id, ? FROM person WHERE id = 'p-idris'", [
        id,
        id,
      ])
    await inSchool('c-elsewhere')
    await rostered('p-pulled', 'pulled@gannet.example', null, 'c-elsewhere')
    await db.run(
      "INSERT INTO class (id, school_id, name) SELECT 'c-idris', school_id, 'Idris' FROM person WHERE id = 'p-idris'",
    )
    await db.run("INSERT INTO class_teacher (class_id, person_id) VALUES ('c-idris', 'p-idris')")
    const refused = async () =>
      expect(linkFor(db, await idris(), 'p-pulled', at, day)).rejects.toMatchObject({ status: 403 })
    await addToClass(db, await idris(), 'c-idris', [{ name: 'X', email: 'pulled@gannet.example' }], day)
    await refused()
    await db.run(
      "INSERT INTO class (id, school_id, name) SELECT 'c-idris-2', school_id, 'Idris 2' FROM person WHERE id = 'p-idris'",
    )
    await db.run("INSERT INTO class_teacher (class_id, person_id) VALUES ('c-idris-2', 'p-idris')")
    await moveStudents(db, await idris(), { from: 'c-idris', to: 'c-idris-2' }, ['p-pulled'], day)
    await refused()
    // The roster puts them into it: then it is the roster's.
    await db.run("UPDATE enrolment SET by_id = NULL WHERE class_id = 'c-idris-2'")
    expect((await linkFor(db, await idris(), 'p-pulled', at, day)).link).toContain('/come-in/')
  })

  it('is made by the teacher who created them, until they have come in', async () => {
    const added = await addToClass(
      db,
      await idris(),
      'c-idris',
      [{ name: 'Newly Made', email: 'newly@gannet.example' }],
      day,
    )
    const { id } = added.made[0]!
    const { link } = await linkFor(db, await idris(), id, at, day)
    await usePass(db, tokenOf(link), good, day)
    await expect(linkFor(db, await idris(), id, at, day)).rejects.toMatchObject({ status: 403 })
  })

  it('is told to the person when they next come in, by the one who came by the link to nobody, and stands in the record', async () => {
    await rostered('p-told', 'told@gannet.example', null)
    await usePass(db, tokenOf((await linkFor(db, await maren(), 'p-told', at, day)).link), good, day)
    const own = new Caller(server.address)
    const come = async (caller: Caller, password: string) =>
      expect((await caller.call('POST', '/api/session', { email: 'told@gannet.example', password })).status).toBe(200)
    await come(own, good)
    const told = async (caller: Caller) => (await caller.call('GET', '/api/session/notices')).body.links as unknown[]
    // The first link was theirs to come in with.
    expect(await told(own)).toEqual([])
    const admin = await new Caller(server.address).as('p-maren')
    const made = await admin.call('POST', '/api/people/p-told/link')
    const thief = new Caller(server.address)
    const token = tokenOf(made.body.link as string)
    expect((await thief.call('POST', `/api/passes/${token}`, { password: `${good} two` })).status).toBe(200)
    expect(await told(thief)).toEqual([])
    expect((await thief.call('DELETE', '/api/session/notices')).status).toBe(200)
    await new Promise((done) => setTimeout(done, 5))
    const again = new Caller(server.address)
    await come(again, `${good} two`)
    expect(await told(again)).toMatchObject([{ by: 'Maren Holt', usedAt: expect.any(String) }])
    expect(await told(again)).toHaveLength(1)
    await again.call('DELETE', '/api/session/notices')
    expect(await told(again)).toEqual([])
    expect(
      await db.rows("SELECT who FROM record WHERE what = 'link for a password made' AND subject = 'p-told'"),
    ).toEqual([{ who: 'p-maren' }, { who: 'p-maren' }])
  })
})

describe('a place of the roster', () => {
  const join = async (
    more: { email?: string; number?: string; name?: string; password?: string },
    address = '10.9.1.1',
  ) => {
    const { code } = (await db.one<{ code: string }>("SELECT join_code AS code FROM class WHERE id = 'c-saturday'"))!
    return joinAsNew(db, code, { name: 'As They Write', email: '', password: good, ...more }, address, day)
  }
  beforeAll(async () => {
    await renewCode(db, await maren(), 'c-saturday', 7, day)
  })

  it('is claimed by code and address, once, and signs in from then on', async () => {
    await rostered('p-claim-1', 'claim1@gannet.example', null)
    expect(await join({ email: 'Claim1@gannet.example' })).toBe('p-claim-1')
    expect(await signIn(db, 'claim1@gannet.example', good, from, day)).toBe('p-claim-1')
    await expect(join({ email: 'claim1@gannet.example', password: `${good} x` })).rejects.toMatchObject({ status: 422 })
    expect((await claimsOf(db, 'c-saturday')).get('p-claim-1')).toEqual({
      knownBy: 'address',
      name: 'As They Write',
      at: day,
    })
  })

  it('is claimed by code and number, with an address of one’s own where the roster has none', async () => {
    await rostered('p-claim-2', null, '10442')
    await expect(join({ number: '10442' })).rejects.toMatchObject({ status: 422, code: 'no-address' })
    expect(await join({ number: '10442', email: 'mine@home.example' })).toBe('p-claim-2')
    expect(await signIn(db, 'mine@home.example', good, from, day)).toBe('p-claim-2')
    await rostered('p-claim-3', 'claim3@gannet.example', '10443')
    await expect(join({ number: '10443', email: 'other@home.example' })).rejects.toMatchObject({
      code: 'other-address',
      sentence: expect.stringContaining('begins with “c” and ends in “@gannet.example”'),
    })
    expect(await join({ number: '10443' })).toBe('p-claim-3')
  })

  it('is one of the class: not of another, nor of a teacher, nor of whoever has come in', async () => {
    await rostered('p-claim-4', 'claim4@gannet.example', '10444', 'c-tuesday')
    await expect(join({ email: 'claim4@gannet.example' })).rejects.toMatchObject({ code: 'address-taken' })
    await expect(join({ number: '10444', email: 'x@home.example' })).rejects.toMatchObject({ code: 'no-number' })
    await expect(join({ email: 'idris.quayle@gannet.example' })).rejects.toMatchObject({ code: 'address-taken' })
    expect(
      (await db.one<{ hash: string }>("SELECT password_hash AS hash FROM person WHERE id = 'p-claim-4'"))!.hash,
    ).toBe('')
  })

  it('goes to one of two who claim it at once', async () => {
    await rostered('p-claim-5', 'claim5@gannet.example', null)
    const both = await Promise.allSettled(
      [1, 2, 3].map((i) => join({ email: 'claim5@gannet.example', password: `${good} ${i}` })),
    )
    expect(both.filter(({ status }) => status === 'fulfilled')).toHaveLength(1)
    const right = both.findIndex(({ status }) => status === 'fulfilled') + 1
    expect(await signIn(db, 'claim5@gannet.example', `${good} ${right}`, from, day)).toBe('p-claim-5')
  })

  it('is not found by trying numbers', async () => {
    const tries = await Promise.allSettled(
      Array.from({ length: 50 }, (_, i) => join({ number: `9000${i}`, email: `n${i}@home.example` }, '10.9.1.9')),
    )
    const codes = tries.map((each) => (each as PromiseRejectedResult).reason.status)
    expect(codes.filter((status) => status === 429).length).toBeGreaterThan(2)
  })

  it('keeps nobody out who comes without a number, however many wrong ones came from their school', async () => {
    expect(await join({ email: 'newcomer@home.example' }, '10.9.1.9')).toBeTruthy()
  })

  it('is not one that a teacher made by adding the student, nor is a claim theirs to undo', async () => {
    // A class that the other teacher has no part in.
    await rostered('p-claim-7', 'claim7@gannet.example', '10447', 'c-elsewhere')
    const own = (await renewCode(db, await maren(), 'c-elsewhere', 7, day)).code
    const inSchool = (id: string) =>
      db.run("INSERT INTO class (id, school_id, name) SELECT ?, school_id, ? FROM person WHERE id = 'p-idris'", [
        id,
        id,
      ])
    await inSchool('c-pull')
    await db.run("INSERT INTO class_teacher (class_id, person_id) VALUES ('c-pull', 'p-idris')")
    await addToClass(db, await idris(), 'c-pull', [{ name: 'X', email: 'claim7@gannet.example' }], day)
    const { code } = await renewCode(db, await idris(), 'c-pull', 7, day)
    const thief = { name: 'Thief', password: good }
    await expect(
      joinAsNew(db, code, { ...thief, email: 'claim7@gannet.example' }, '10.9.2.1', day),
    ).rejects.toMatchObject({ code: 'address-taken' })
    await expect(
      joinAsNew(db, code, { ...thief, email: 'x@home.example', number: '10447' }, '10.9.2.1', day),
    ).rejects.toMatchObject({ code: 'no-number' })
    // They claim it in their own class: the other teacher neither sees nor undoes it.
    const theirs = { name: 'Seven', email: 'claim7@gannet.example', password: good }
    expect(await joinAsNew(db, own, theirs, '10.9.2.1', day)).toBe('p-claim-7')
    expect((await claimsOf(db, 'c-pull')).size).toBe(0)
    await expect(takeClaimBack(db, await idris(), 'c-pull', 'p-claim-7', day)).rejects.toMatchObject({ status: 404 })
    // Nor where they joined by themselves.
    await db.run("DELETE FROM enrolment WHERE class_id = 'c-pull'")
    await joinClass(db, await person(db, 'p-claim-7'), code, '10.9.2.1', day)
    await expect(takeClaimBack(db, await idris(), 'c-pull', 'p-claim-7', day)).rejects.toMatchObject({ status: 404 })
    await db.run("UPDATE person SET password_hash = '' WHERE id = 'p-claim-7'")
    await expect(linkFor(db, await idris(), 'p-claim-7', at, day)).rejects.toMatchObject({ status: 403 })
  })

  it('stays the roster’s when the student is taken out of the class and brought back', async () => {
    await rostered('p-claim-8', 'claim8@gannet.example', null)
    await db.transaction((tx) => idris().then((teacher) => takeOut(tx, teacher, 'c-saturday', ['p-claim-8'], day)))
    await bringBack(db, await idris(), 'c-saturday', ['p-claim-8'], day)
    expect(await join({ email: 'claim8@gannet.example' })).toBe('p-claim-8')
  })

  it('undone, nothing that its claimant asked for lets them in again', async () => {
    await rostered('p-claim-9', null, '10449')
    await join({ number: '10449', email: 'nine@home.example' })
    const own = (await makePasses(db, ['p-claim-9'], null, 2, day)).get('p-claim-9')!
    const { address } = await makeCalendarAddress(db, await person(db, 'p-claim-9'), day)
    await takeClaimBack(db, await maren(), 'c-saturday', 'p-claim-9', day)
    await expect(usePass(db, own, good, day)).rejects.toMatchObject({ status: 410 })
    expect((await new Caller(server.address).call('GET', address)).status).toBe(404)
  })

  it('is settled when somebody of the school has made a link for the student', async () => {
    await rostered('p-claim-10', 'claim10@gannet.example', null)
    await join({ email: 'claim10@gannet.example' })
    await usePass(db, tokenOf((await linkFor(db, await maren(), 'p-claim-10', at, day)).link), `${good} two`, day)
    await expect(takeClaimBack(db, await maren(), 'c-saturday', 'p-claim-10', day)).rejects.toMatchObject({
      status: 404,
    })
  })

  it('keeps no name when its student is made nameless', async () => {
    await rostered('p-claim-11', 'claim11@gannet.example', null)
    await join({ email: 'claim11@gannet.example', name: 'Secret Nickname' })
    await db.run("UPDATE person SET state = 'left' WHERE id = 'p-claim-11'")
    await makeNameless(db, await maren(), 'p-claim-11', day)
    expect(JSON.stringify(await db.rows('SELECT * FROM claim'))).not.toContain('Secret Nickname')
  })

  it('is taken back by a teacher: whoever claimed it is out, what was sat stays, and it is claimed again', async () => {
    await rostered('p-claim-6', null, '10446')
    await join({ number: '10446', email: 'wrong@home.example' })
    const wrong = new Caller(server.address)
    expect((await wrong.call('POST', '/api/session', { email: 'wrong@home.example', password: good })).status).toBe(200)
    const quiz = await openedQuiz(db, 'claimed', { windows: [threeHours('c-saturday')] })
    await startSitting(db, await person(db, 'p-claim-6'), quiz, { device: 'd1' }, day)
    await takeClaimBack(db, await maren(), 'c-saturday', 'p-claim-6', day)
    await expect(signIn(db, 'wrong@home.example', good, from, day)).rejects.toMatchObject({ status: 401 })
    await expect(takeClaimBack(db, await maren(), 'c-saturday', 'p-claim-6', day)).rejects.toMatchObject({
      status: 404,
    })
    expect(await join({ number: '10446', email: 'right@home.example' })).toBe('p-claim-6')
    expect(await db.one("SELECT COUNT(*) AS n FROM attempt WHERE student_id = 'p-claim-6'")).toEqual({ n: 1 })
  })
})

describe('a request', () => {
  it('for a forgotten password is answered before anybody is looked up', async () => {
    const lock = await import('mysql2/promise').then((mysql) => mysql.createConnection({ uri: url }))
    await lock.query('LOCK TABLES person WRITE')
    const began = Date.now()
    try {
      for (const email of ['alba.quist@gannet.example', 'nobody@gannet.example']) {
        const { status, body } = await new Caller(server.address).call('POST', '/api/session/forgot', { email })
        expect([status, body]).toEqual([200, { written: true }])
      }
      // A statement that had to wait for the table would wait for a second at least.
      expect(Date.now() - began).toBeLessThan(1000)
    } finally {
      await lock.query('UNLOCK TABLES')
      await lock.end()
    }
    await expect
      .poll(
        async () => (await listLetters(db, 'gannet')).filter(({ to }) => to === 'alba.quist@gannet.example').length,
        {
          timeout: 5000,
        },
      )
      .toBe(1)
  })

  it('does not choose the address of links in letters', async () => {
    const port = Number(new URL(server.address).port)
    await new Promise<void>((done, failed) => {
      const asked = httpRequest(
        {
          host: '127.0.0.1',
          port,
          path: '/api/session/forgot',
          method: 'POST',
          headers: { host: 'evil.example', 'content-type': 'application/json' },
        },
        (reply) => reply.resume().on('end', () => done()),
      )
      asked.on('error', failed)
      asked.end(JSON.stringify({ email: 'petra.lund@gannet.example' }))
    })
    const letters = async () => (await listLetters(db, 'gannet')).filter(({ to }) => to === 'petra.lund@gannet.example')
    await expect.poll(async () => (await letters()).length, { timeout: 5000 }).toBeGreaterThan(0)
    const [letter] = await letters()
    expect(letter!.body).toContain(server.address)
    expect(letter!.body).not.toContain('evil')
  })

  it('is not told what Thistle is made with', async () => {
    for (const path of ['/', '/api/health', '/none']) {
      const reply = await fetch(server.address + path)
      await reply.text()
      expect([path, reply.headers.get('x-powered-by')]).toEqual([path, null])
    }
  })
})

describe('a line for news', () => {
  /** Reads a line until it is closed by the server. @returns milliseconds, and what was said last */
  async function untilClosed(caller: Caller, quiz: string): Promise<{ took: number; said: string }> {
    const began = Date.now()
    const reply = await fetch(
      `${server.address}/api/quizzes/${quiz}/live?page=abcd${Math.random().toString(36).slice(2, 8)}`,
      {
        headers: caller.headers,
      },
    )
    expect(reply.status).toBe(200)
    let said = ''
    const reader = reply.body!.pipeThrough(new TextDecoderStream()).getReader()
    for (;;) {
      const { value, done } = await reader.read()
      if (done) return { took: Date.now() - began, said }
      said += value
    }
  }
  const acts: [string, (caller: Caller, who: string) => Promise<unknown>][] = [
    ['signed out', (caller) => caller.call('DELETE', '/api/session')],
    ['no teacher any more', (_caller, who) => db.run("UPDATE person SET role = 'student' WHERE id = ?", [who])],
    ['left the school', (_caller, who) => db.run("UPDATE person SET state = 'left' WHERE id = ?", [who])],
    ['of another school', (_caller, who) => db.run("UPDATE person SET school_id = 'elsewhere' WHERE id = ?", [who])],
  ]
  it('ends within ten seconds of what it hangs on', async () => {
    await db.run("INSERT IGNORE INTO school (id, name, zone) VALUES ('elsewhere', 'Elsewhere', 'UTC')")
    const { school } = await maren()
    await openedQuiz(db, 'lines')
    await Promise.all(
      acts.map(async ([name, act], i) => {
        const who = `p-line-${i}`
        await db.run(
          "INSERT INTO person (id, school_id, role, name, email, password_hash) SELECT ?, ?, 'teacher', ?, ?, password_hash FROM person WHERE id = 'p-maren'",
          [who, school, `Line ${i}`, `line${i}@gannet.example`],
        )
        await db.run('INSERT INTO quiz_teacher (quiz_id, person_id) VALUES (?, ?)', ['lines', who])
        const caller = new Caller(server.address)
        await caller.call('POST', '/api/session', { email: `line${i}@gannet.example`, password: 'fair winds' })
        const closed = untilClosed(caller, 'lines')
        await new Promise((done) => setTimeout(done, 500))
        await act(caller, who)
        const { took, said } = await closed
        expect([name, took < 10_500, said.includes('event: ended')]).toEqual([name, true, true])
      }),
    )
  })
})

describe('a first start', () => {
  it('that is reached from elsewhere asks for the word that was printed, and not for ever', async () => {
    const bare = await freshDatabase('first_word')
    const open = await startServer(bare.url, undefined, 3600, {
      THISTLE_DEMO: 'off',
      THISTLE_PROXY: 'on',
      THISTLE_FIRST_WORD: 'HARBR-234',
    })
    const caller = new Caller(open.address)
    const school = {
      school: 'New School',
      zone: 'Europe/Oslo',
      name: 'First Teacher',
      email: 'first@new.example',
      password: good,
    }
    expect((await caller.call('GET', '/api/first-start')).body).toEqual({ asksWord: true })
    const begin = (word?: string) =>
      caller.call('POST', '/api/first-start', { ...school, ...(word === undefined ? {} : { word }) })
    expect(await begin()).toMatchObject({ status: 403, body: { title: 'first-word' } })
    expect((await begin('HARBR-235')).status).toBe(403)
    expect((await begin(' harbr 234 ')).status).toBe(200)
    await open.stop()
    await bare.db.close()
  })

  it('on this machine alone asks for none', async () => {
    expect((await new Caller(server.address).call('GET', '/api/first-start')).body).toEqual({ asksWord: false })
  })

  it('with a mail server and no address does not happen', async () => {
    await expect(startServer(url, undefined, 3600, { THISTLE_SMTP: 'smtp://127.0.0.1:1' })).rejects.toThrow()
  })
})

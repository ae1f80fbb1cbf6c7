/** Passwords, links and sessions; items of OWASP ASVS 4.0.3 are named where they are held. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { hour, later as laterThan, tokenIn } from '../support/letters'
import type { Database } from '../../server/database/database'
import { listLetters, sendDue, writeLetters } from '../../server/domain/outbox'
import { makeSchool } from '../../server/domain/people/first-start'
import { forgetNames, giveNameBack, makeNameless } from '../../server/domain/people/nameless'
import { giveOwnData } from '../../server/domain/people/own-data'
import { unzip } from '../../formats/zip'
import { linkFor } from '../../server/domain/people/links'
import { addTeacher, changePerson, listPeople, peopleQuery } from '../../server/domain/people/people'
import { changePassword, countForgotten, writeForgotten } from '../../server/people/own-password'
import { lookAtPass, makePasses, usePass } from '../../server/people/passes'
import { signIn } from '../../server/people/sign-in'
import { beginSession, sessionPerson } from '../../server/people/sessions'
import type { Letter } from '../../server/standins/mail/mail'
import { freshDatabase, person } from '../support/database'
import { day } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('people', day)).db
})
afterAll(() => db.close())

const at = 'http://thistle.example'
const maren = () => person(db, 'p-maren')
const good = 'three quiet harbours'
const from = { address: '10.0.0.9', browser: 'b' }
const asks = (words = '', more: object = {}) => peopleQuery.parse({ words, ...more })

describe('a link (ASVS 2.3.1, 2.5.1 to 2.5.6)', () => {
  it('lets its person choose a password, once, however often and at once it is used', async () => {
    const token = (await makePasses(db, ['p-petra-lund'], 'p-maren', 2, day)).get('p-petra-lund')!
    expect(await lookAtPass(db, token, day)).toMatchObject({ name: 'Petra Lund', again: true })
    await expect(usePass(db, token, 'too short', day)).rejects.toThrow(/at least 12/)
    const uses = await Promise.allSettled([usePass(db, token, good, day), usePass(db, token, `${good} two`, day)])
    expect(uses.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    await expect(usePass(db, token, good, day)).rejects.toMatchObject({ status: 410 })
    await expect(lookAtPass(db, token, day)).rejects.toThrow(/used already/)
  })
  it('ends what a stolen session could do, and what was made before it', async () => {
    const session = await beginSession(db, 'p-petra-lund', day)
    expect((await sessionPerson(db, session, day))?.id).toBe('p-petra-lund')
    const first = (await makePasses(db, ['p-petra-lund'], 'p-maren', 2, day)).get('p-petra-lund')!
    const { link, written } = await linkFor(db, await maren(), 'p-petra-lund', at, day)
    expect(written).toBe(true)
    expect(await sessionPerson(db, session, day)).toBeNull()
    await expect(usePass(db, first, good, day)).rejects.toMatchObject({ status: 410 })
    expect(await usePass(db, tokenIn(link!), `${good} again`, day)).toBe('p-petra-lund')
    expect(await signIn(db, 'PETRA.LUND@gannet.example', `${good} again`, from, day)).toBe('p-petra-lund')
  })
  it('is shown to who asks only where no letter gets there: nobody comes in as somebody by putting them into a class', async () => {
    const shown = async (id: string) => (await linkFor(db, await maren(), id, at, day)).link !== null
    const bare = (
      await addTeacher(db, await maren(), { name: 'Rasmus Fjord', email: 'rasmus@gannet.example' }, at, day)
    ).id
    process.env.THISTLE_SMTP = 'smtp://mail.example'
    try {
      expect(await shown('p-petra-lund')).toBe(false)
      expect(await shown(bare)).toBe(true)
      await db.run("UPDATE person SET email = NULL WHERE id = 'p-petra-lund'")
      expect(await shown('p-petra-lund')).toBe(true)
    } finally {
      delete process.env.THISTLE_SMTP
      await db.run("UPDATE person SET email = 'petra.lund@gannet.example' WHERE id = 'p-petra-lund'")
      await db.run('DELETE FROM pass WHERE person_id = ?', [bare])
      await db.run('DELETE FROM person WHERE id = ?', [bare])
    }
    expect(await shown('p-petra-lund')).toBe(true)
  })
  it('is over after its hours, and for who has left', async () => {
    const token = (await makePasses(db, ['p-wyn-parrish'], null, 2, day)).get('p-wyn-parrish')!
    await expect(lookAtPass(db, token, laterThan(2 * hour))).rejects.toMatchObject({ status: 410 })
    await changePerson(db, await maren(), 'p-wyn-parrish', { state: 'left' }, day)
    await expect(usePass(db, token, good, day)).rejects.toMatchObject({ status: 410 })
  })
  it('keeps nothing of its token but a digest (ASVS 2.4.1, 3.2.4)', async () => {
    const token = (await makePasses(db, ['p-hedda-moe'], null, 2, day)).get('p-hedda-moe')!
    const kept = await db.rows('SELECT * FROM pass')
    expect(JSON.stringify(kept)).not.toContain(token)
    expect(token.length).toBeGreaterThanOrEqual(43)
  })
})

describe('a password (ASVS 2.1.5, 2.1.6, 3.3.3)', () => {
  it('is changed by who knows it, and every session of the old one is over', async () => {
    const nell = await person(db, 'p-nell-ashdown')
    const session = await beginSession(db, nell.id, day)
    await expect(changePassword(db, nell, { current: 'wrong winds', next: good }, day)).rejects.toThrow(
      /not your password/,
    )
    await expect(changePassword(db, nell, { current: 'fair winds', next: 'nell ashdown' }, day)).rejects.toThrow(
      /name or address/,
    )
    expect(await sessionPerson(db, session, day)).not.toBeNull()
    await changePassword(db, nell, { current: 'fair winds', next: good }, day)
    expect(await sessionPerson(db, session, day)).toBeNull()
    await expect(signIn(db, 'nell.ashdown@gannet.example', 'fair winds', from, day)).rejects.toMatchObject({
      status: 401,
    })
    expect(await signIn(db, 'nell.ashdown@gannet.example', good, from, day)).toBe(nell.id)
  })
  it('that is forgotten: who has the address gets a letter, who has not is told the same; not for ever', async () => {
    const ask = async (email: string, address = '10.0.3.1') => {
      await countForgotten(db, email, address, day)
      await writeForgotten(db, email, at, day)
    }
    await ask('Alba.Quist@gannet.example')
    const letter = (await listLetters(db, 'gannet')).find(({ to }) => to === 'alba.quist@gannet.example')
    expect(await usePass(db, tokenIn(letter!.body), good, day)).toBe('p-alba-quist')
    const count = (await listLetters(db, 'gannet')).length
    await ask('nobody@gannet.example')
    expect(await listLetters(db, 'gannet')).toHaveLength(count)
    const many = await Promise.allSettled(Array.from({ length: 10 }, () => ask('jonas.tarn@gannet.example')))
    expect(many.filter(({ status }) => status === 'fulfilled')).toHaveLength(4)
  })
  it('of who has none cannot be guessed, and lets nobody in', async () => {
    await addTeacher(db, await maren(), { name: 'Tove Lind', email: 'tove@gannet.example' }, at, day)
    await expect(signIn(db, 'tove@gannet.example', '', from, day)).rejects.toMatchObject({ status: 401 })
    const letter = (await listLetters(db, 'gannet')).find(({ to }) => to === 'tove@gannet.example')
    const id = await usePass(db, tokenIn(letter!.body), good, day)
    expect((await person(db, id)).role).toBe('teacher')
  })
})

describe('people of the school', () => {
  it('are found by words, by role and by whether they are here', async () => {
    const found = await listPeople(db, await maren(), asks('nell gannet'))
    expect(found.people.map(({ name, classes }) => [name, classes])).toEqual([['Nell Ashdown', 'Tuesday evening']])
    expect((await listPeople(db, await maren(), asks('', { role: 'teacher' }))).people.map(({ name }) => name)).toEqual(
      ['Idris Quayle', 'Maren Holt', 'Tove Lind'],
    )
    expect((await listPeople(db, await maren(), asks('%'))).people).toEqual([])
    expect((await listPeople(db, await maren(), asks('', { state: 'left' }))).people.map(({ id }) => id)).toEqual([
      'p-wyn-parrish',
    ])
  })
  it('who left cannot come in, keeps what they have sat, and can be brought back', async () => {
    const session = await beginSession(db, 'p-rufus-denby', day)
    await changePerson(db, await maren(), 'p-rufus-denby', { state: 'left' }, day)
    expect(await sessionPerson(db, session, day)).toBeNull()
    await expect(signIn(db, 'rufus.denby@gannet.example', 'fair winds', from, day)).rejects.toMatchObject({
      status: 401,
    })
    await changePerson(db, await maren(), 'p-rufus-denby', { state: 'here' }, day)
    expect(await signIn(db, 'rufus.denby@gannet.example', 'fair winds', from, day)).toBe('p-rufus-denby')
  })
  it('somebody always runs the school, also when two let go at once; no student does', async () => {
    const run = (id: string, admin: boolean) => maren().then((who) => changePerson(db, who, id, { admin }, day))
    await expect(run('p-maren', false)).rejects.toThrow(/Somebody has to run/)
    await expect(maren().then((who) => changePerson(db, who, 'p-maren', { state: 'left' }, day))).rejects.toThrow(
      /Somebody has to run/,
    )
    await expect(run('p-nell-ashdown', true)).rejects.toThrow(/Only a teacher/)
    await run('p-idris', true)
    const both = await Promise.allSettled([run('p-maren', false), run('p-idris', false)])
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
  })
  it('an address is one person’s, in whatever case; of another school nobody is changed', async () => {
    await expect(
      changePerson(db, await maren(), 'p-silas-penn', { email: 'Nell.Ashdown@GANNET.example' }, day),
    ).rejects.toThrow(/has this address already/)
    await db.run("INSERT INTO school (id, name, zone) VALUES ('far', 'Far', 'UTC')")
    await db.run(
      "INSERT INTO person (id, school_id, role, name, email, password_hash) VALUES ('p-far', 'far', 'teacher', 'Far', 'far@far.example', '')",
    )
    await expect(changePerson(db, await maren(), 'p-far', { name: 'Near' }, day)).rejects.toMatchObject({ status: 404 })
    await expect(linkFor(db, await maren(), 'p-far', at, day)).rejects.toMatchObject({ status: 404 })
  })
  it('keeping a name with the address that was there signs nobody out; another address does', async () => {
    const session = await beginSession(db, 'p-elif-doran', day)
    const keep = async (more: object) => changePerson(db, await maren(), 'p-elif-doran', more, day)
    await keep({ name: 'Elif D. Doran', email: ' Elif.Doran@gannet.example' })
    expect(await sessionPerson(db, session, day)).not.toBeNull()
    await keep({ email: 'elif@new.example' })
    expect(await sessionPerson(db, session, day)).toBeNull()
  })
  it('what is changed of an address stands in no line of the record', async () => {
    await changePerson(db, await maren(), 'p-silas-penn', { email: 'silas@secret.example' }, day)
    expect(JSON.stringify(await db.rows('SELECT * FROM record'))).not.toContain('secret.example')
  })
})

describe('what belongs to a student', () => {
  it('is given as data and as pages: every paper with its answers and marks, no key, no reason', async () => {
    await db.run("UPDATE person SET need_reason = 'SECRET-reason' WHERE id = 'p-tomas-velling'")
    const files = unzip((await giveOwnData(db, await maren(), 'p-tomas-velling', day)).bytes)
    const text = (name: string) => Buffer.from(files.get(name)!).toString()
    const data = JSON.parse(text('data.json')) as {
      person: object
      papers: { quiz: string; answers: { question: string; points: string }[] }[]
    }
    expect(data.person).toMatchObject({ name: 'Tomas Velling', email: 'tomas.velling@gannet.example' })
    const attempts = await db.rows("SELECT 1 FROM attempt WHERE student_id = 'p-tomas-velling'")
    expect(data.papers).toHaveLength(attempts.length)
    expect(attempts.length).toBeGreaterThan(0)
    expect(data.papers[0]!.answers.every(({ question }) => question.length > 5)).toBe(true)
    expect(text('pages.html')).toContain('Tomas Velling')
    for (const name of files.keys()) expect(text(name)).not.toMatch(/SECRET-reason|password|scrypt/)
    await expect(giveOwnData(db, await maren(), 'p-idris', day)).rejects.toMatchObject({ status: 404 })
  })
  it('goes when they are made nameless, but for grades as numbers; for thirty days it comes back', async () => {
    const id = 'p-tomas-velling'
    const grades = () => db.rows('SELECT id, score, possible FROM attempt WHERE student_id = ? ORDER BY id', [id])
    const who = () =>
      db.one('SELECT name, email, accommodation, need_reason, password_hash FROM person WHERE id = ?', [id])
    const [before, was] = [await grades(), await who()]
    await expect(makeNameless(db, await maren(), id, day)).rejects.toThrow(/who has left the school/)
    await changePerson(db, await maren(), id, { state: 'left' }, day)
    const both = await Promise.allSettled([
      makeNameless(db, await maren(), id, day),
      makeNameless(db, await maren(), id, day),
    ])
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    expect(await who()).toEqual({
      name: 'Former student ling',
      email: null,
      accommodation: null,
      need_reason: '',
      password_hash: '',
    })
    expect(await grades()).toEqual(before)
    expect(await giveNameBack(db, await maren(), id, laterThan(29 * 24 * hour))).toEqual({ name: 'Tomas Velling' })
    expect(await who()).toEqual(was)
    await makeNameless(db, await maren(), id, day)
    await expect(giveNameBack(db, await maren(), id, laterThan(30 * 24 * hour))).rejects.toMatchObject({ status: 410 })
    await forgetNames(db, laterThan(31 * 24 * hour))
    expect(await db.rows('SELECT * FROM nameless')).toEqual([])
    expect(await grades()).toEqual(before)
  })
})

describe('a first start', () => {
  const given = {
    school: 'Kelp Lane School',
    zone: 'Europe/Oslo',
    name: 'Ada Brook',
    email: 'ada@kelp.example',
    password: good,
  }
  it('lays out one school, whoever asks at the same time', async () => {
    const { db: empty } = await freshDatabase('first_start')
    const both = await Promise.allSettled([
      makeSchool(empty, given, day),
      makeSchool(empty, { ...given, email: 'b@kelp.example' }, day),
    ])
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    const id = (both.find(({ status }) => status === 'fulfilled') as PromiseFulfilledResult<string>).value
    expect(await person(empty, id)).toMatchObject({ role: 'teacher', admin: true, zone: 'Europe/Oslo' })
    expect(await empty.rows('SELECT name FROM school')).toEqual([{ name: 'Kelp Lane School' }])
    await expect(makeSchool(empty, given, day)).rejects.toMatchObject({ status: 409 })
    await empty.close()
  }, 30_000)
  it('is not had where there is one', () => expect(makeSchool(db, given, day)).rejects.toMatchObject({ status: 409 }))
})

describe('the outbox', () => {
  const letters = (n: number): Letter[] =>
    Array.from({ length: n }, (_, i) => ({ to: `l${i}@x.example`, subject: `Letter ${i}`, body: 'b' }))
  it('sends each letter once, of however many processes; nothing of what was taken back', async () => {
    const { db: own } = await freshDatabase('outbox', day)
    await own.transaction((tx) => writeLetters(tx, 'gannet', letters(30), day))
    await own
      .transaction(async (tx) => {
        await writeLetters(tx, 'gannet', [{ to: 'never@x.example', subject: 'Never', body: '' }], day)
        throw new Error('taken back')
      })
      .catch(() => {})
    const sent: string[] = []
    const post = ({ to }: Letter) => {
      sent.push(to)
      return Promise.resolve()
    }
    const until = async (): Promise<void> => {
      if (await sendDue(own, post, day)) await until()
    }
    await Promise.all([until(), until(), until()])
    expect(sent.sort()).toEqual(
      letters(30)
        .map(({ to }) => to)
        .sort(),
    )
    await own.close()
  })
  it('tries again after pauses that grow, gives up after six, and says why', async () => {
    const { db: own } = await freshDatabase('outbox_again', day)
    await writeLetters(own, 'gannet', letters(1), day)
    let tries = 0
    const refusing = () => {
      tries++
      return Promise.reject(new Error('the post is shut'))
    }
    const minutes = [0, 0.5, 1, 5.9, 6, 36, 156, 636, 5000]
    const after: number[] = []
    for (const at of minutes) {
      await sendDue(own, refusing, laterThan(at * 60_000))
      after.push(tries)
    }
    expect(after).toEqual([1, 1, 2, 2, 3, 4, 5, 6, 6])
    expect(await listLetters(own, 'gannet')).toMatchObject([{ sentAt: null, fault: 'the post is shut' }])
    await own.close()
  })
})

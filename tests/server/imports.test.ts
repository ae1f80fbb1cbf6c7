import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { writeThistle } from '../../formats/json/thistle'
import { writePackage } from '../../formats/qti/package/write'
import type { Question } from '../../core/question'
import { toSql } from '../../server/database/codec'
import { addRows } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { addQuestion, loadQuestion } from '../../server/domain/bank/questions/questions'
import { searchQuery, searchQuestions } from '../../server/domain/bank/finding/search'
import { giveFile } from '../../server/domain/imports/give'
import { lookAt } from '../../server/domain/imports/look'
import { stagedQuestion, viewBatch } from '../../server/domain/imports/batch'
import { stageFile } from '../../server/domain/imports/stage'
import { beginTaking } from '../../server/domain/imports/take'
import { pastedAsText } from '../../server/domain/imports/pasted'
import { dropAbandoned, forgetImports, stopTaking, undoImport } from '../../server/domain/imports/untake'
import { lookAtUnseen } from '../../server/domain/imports/unseen'
import { plus } from '../../core/kit/time'
import type { Person } from '../../server/people/people'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, later } from '../support/quiz'

let db: Database
let maren: Person
let idris: Person
beforeAll(async () => {
  db = (await freshDatabase('imports', day)).db
  ;[maren, idris] = [await person(db, 'p-maren'), await person(db, 'p-idris')]
})
afterAll(() => db.close())

const stage = (text: string | Uint8Array, name = 'a.md', by = maren) =>
  stageFile(db, by, Buffer.from(text as Uint8Array), name, later(1))
const total = async (words: string) => (await searchQuestions(db, maren, searchQuery.parse({ words }))).total
const takeAll = async (id: string, n: number) =>
  (
    await beginTaking(
      db,
      maren,
      id,
      Array.from({ length: n }, (_, i) => i),
      () => later(2),
    )
  ).done
const question = (stem: string, over: Partial<Question> = {}): Question =>
  ({ ...sampleQuestion('choice'), stem: `<p>${stem}</p>`, ...over }) as Question
const file = (...entries: [id: string, Question][]) =>
  writeThistle(
    entries.map(([id, each]) => ({
      id,
      folder: ['From outside', 'Knots'],
      objectives: ['1.1', 'Nowhere'],
      question: each,
    })),
    new Map(),
  )

describe('bringing questions in', () => {
  it('a question is looked at whole before it is taken, by who brought it and by nobody else', async () => {
    const batch = await stage('Which knot makes a loop that holds its size?\n\n= bowline\n\n---\n\nOnly words.\n')
    expect(batch.items.map(({ fate }) => fate)).toEqual(['new', 'broken'])
    expect(await stagedQuestion(db, maren, batch.id, 0)).toMatchObject({
      question: { stem: '<p>Which knot makes a loop that holds its size?</p>' },
      shared: '',
    })
    await expect(stagedQuestion(db, maren, batch.id, 1)).rejects.toMatchObject({ status: 404 })
    await expect(stagedQuestion(db, maren, batch.id, 2)).rejects.toMatchObject({ status: 404 })
    await expect(stagedQuestion(db, idris, batch.id, 0)).rejects.toMatchObject({ status: 404 })
  })
  it('shows first what will come, and nothing is there until it is taken', async () => {
    const batch = await stage('# Ropes\n\nWhich knot makes a loop that holds?\n\n= bowline\n\n---\n\nOnly words.\n')
    expect(batch.items.map((item) => [item.fate, item.folder, item.problem])).toEqual([
      ['new', ['Ropes'], null],
      ['broken', ['Ropes'], expect.stringMatching(/no answer/)],
    ])
    expect(await total('bowline')).toBe(0)
    await takeAll(batch.id, 2)
    expect(await total('bowline')).toBe(1)
    expect(await viewBatch(db, maren, batch.id)).toMatchObject({ state: 'done', progress: 1, total: 1 })
    await expect(beginTaking(db, maren, batch.id, [0], () => later(3))).rejects.toMatchObject({ status: 409 })
    await expect(viewBatch(db, idris, batch.id)).rejects.toMatchObject({ status: 404 })
  })
  it('tells new, changed, the same and alike from each other; a second import finds the first', async () => {
    const [one, two] = [
      question('How is a rolling hitch of 5 turns made fast?'),
      question('What is a sheepshank for in a long line?'),
    ]
    const first = await stage(file(['k1', one], ['k2', two]), 'k.json')
    expect(first.items.map((item) => item.fate)).toEqual(['new', 'new'])
    expect(first.items[0]!.notes).toContain('Objectives that this school does not have are left out: Nowhere.')
    await takeAll(first.id, 2)
    const second = await stage(
      file(
        ['k1', one],
        ['k2', { ...two, points: 3 }],
        ['k3', question('How is a rolling hitch of 9 turns made fast?')],
      ),
      'k.json',
    )
    expect(second.items.map((item) => item.fate)).toEqual(['same', 'changed', 'near'])
    await takeAll(second.id, 3)
    const hit = (await searchQuestions(db, maren, searchQuery.parse({ words: 'sheepshank' }))).hits[0]!
    expect(hit).toMatchObject({ version: 2, points: 3, objectives: ['obj-1-1'] })
    expect(await undoImport(db, maren, second.id, later(4))).toEqual({ removed: 2, kept: 0, quizzes: 0 })
    expect((await loadQuestion(db, maren, hit.id)).question.points).toBe(1)
    expect(await total('rolling hitch')).toBe(1)
  })
  it('can be stopped: nothing is added, and it can be begun again', async () => {
    const many = await stage(
      file(
        ...Array.from({ length: 450 }, (_, i): [string, Question] => [`m${i}`, question(`Stopping marlinspike ${i}`)]),
      ),
      'm.json',
    )
    const { done } = await beginTaking(
      db,
      maren,
      many.id,
      many.items.map((_, i) => i),
      () => later(2),
    )
    await stopTaking(db, maren, many.id)
    await done
    expect(await total('marlinspike')).toBe(0)
    expect(
      Number((await db.one<{ n: number }>('SELECT COUNT(*) AS n FROM question WHERE import_id = ?', [many.id]))!.n),
    ).toBe(0)
    expect((await viewBatch(db, maren, many.id)).state).toBe('staged')
    await takeAll(many.id, 450)
    expect(await total('marlinspike')).toBe(450)
  })
  it('taking back leaves what a quiz holds by now', async () => {
    const batch = await stage(file(['q1', question('Taken back, the clove')]), 'q.json')
    await takeAll(batch.id, 1)
    const { hits } = await searchQuestions(db, maren, searchQuery.parse({ words: 'clove' }))
    await createQuiz(db, maren, 'Knots', later(3), 'quiz-knots')
    const { quiz } = await loadQuiz(db, 'quiz-knots')
    await makeEdit(
      db,
      maren,
      'quiz-knots',
      0,
      'knots.1',
      addRows(quiz.content.sections[0]!.id, null, [
        { type: 'question', id: 'r1', question: hits[0]!.id, points: 1, fixed: false },
      ]),
      later(3),
    )
    expect(await undoImport(db, maren, batch.id, later(4))).toEqual({ removed: 0, kept: 1, quizzes: 0 })
    expect(await total('clove')).toBe(1)
  })
  it('cleans what it brings: no script, no foreign address, no maths that cannot be read', async () => {
    const batch = await stage(
      file(
        [
          'x1',
          question('Dirty <script>alert(1)</script><img src="https://elsewhere.example/x.png" onerror="x()"> sheet'),
        ],
        ['x2', question('<span data-type="inline-math" data-latex="\\frac{"></span>')],
        ['x3', question('x'.repeat(40_100))],
      ),
      'x.json',
    )
    expect(batch.items.map((item) => item.problem)).toEqual([
      null,
      expect.stringMatching(/maths.*cannot be read/),
      expect.stringMatching(/40,000/),
    ])
    await takeAll(batch.id, 3)
    const { hits } = await searchQuestions(db, maren, searchQuery.parse({ words: 'dirty sheet' }))
    expect((await loadQuestion(db, maren, hits[0]!.id)).question.stem).toBe('<p>Dirty  sheet</p>')
  })
  it('a picture that is none is left out and told', async () => {
    const fake = new Uint8Array([1, 2, 3, 4])
    const { digestOf } = await import('../../formats/bundle')
    const pictured = question(`A picture <img src="/api/media/${digestOf(fake)}" alt="x">`)
    const batch = await stage(
      writeThistle([{ id: 'p', folder: [], objectives: [], question: pictured }], new Map([[digestOf(fake), fake]])),
      'p.json',
    )
    expect(batch.items[0]!.notes.join()).toMatch(/left out: This is not a PNG/)
  })
})

describe('giving questions out', () => {
  it('the demo bank goes out as a package and finds itself again', async () => {
    const ids = (await db.rows<{ id: string }>("SELECT id FROM question WHERE id LIKE 'q-%' LIMIT 400")).map(
      (row) => row.id,
    )
    for (const as of ['json', 'qti-2.2', 'qti-3.0'] as const) {
      const { bytes } = await giveFile(db, maren, { questions: ids, as })
      const batch = await stage(bytes, 'back')
      expect(
        batch.items.filter((item) => item.problem),
        as,
      ).toEqual([])
      expect(batch.items).toHaveLength(ids.length)
    }
  })
  it('what one may not see is not in the file', async () => {
    const [row] = await db.rows<{ id: string }>("SELECT id FROM question WHERE id = 'q-datum'")
    await db.run("UPDATE question SET sharing = 'private' WHERE id = ?", [row!.id])
    await expect(giveFile(db, idris, { questions: [row!.id], as: 'json' })).rejects.toMatchObject({ status: 422 })
    await db.run("UPDATE question SET sharing = 'school' WHERE id = ?", [row!.id])
  })
  it('what its reader will not see is told before, of what one may see and of nothing else', async () => {
    const hinted = await addQuestion(
      db,
      maren,
      question('What is a fid for?', { hints: ['<p>Think of splices.</p>'] }),
      later(1),
      'q-hinted',
      { folder: null, sharing: 'private' },
    )
    expect(hinted).toBeTruthy()
    const asked = { questions: ['q-hinted', 'q-datum'], as: 'csv' as const }
    expect((await lookAtUnseen(db, maren, asked)).find(({ id }) => id === 'q-hinted')!.what).toContain('a hint')
    expect((await lookAtUnseen(db, maren, { ...asked, as: 'json' })).map(({ id }) => id)).toEqual([])
    expect((await lookAtUnseen(db, idris, asked)).map(({ id }) => id)).not.toContain('q-hinted')
    await expect(lookAtUnseen(db, idris, { ...asked, questions: ['q-hinted'] })).rejects.toMatchObject({ status: 422 })
  })
})

describe('a file that nobody takes in', () => {
  it('goes after a day, with all that was read from it; before that it stays', async () => {
    const { id } = await stage('Which rope floats?\n\n= polypropylene\n')
    await forgetImports(db, plus(later(1), 23 * 3_600_000))
    expect((await viewBatch(db, maren, id)).state).toBe('staged')
    await forgetImports(db, plus(later(1), 25 * 3_600_000))
    await expect(viewBatch(db, maren, id)).rejects.toMatchObject({ status: 404 })
  })
})

describe('what is pasted from a document', () => {
  it('becomes text to go on with; what does not come along is told', () => {
    const { text, problems } = pastedAsText(
      '<h1>Knots</h1><p>Which holds?<script>x</script></p><ul><li><b>bowline</b></li><li>granny</li></ul><p>And this? <img src="data:image/png;base64,AA=="></p><ul><li>one</li><li>two</li></ul><p>Only words.</p>',
    )
    expect(text).toContain('# Knots')
    expect(lookAt(text)).toMatchObject([
      { problem: null, question: { kind: 'Choice', key: 'bowline' } },
      { problem: null, question: { kind: 'Choice', key: '' } },
    ])
    expect(text).not.toContain('script')
    expect(problems.join('\n')).toMatch(/question 2.*pictures do not come along[^]*question 3.*no answer/)
  })
})

describe('plain text while it is typed', () => {
  it('is shown as questions, with what was not understood at its place', () => {
    expect(lookAt('Which?\n\n- [x] a\n- [ ] b\n\n---\n\nWhat?')).toMatchObject([
      { problem: null, question: { kind: 'Choice', key: 'a' } },
      { problem: expect.stringMatching(/no answer/), place: 'question 2, line 8' },
    ])
    expect(lookAt('')).toEqual([])
  })
})

it('a package of 600 goes in at a good rate and whole', async () => {
  const entries = Array.from({ length: 600 }, (_, i) => ({
    id: `r${i}`,
    folder: ['Rate'],
    objectives: [],
    question: question(`Rate of the halyard ${i}`),
  }))
  const batch = await stage(writePackage(entries, { media: new Map() }, '2.2'), 'rate.zip')
  await takeAll(batch.id, 600)
  expect(await total('halyard')).toBe(600)
})

describe('folders of a file', () => {
  const inFolders = (...paths: string[][]) =>
    Buffer.from(
      JSON.stringify({
        format: 'thistle-questions',
        version: 1,
        questions: paths.map((folder, i) => ({
          id: `deep-${folder.join('-')}-${i}`,
          folder,
          objectives: [],
          question: question(`What lies in ${folder.join(' of ')} at place ${i}?`),
        })),
      }),
    )
  const named = async (name: string) =>
    (await db.rows<{ id: string }>('SELECT id FROM folder WHERE name = ?', [name])).length
  it('are made once, found again by their names, and taken back while nothing else lies in them', async () => {
    const batch = await stage(
      inFolders(['Ropework', 'Bends'], ['Ropework', 'Hitches'], ['ropework', 'BENDS']),
      'knots.json',
    )
    await takeAll(batch.id, 3)
    expect([await named('Ropework'), await named('Bends'), await named('Hitches')]).toEqual([1, 1, 1])
    const found = await searchQuestions(db, maren, searchQuery.parse({ words: 'lies in ropework place' }))
    expect(new Set(found.hits.map((hit) => hit.folder)).size).toBe(2)
    const [bends] = await db.rows<{ id: string }>("SELECT id FROM folder WHERE name = 'Bends'")
    await addQuestion(db, maren, question('Another bend, written by hand'), later(4), undefined, {
      folder: bends!.id,
      sharing: 'school',
    })
    await undoImport(db, maren, batch.id, later(5))
    expect([await named('Ropework'), await named('Bends'), await named('Hitches')]).toEqual([1, 1, 0])
  })
  it('are not left behind by an import that was stopped', async () => {
    const batch = await stage(inFolders(['Splices']), 'splices.json')
    const { done } = await beginTaking(db, maren, batch.id, [0], () => later(6))
    await stopTaking(db, maren, batch.id)
    await done
    expect(await named('Splices')).toBe(0)
    expect((await viewBatch(db, maren, batch.id)).state).toBe('staged')
  })
})

describe('an import whose process has died', () => {
  it('is taken back after a while and can be begun again; one that still moves is left alone', async () => {
    const batch = await stage(file(['lost', question('Left half way by a power cut')]), 'lost.json')
    await db.run("UPDATE import_batch SET state = 'running', touched_at = ? WHERE id = ?", [toSql(later(10)), batch.id])
    await addQuestion(db, maren, question('Added unseen before the cut'), later(10), 'q-unseen', {
      folder: null,
      sharing: 'staged',
    })
    await db.run("UPDATE question SET import_id = ? WHERE id = 'q-unseen'", [batch.id])
    expect(await dropAbandoned(db, later(15))).toBe(0)
    expect(await dropAbandoned(db, later(30))).toBe(1)
    expect(await db.one("SELECT 1 FROM question WHERE id = 'q-unseen'")).toBeUndefined()
    await takeAll(batch.id, 1)
    expect((await viewBatch(db, maren, batch.id)).state).toBe('done')
  })
})

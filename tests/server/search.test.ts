/** The search against one that looks at every question: whatever it begins with, it finds the same. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seededRandom } from '../../core/kit/random'
import { kindNames, type KindName, type Question } from '../../core/question'
import type { Database } from '../../server/database/database'
import { insertQuestions } from '../../server/domain/bank/questions/rows'
import { cap, searchQuery, searchQuestions, type SearchQuery } from '../../server/domain/bank/finding/search'
import type { Person } from '../../server/people/people'
import { sampleQuestion } from '../fixtures/core'
import { freshDatabase, person } from '../support/database'
import { day, later } from '../support/quiz'

const random = seededRandom('5ea4', ['search'])
const pick = <T>(list: readonly T[]) => list[random.below(list.length)]!
// The first stand in most questions, the last in few; none begins like a word of options, objectives or names.
const vocabulary = Array.from(
  { length: 60 },
  (_, i) => `qx${pick(['sal', 'tor', 'ven', 'mar', 'lun'])}${'bcdfgklmn'[i % 9]}${i}`,
)
const word = () => vocabulary[Math.floor(vocabulary.length * (random.below(1000) / 1000) ** 3)]!
const tags = ['alpha', 'beta', 'gamma', 'delta']
const leaves = ['obj-1-1', 'obj-1-2', 'obj-2-1', 'obj-3-1']
const kinds = kindNames.filter((kind) => kind !== 'spot')

interface Made {
  id: string
  question: Question
  words: Set<string>
}
let db: Database
let maren: Person
let made: Made[]

beforeAll(async () => {
  db = (await freshDatabase('search', day)).db
  maren = await person(db, 'p-maren')
  made = Array.from({ length: 1300 }, (_, i) => {
    const words = new Set(Array.from({ length: 6 }, word))
    const question = sampleQuestion(pick(kinds), {
      stem: `<p>zzz ${[...words].join(' ')}</p>`,
      difficulty: 1 + random.below(5),
      tags: [pick(tags)],
      objectives: [pick(leaves)],
      grade: i % 3 ? '' : 'Year 9',
      levels: i % 2 ? { depth: `v${1 + random.below(4)}` } : {},
    })
    return { id: `s-${i}`, question, words }
  })
  for (let from = 0; from < made.length; from += 200)
    await insertQuestions(
      db,
      maren,
      made.slice(from, from + 200).map(({ id, question }) => ({ id, question })),
      later(from),
    )
})
afterAll(() => db.close())

/** By looking at each. Every question of this bank has the word zzz. */
function naive(query: SearchQuery): Made[] {
  const wanted = query.words.split(' ').filter((each) => each && each !== 'zzz')
  const under = (asked: string) => (each: string) => each === asked || each.startsWith(`${asked}-`)
  return made.filter(
    ({ question, words }) =>
      wanted.every((start) => [...words].some((each) => each.startsWith(start))) &&
      (!query.kind.length || query.kind.includes(question.kind)) &&
      (!query.difficulty.length || query.difficulty.includes(question.difficulty)) &&
      (!query.tag.length || query.tag.includes(question.tags[0]!)) &&
      (!query.objective.length || query.objective.some((asked) => under(asked)(question.objectives[0]!))) &&
      (!query.level.length || query.level.some((each) => question.levels.depth === each.slice(6))) &&
      (!query.grade.length || question.grade === 'Year 9'),
  )
}
const some = <T>(chance: number, values: () => T[]): T[] => (random.below(100) < chance ? values() : [])
const query = (): SearchQuery =>
  searchQuery.parse({
    words: ['zzz', ...some(70, () => [word().slice(0, 4 + random.below(4))]), ...some(30, () => [word()])].join(' '),
    take: '200',
    kind: some(35, () => [pick(kinds), pick(kinds)] as KindName[]),
    difficulty: some(35, () => [1 + random.below(5)]),
    tag: some(25, () => [pick(tags)]),
    objective: some(25, () => [pick(['obj-1', ...leaves])]),
    level: some(20, () => [`depth:v${1 + random.below(4)}`]),
    grade: some(15, () => ['year 9']),
  })

describe('a search', () => {
  it('finds what looking at every question finds, whichever condition it begins with', async () => {
    for (let i = 0; i < 120; i++) {
      const asked = query()
      const [found, wanted] = [await searchQuestions(db, maren, asked), naive(asked)]
      expect(Math.min(found.total, cap + 1), JSON.stringify(asked)).toBe(Math.min(wanted.length, cap + 1))
      const ids = new Set(wanted.map(({ id }) => id))
      expect(found.hits.every((hit) => ids.has(hit.id))).toBe(true)
      expect(found.hits).toHaveLength(Math.min(200, wanted.length))
    }
  })
  it('counts exactly, or at least so many where it says so', async () => {
    for (let i = 0; i < 40; i++) {
      const asked = query()
      const { counts, sampled } = await searchQuestions(db, maren, asked)
      for (const difficulty of [1, 2, 3, 4, 5]) {
        const real = naive({ ...asked, difficulty: [difficulty] }).length
        const told = counts.difficulty[String(difficulty)] ?? 0
        if (sampled) expect(told).toBeLessThanOrEqual(real)
        else expect(told, JSON.stringify(asked)).toBe(real)
      }
    }
  })
  it('pages go through all of them once, newest first', async () => {
    const seen: string[] = []
    for (let from = 0; from < 1300; from += 130)
      seen.push(
        ...(await searchQuestions(db, maren, searchQuery.parse({ words: 'zzz', from, take: 130 }))).hits.map(
          (hit) => hit.id,
        ),
      )
    expect(new Set(seen).size).toBe(1300)
    expect(seen[0]).toMatch(/^s-1[23]\d\d$/)
    expect(seen.at(-1)).toMatch(/^s-1?\d?\d$/)
  })
})

/** A bank of 100,000 generated questions: searching with words, two filters and counts, at the server's domain. */
import { seededRandom } from '../core/kit/random'
import { iso } from '../core/kit/time'
import { kindNames } from '../core/question'
import { objectiveId, objectives } from '../demo/objectives'
import { seedDemo } from '../demo/seed'
import { openDatabase, patient } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { searchQuery, searchQuestions } from '../server/domain/bank/finding/search'
import { entryFor } from '../server/domain/bank/finding/search-query'
import { findPerson } from '../server/people/people'

const db = openDatabase(process.env.THISTLE_DATABASE_URL!, 12, patient)
await migrate(db)
await seedDemo(db, iso(Date.now()))
const maren = (await findPerson(db, 'p-maren'))!

/**
 * Words as texts have them: made of syllables, a few in very many questions, most in few (Zipf). The commonest stand in
 * more than half of all stems, as "the" and "which" do.
 */
const syllables = [...'bcdfghklmnprstvw'].flatMap((consonant) => [...'aeiou'].map((vowel) => consonant + vowel))
const vocabulary = Array.from(
  { length: 20_000 },
  (_, i) =>
    [i * 7919, i * 104_729 + 13, i * 31 + 5]
      .slice(0, 2 + (i % 2))
      .map((n) => syllables[n % syllables.length])
      .join('') + (i % 3 ? syllables[(i >> 4) % syllables.length] : ''),
)
const random = seededRandom('be', ['bank'])
const word = () =>
  vocabulary[Math.min(vocabulary.length - 1, Math.floor(vocabulary.length ** (random.below(100_000) / 100_000)) - 1)]!
const codes = objectives.map(([code]) => objectiveId(code)).filter((id) => id.includes('-', 4))
const total = 100_000
const pick = <T>(list: readonly T[]) => list[random.below(list.length)]!
const two = (n: number) => String(n).padStart(2, '0')

const made = Number((await db.one<{ n: number }>("SELECT COUNT(*) AS n FROM question WHERE id LIKE 'gen-%'"))?.n)
for (let from = made; from < total; from += 2000) {
  const batch = Array.from({ length: 2000 }, (_, i) => ({
    id: `gen-${from + i}`,
    objective: pick(codes),
    kind: pick(kindNames),
    difficulty: 1 + random.below(5),
    tag: `tag ${random.below(40)}`,
    words: [...new Set(Array.from({ length: 24 }, word))],
  }))
  await db.run(
    'INSERT INTO question (id, school_id, owner_id, state, version, changed_at, kind, title, internal_name, key_text, points, seconds, difficulty, facets) VALUES ?',
    [
      batch.map(({ id, words, objective, tag, kind, difficulty }, i) => [
        id,
        maren.school,
        maren.id,
        random.below(20) ? 'usable' : 'retired',
        1,
        `2029-${two(1 + (i % 12))}-${two(1 + random.below(28))} ${two(random.below(24))}:${two(i % 60)}:00.000`,
        kind,
        words.join(' ').slice(0, 200),
        '',
        'a key',
        1,
        60,
        difficulty,
        JSON.stringify({ o: [objective], t: [tag] }),
      ]),
    ],
  )
  await db.run('INSERT INTO question_word (word, question_id, kind, difficulty) VALUES ?', [
    batch.flatMap(({ id, words, objective, tag, kind, difficulty }) =>
      [...words, entryFor.objective(objective), entryFor.tag(tag), entryFor.kind(kind, difficulty)].map((each) => [
        each,
        id,
        kind,
        difficulty,
      ]),
    ),
  ])
  await db.run('INSERT INTO question_objective (question_id, objective_id, position) VALUES ?', [
    batch.map(({ id, objective }) => [id, objective, 0]),
  ])
  await db.run('INSERT INTO question_tag (question_id, tag) VALUES ?', [batch.map(({ id, tag }) => [id, tag])])
}
await db.run('ANALYZE TABLE question, question_word, question_objective, question_tag')

const searches = Array.from({ length: 200 }, (_, i) =>
  searchQuery.parse({
    words: [word().slice(0, 3 + random.below(4)), ...(i % 2 ? [word().slice(0, 3 + random.below(4))] : [])].join(' '),
    take: 60,
    ...[
      { kind: [pick(kindNames)], difficulty: [1 + random.below(5)] },
      { objective: [pick(codes)], difficulty: [1 + random.below(5)] },
      { tag: [`tag ${random.below(40)}`], kind: [pick(kindNames), pick(kindNames)] },
    ][i % 3],
  }),
)
// As the route does it: with the outside banks that are granted.
const now = iso(Date.now())
for (const query of searches.slice(0, 20)) await searchQuestions(db, maren, query, now)
const times: { ms: number; query: unknown; total: number }[] = []
for (const query of searches) {
  const began = performance.now()
  const found = await searchQuestions(db, maren, query, now)
  times.push({ ms: performance.now() - began, query, total: found.total })
}
times.sort((a, b) => a.ms - b.ms)
const at = (share: number) => Number(times[Math.floor(times.length * share)]!.ms.toFixed(1))
if (process.env.THISTLE_BENCH_SLOWEST)
  for (const each of times.slice(-8)) console.log(each.ms.toFixed(0), each.total, JSON.stringify(each.query))
await db.close()
console.log(
  JSON.stringify({
    'bank.search.median': { value: at(0.5), unit: 'ms' },
    'bank.search.p95': { value: at(0.95), unit: 'ms' },
  }),
)
process.exit(0)

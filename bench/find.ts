/** Find or do over the bank of 100,000 questions of bank.ts and 5,000 students: milliseconds of the 95th of 100 searches as they are typed. */
import { iso } from '../core/kit/time'
import { openDatabase, patient } from '../server/database/database'
import { find } from '../server/domain/find/find'
import { findPerson } from '../server/people/people'

const db = openDatabase(process.env.THISTLE_DATABASE_URL!, 12, patient)
const now = iso(Date.now())
const maren = (await findPerson(db, 'p-maren'))!
const first = ['Ann', 'Bela', 'Cyril', 'Dora', 'Emil', 'Fay', 'Gus', 'Hana', 'Ivo', 'Jun']
const last = ['Reed', 'Stone', 'Marsh', 'Field', 'Brook', 'Hill', 'Wood', 'Lake', 'Moor', 'Dale']
const classes = Array.from({ length: 200 }, (_, i) => `f-${i}`)
await db.run('INSERT INTO class (id, school_id, name) VALUES ?', [
  classes.map((id, i) => [id, maren.school, `Course ${i}`]),
])
await db.run('INSERT INTO class_teacher (class_id, person_id) VALUES ?', [classes.map((id) => [id, maren.id])])
const people = Array.from({ length: 5000 }, (_, i) => i)
await db.run('INSERT INTO person (id, school_id, role, name, email, password_hash) VALUES ?', [
  people.map((i) => [
    `f-${i}`,
    maren.school,
    'student',
    `${first[i % 10]} ${last[Math.floor(i / 10) % 10]} ${i}`,
    `f${i}@find.example`,
    '',
  ]),
])
await db.run('INSERT INTO enrolment (class_id, person_id) VALUES ?', [people.map((i) => [classes[i % 200]!, `f-${i}`])])

// As they are typed: the beginnings of names, of words of questions (rare and frequent) and of quizzes.
const words = await db.rows<{ word: string }>(
  "SELECT word FROM question_word WHERE word NOT LIKE '%:%' AND CHAR_LENGTH(word) > 3 LIMIT 100000",
)
const typed = Array.from({ length: 100 }, (_, i) => {
  const word = words[(i * 977) % words.length]!.word
  return [word.slice(0, 2), word.slice(0, 3), word, `${first[i % 10]} ${last[i % 7]!.slice(0, 3)}`, `course ${i}`][
    i % 5
  ]!
})
for (const each of typed.slice(0, 20)) await find(db, maren, each, now)
const times: number[] = []
let found = 0
for (const each of typed) {
  const began = performance.now()
  found += (await find(db, maren, each, now)).length
  times.push(performance.now() - began)
}
if (found < 200) throw new Error(`Only ${found} things were found.`)
await db.close()
times.sort((a, b) => a - b)
console.log(JSON.stringify({ 'find.time': { value: Number(times[94]!.toFixed(1)), unit: 'ms' } }))

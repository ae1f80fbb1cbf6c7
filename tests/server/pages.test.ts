import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newQuiz } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { listQuizzes, mostListed, quizQuery } from '../../server/domain/quizzes/list'
import { createQuizzes } from '../../server/domain/quizzes/quizzes'
import { mostListed as mostOwn, myQuizzes } from '../../server/domain/sittings/my-quizzes'
import type { Person } from '../../server/people/people'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz } from '../support/quiz'

let db: Database
let maren: Person
let silas: Person
beforeAll(async () => {
  db = (await freshDatabase('pages', day)).db
  maren = await person(db, 'p-maren')
  silas = await person(db, 'p-silas-penn')
})
afterAll(() => db.close())

const many = (n: number, name: string) => Array.from({ length: n }, (_, i) => `${name}${i}`)

describe('lists that come a page at a time', () => {
  it('give each quiz of a teacher once, and say when there are no more', async () => {
    const before = (await listQuizzes(db, maren, day)).quizzes.length
    const ids = many(mostListed + 7, 'lot')
    await createQuizzes(
      db,
      maren,
      ids.map((id) => ({ id, title: id, quiz: newQuiz(id, `s-${id}`) })),
      later(-1),
    )
    const first = await listQuizzes(db, maren, day)
    expect(first).toMatchObject({ more: true })
    expect(first.quizzes).toHaveLength(mostListed)
    const second = await listQuizzes(db, maren, day, quizQuery.parse({ after: mostListed }))
    expect(second).toMatchObject({ more: false })
    const all = [...first.quizzes, ...second.quizzes].map(({ id }) => id)
    expect(all).toHaveLength(before + ids.length)
    expect(new Set(all).size).toBe(all.length)
  })
  it('go on after what was read, also where a quiz is not shown because it is not announced', async () => {
    await openedQuiz(db, 'shown', { announced: true })
    await db.run("UPDATE quiz SET changed_at = '2000-01-01' WHERE id = 'shown'")
    const [{ body }] = (await db.rows<{ body: string }>("SELECT body FROM quiz WHERE id = 'shown'")) as [
      { body: string },
    ]
    const hidden = body.replace('"announced":true', '"announced":false').replaceAll('2030-05-14', '2031-05-14')
    const ids = many(mostOwn + 5, 'hidden')
    await db.run('INSERT INTO quiz (id, school_id, owner_id, title, state, revision, body, changed_at) VALUES ?', [
      ids.map((id) => [id, maren.school, maren.id, id, 'published', 1, hidden, '2030-01-01 00:00:00.000']),
    ])
    await db.run("INSERT INTO quiz_class (quiz_id, class_id) SELECT id, 'c-tuesday' FROM quiz WHERE id LIKE 'hidden%'")
    const first = await myQuizzes(db, silas, day)
    expect(first.more).toBe(true)
    expect(first.quizzes.map(({ id }) => id)).not.toContain('shown')
    const second = await myQuizzes(db, silas, day, first.next)
    expect(second.more).toBe(false)
    expect(second.quizzes.map(({ id }) => id)).toContain('shown')
  })
})

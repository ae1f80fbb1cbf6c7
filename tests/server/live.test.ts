import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { setAt } from '../../core/quiz'
import { iso } from '../../core/kit/time'
import type { Database } from '../../server/database/database'
import { earlierQuiz } from '../../server/domain/quizzes/earlier'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { editsBefore } from '../../server/domain/quizzes/history'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { mayTeach } from '../../server/domain/quizzes/quizzes'
import { comeHere, forgetPresence, stays, whoIsHere } from '../../server/domain/quizzes/presence'
import { QuizFeed, type News } from '../../server/live/quiz-feed'
import type { Person } from '../../server/people/people'
import { freshDatabase, person } from '../support/database'
import { day, later } from '../support/quiz'

let db: Database
let maren: Person
let idris: Person
beforeAll(async () => {
  db = (await freshDatabase('live', day)).db
  maren = await person(db, 'p-maren')
  idris = await person(db, 'p-idris')
})
afterAll(() => db.close())

async function shared(title: string): Promise<string> {
  const id = await createQuiz(db, maren, title, day)
  await db.run('INSERT INTO quiz_teacher (quiz_id, person_id) VALUES (?, ?)', [id, idris.id])
  return id
}
/** A page that collects what it is told, and can wait for something. */
function page() {
  const told: News[] = []
  const waiting: (() => void)[] = []
  return {
    told,
    tell: (news: News) => {
      told.push(news)
      for (const go of waiting.splice(0)) go()
    },
    async until(holds: (news: News) => boolean) {
      while (!told.some(holds)) await new Promise<void>((go) => waiting.push(go))
    },
  }
}
/** A page whose session stands as long as the right to its quiz. */
const mayHear =
  ({ id: who }: Person, quiz: string) =>
  () =>
    mayTeach(db, who, quiz)
const names = (news: News) => ('here' in news ? news.here.map(({ name, row }) => `${name}/${row ?? '-'}`) : [])

describe('a feed', () => {
  it('tells pages of two processes of each other’s edits, of who is here, on which row, and that they left', async () => {
    const id = await shared('Together')
    const now = () => day
    const [one, two] = [new QuizFeed(() => db, now, 20), new QuizFeed(() => db, now, 20)]
    const [mine, theirs] = [page(), page()]
    await one.follow(id, 'page1', maren, mayHear(maren, id), mine.tell)
    const leave = await two.follow(id, 'page2', idris, mayHear(idris, id), theirs.tell)
    await mine.until((news) => names(news).includes('Idris Quayle/-'))
    await theirs.until((news) => names(news).includes('Maren Holt/-'))
    await comeHere(db, idris, id, 'page2', 'r7', day)
    await mine.until((news) => names(news).includes('Idris Quayle/r7'))
    const { quiz } = await loadQuiz(db, id)
    await makeEdit(db, idris, id, 0, 'page2.1', setAt(quiz, ['rules', 'limit'], 30), day)
    await mine.until((news) => 'revision' in news && news.revision === 1)
    leave()
    await mine.until((news) => 'here' in news && news.here.length === 0 && mine.told.indexOf(news) > 1)
    one.close()
    two.close()
    expect(mine.told.at(-1)).toEqual({ closing: true })
  })
  it('tells nothing more to somebody whose share has ended', async () => {
    const id = await shared('Ended')
    const feed = new QuizFeed(
      () => db,
      () => day,
      5,
    )
    const theirs = page()
    await feed.follow(id, 'page3', idris, mayHear(idris, id), theirs.tell)
    await theirs.until((news) => 'revision' in news)
    await db.run('DELETE FROM quiz_teacher WHERE quiz_id = ?', [id])
    await theirs.until((news) => 'ended' in news)
    const before = theirs.told.length
    const { quiz } = await loadQuiz(db, id)
    await makeEdit(db, maren, id, 0, 'page9.1', setAt(quiz, ['rules', 'limit'], 30), day)
    const other = page()
    await feed.follow(id, 'page4', maren, mayHear(maren, id), other.tell)
    await other.until((news) => 'revision' in news && news.revision === 1)
    expect(theirs.told).toHaveLength(before)
    feed.close()
  })
  it('goes on when the database was away for a while', async () => {
    const id = await shared('Away')
    let away = false
    const flaky = new Proxy(db, {
      get: (target, name: keyof Database) =>
        name === 'rows' && away
          ? () => Promise.reject(new Error('away'))
          : (target[name] as unknown as { bind?: (to: unknown) => unknown }).bind?.(target),
    })
    const feed = new QuizFeed(
      () => flaky,
      () => day,
      5,
    )
    const mine = page()
    await feed.follow(id, 'page5', maren, mayHear(maren, id), mine.tell)
    await mine.until((news) => 'revision' in news)
    away = true
    const { quiz } = await loadQuiz(db, id)
    await makeEdit(db, idris, id, 0, 'pagex.1', setAt(quiz, ['rules', 'limit'], 20), day)
    away = false
    await mine.until((news) => 'revision' in news && news.revision === 1)
    feed.close()
  })
})

describe('who is here', () => {
  it('is gone when a page is not heard of, and forgotten later', async () => {
    const id = await shared('Gone')
    await comeHere(db, maren, id, 'pagea', null, day)
    const at = (seconds: number) => iso(Date.parse(day) + seconds * 1000)
    expect((await whoIsHere(db, [id], at(stays - 1))).get(id)).toHaveLength(1)
    expect((await whoIsHere(db, [id], at(stays + 1))).get(id)).toEqual([])
    await forgetPresence(db, at(stays * 11))
    expect(await db.rows('SELECT page FROM quiz_presence WHERE quiz_id = ?', [id])).toEqual([])
  })
})

describe('history', () => {
  it('lists what was done, and puts any earlier state together again', async () => {
    const id = await shared('History')
    const states = [(await loadQuiz(db, id)).quiz]
    for (let i = 1; i <= 65; i++) {
      const { quiz } = await loadQuiz(db, id)
      const edit = i % 2 ? setAt(quiz, ['rules', 'limit'], 10 + i) : setAt(quiz, ['content', 'title'], `Title ${i}`)
      await makeEdit(db, i % 3 ? maren : idris, id, i - 1, `page.${i}`, edit, later(i))
      states.push((await loadQuiz(db, id)).quiz)
    }
    for (const revision of [0, 1, 30, 64, 65])
      expect((await earlierQuiz(db, maren, id, revision)).quiz).toEqual(states[revision])
    await expect(earlierQuiz(db, maren, id, 66)).rejects.toMatchObject({ status: 404 })
    const first = await editsBefore(db, id, null)
    expect(first).toMatchObject({ more: true })
    const rest = await editsBefore(db, id, first.edits.at(-1)!.revision)
    expect(rest.more).toBe(false)
    expect([...first.edits, ...rest.edits].map(({ revision }) => revision)).toEqual(
      Array.from({ length: 65 }, (_, i) => 65 - i),
    )
  })
  it('says so where an edit of an earlier release does not tell how it is taken back', async () => {
    const id = await shared('Older')
    const { quiz } = await loadQuiz(db, id)
    await makeEdit(db, maren, id, 0, 'page.1', setAt(quiz, ['rules', 'limit'], 11), day)
    await db.run('UPDATE quiz_edit SET inverse = NULL WHERE quiz_id = ?', [id])
    await expect(earlierQuiz(db, maren, id, 0)).rejects.toMatchObject({ status: 422 })
  })
})

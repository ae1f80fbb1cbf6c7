import { expect, it } from 'vitest'
import { freshDatabase } from '../support/database'
import { day } from '../support/quiz'
import { race } from '../support/race'

const rounds = 400

it(`races saves, hand-ins and the sweep from five processes on ${rounds} sittings: every acknowledged answer is marked`, async () => {
  const { db, url } = await freshDatabase('race', day)
  const words = await race(db, [url], rounds)
  expect(words).toMatch(/acknowledged/)
  console.log(words)
  await db.close()
}, 180_000)

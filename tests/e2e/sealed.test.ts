/** The key never leaves early: every byte that a whole sitting receives is read. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { kindNames } from '../../core/question'
import { addRows, addTo, setAt, together } from '../../core/quiz'
import { addQuestion } from '../../server/domain/bank/questions/questions'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { sampleQuestion } from '../fixtures/core'
import { closeBrowser, visitor } from '../support/browser'
import { person } from '../support/database'
import { sharedScene } from '../support/scene'

const { db, address, now } = sharedScene()

/** A question of a kind whose every hidden part carries a word that must not be seen. */
function marked(kind: (typeof kindNames)[number]) {
  const sample = structuredClone(sampleQuestion(kind))
  const body = sample.body as { options?: { id: string; comment: string }[]; answers?: Record<string, unknown>[] }
  body.options?.forEach((option, i) => {
    option.id = kind === 'trueFalse' ? option.id : `SECRETOPT${i}`
    option.comment = 'SECRET-option-comment'
  })
  body.answers?.forEach((answer) =>
    Object.assign(answer, {
      comment: 'SECRET-answer-comment',
      ...('value' in answer
        ? { value: '31.41592', near: { by: 'absolute', tolerance: '0.27182' } }
        : { text: 'SECRETanswer' }),
    }),
  )
  return {
    ...sample,
    internalName: 'SECRET-name',
    tags: ['SECRETtag'],
    source: 'SECRET-source',
    comments: { right: 'SECRET-right', wrong: 'SECRET-wrong', general: 'SECRET-general' },
  }
}

beforeAll(async () => {
  const maren = await person(db, 'p-maren')
  await createQuiz(db, maren, 'Sealed', now, 'sealed')
  const { quiz } = await loadQuiz(db, 'sealed')
  const rows = []
  for (const kind of kindNames)
    rows.push({
      type: 'question' as const,
      id: `SECRETrow-${kind}`,
      question: (await addQuestion(db, maren, marked(kind), now, `SECRETq-${kind}`)).id,
      points: 1,
      fixed: false,
    })
  await makeEdit(
    db,
    maren,
    'sealed',
    0,
    'test.1',
    together([
      addRows(quiz.content.sections[0]!.id, null, rows),
      addTo(['rules', 'windows'], null, [
        {
          id: 'w1',
          classes: ['c-tuesday'],
          opens: now,
          closes: null,
          due: null,
          latestStart: null,
          groups: [],
          students: [],
          closedAt: null,
          password: null,
        },
      ]),
      setAt(quiz, ['rules', 'release', 'score', 'from'], { at: 'never' }),
    ])!,
    now,
  )
  await openQuiz(db, maren, 'sealed', now)
})
afterAll(async () => {
  await closeBrowser()
  await db.close()
})

it('reads every byte from opening the list to the review after handing in', async () => {
  const { page, faults } = await visitor(address, 'Nell Ashdown')
  const bodies: { url: string; text: string }[] = []
  const reading: Promise<void>[] = []
  page.on('response', (response) => {
    reading.push(
      response
        .body()
        .then((body) => {
          bodies.push({ url: response.url(), text: body.toString('utf8') })
        })
        .catch(() => {}),
    )
  })
  await page.reload()
  await page.locator('li').filter({ hasText: 'Sealed' }).getByRole('link', { name: 'Look, then start' }).click()
  await page.getByRole('button', { name: 'Start now' }).click()
  await page.waitForURL('**/sit/*')
  const articles = page.locator('article')
  await articles.first().waitFor()
  expect(await articles.count()).toBe(kindNames.length)
  // Right and wrong answers alike: the replies must not tell them apart.
  const replies: string[] = []
  page.on('response', async (response) => {
    if (response.url().endsWith('/answers'))
      replies.push(JSON.stringify(Object.keys((await response.json()) as object)) + response.status())
  })
  for (let i = 0; i < kindNames.length; i++) {
    const fields = await articles.nth(i).getByRole('textbox').all()
    for (const field of fields)
      for (const words of ['31.41592', '1']) {
        await field.fill(words)
        await page.getByText(/All answers kept/).waitFor()
      }
    if (!fields.length)
      for (const option of await articles.nth(i).locator('label').all()) {
        await option.click()
        await page.getByText(/All answers kept/).waitFor()
      }
  }
  await page.getByRole('button', { name: 'Hand in…' }).first().click()
  await page.getByRole('dialog').getByRole('button', { name: 'Hand in', exact: true }).click()
  await page.waitForURL('**/review/*')
  await page.getByText('Attempt 1').first().waitFor()
  await Promise.all(reading)
  const calls = bodies.filter(({ url }) => url.includes('/api/'))
  expect(calls.length).toBeGreaterThan(10)
  for (const { url, text } of bodies) expect(text, url).not.toMatch(/SECRET(?!\w*["']?\s*:)[\w-]*|31\.41592|0\.27182/)
  for (const { url, text } of calls)
    expect(text, url).not.toMatch(
      /"(?:credit|tolerance|near|right|key|version|difficulty|internalName|tags)":(?!null|\{"shown")/,
    )
  expect(new Set(replies).size).toBe(1)
  expect(faults).toEqual([])
})

/** A quiz is rehearsed, mended from within, opened to one class after another; a student gets more time and is told by mail. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { day, minute, plus } from '../../core/kit/time'
import { editTo, newRow, newSection, usualRules } from '../../core/quiz'
import { blankWindow } from '../../core/rules/windows'
import { addQuestion } from '../../server/domain/bank/questions/questions'
import { tellQuizzes } from '../../server/domain/letters/tell'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { sampleQuestion } from '../fixtures/core'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { person } from '../support/database'
import { sharedScene } from '../support/scene'

const { db, address, now } = sharedScene()
const id = 'quiz-rehearsed'
let teacher: Visitor
let mended = ''
beforeAll(async () => {
  const maren = await person(db, 'p-maren')
  mended = (await addQuestion(db, maren, sampleQuestion('choice', { stem: '<p>Which bouy is red?</p>' }), now)).id
  await createQuiz(db, maren, 'Rehearsed', now, id)
  const { quiz } = await loadQuiz(db, id)
  const rows = [mended, 'q-cover', 'q-clearing'].map((question) =>
    newRow({ type: 'question', id: `r-${question}`, question, points: 1 }),
  )
  const whole = {
    content: { ...quiz.content, sections: [newSection({ id: 's1', title: 'Buoys', order: 'kept', rows })] },
    rules: {
      ...quiz.rules,
      limit: 30,
      notices: {
        ...usualRules.notices,
        times: { on: true, words: null },
        opening: { on: true, words: 'Bring a pencil.' },
      },
      windows: [
        blankWindow({
          id: 'w1',
          classes: ['c-tuesday', 'c-saturday'],
          opens: plus(now, 2 * 60 * minute),
          closes: plus(now, day),
        }),
      ],
      release: {
        ...usualRules.release,
        score: { ...usualRules.release.score, from: { at: 'handIn' as const, offset: 0 } },
      },
    },
  }
  await makeEdit(db, maren, id, 0, 'rehearsed.1', editTo(quiz, whole)!, now)
  teacher = await visitor(address, 'Maren Holt')
})
afterAll(async () => {
  await closeBrowser()
  await db.close()
})

it('is sat as a student would, at its times, without anything counting', async () => {
  const { page, faults } = teacher
  await page.goto(`/quizzes/${id}/rehearse`)
  const frame = page.frameLocator('iframe')
  await page.getByText('Rehearsal · nothing here counts').waitFor()
  // As it opens; the clock is moved back, and nobody can start.
  await frame.getByRole('button', { name: 'Start now' }).waitFor()
  await page.getByRole('button', { name: 'now', exact: true }).click()
  await frame.getByText(/It opens/).waitFor()
  expect(await frame.getByRole('button', { name: 'Start now' }).count()).toBe(0)
  await page.getByRole('button', { name: 'next change →' }).click()
  await frame.getByRole('button', { name: 'Start now' }).click()
  await frame.getByText('Which bouy is red?').waitFor()

  // The connection goes; what is answered meanwhile arrives when it is back.
  await page.getByRole('button', { name: 'the connection goes' }).click()
  await frame.getByText('Option a').click()
  await frame.getByText(/Connection lost/).waitFor()
  await page.getByRole('button', { name: '10 minutes go by' }).click()
  await page.getByRole('button', { name: 'The connection is back' }).click()
  await frame.getByText(/All answers kept/).waitFor()

  // From a question straight to its editor and back to the same place; the mended one is there.
  await frame.getByRole('button', { name: 'open in the editor' }).first().click()
  await page.waitForURL((url) => url.pathname === `/bank/${mended}`)
  const stem = page
    .getByRole('textbox', { name: 'Question', exact: true })
    .or(page.locator('.ProseMirror').first())
    .first()
  await stem.click()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type('Which buoy is red?')
  await page.getByRole('button', { name: 'Keep as a new version' }).click()
  await page.getByText('Version 2 is kept.').waitFor()
  await page.getByRole('link', { name: 'Back to the rehearsal' }).click()
  await frame.getByText('Which buoy is red?').waitFor()
  expect(await frame.getByText('Which bouy is red?').count()).toBe(0)
  await frame.locator('input[type=radio]:checked').waitFor({ state: 'attached' })

  await page.getByRole('button', { name: 'right', exact: true }).click()
  await frame.getByText('3 of 3 answered').waitFor()
  await frame.getByRole('button', { name: 'Hand in…' }).click()
  await frame.getByRole('dialog').getByRole('button', { name: 'Hand in' }).click()
  await frame.getByText('of 3 · 100.0 %').waitFor()
  await page.getByRole('button', { name: 'beside another' }).click()
  await page.getByRole('menuitem').first().click()
  await expect.poll(() => page.locator('iframe').count()).toBe(2)
  expect(await db.rows('SELECT id FROM attempt WHERE quiz_id = ?', [id])).toEqual([])
  expect(await db.rows('SELECT id FROM record WHERE subject = ?', [id])).toEqual([])
  expect(faults).toEqual([])
})

it('is tried by a thousand simulated students', async () => {
  const { page, faults } = teacher
  await page.goto(`/quizzes/${id}/trial`)
  await page.getByRole('button', { name: 'Run' }).click()
  await page.getByText('1000 sittings of 1000').waitFor({ timeout: 60_000 })
  await page.getByText(/On average \d+ % of the\s+points/).waitFor()
  // It can be stopped in the middle.
  await page.getByLabel('Sittings').fill('100000')
  await page.getByRole('button', { name: 'Run' }).click()
  await page.getByRole('button', { name: 'Stop' }).click()
  await page.getByText(/, stopped/).waitFor()
  expect(faults).toEqual([])
})

it('is opened to one class first, and a student who gets more time is told by mail', async () => {
  const { page, faults } = teacher
  await page.goto(`/quizzes/${id}/rules`)
  await page.getByRole('button', { name: 'Open to classes…' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel(/Saturday morning/).click()
  await dialog.getByText(/held back: given later/).waitFor()
  await dialog.getByRole('button', { name: 'Open to all but Saturday morning' }).click()
  await page.getByText('The quiz is open to its classes by the rules.').waitFor()
  await page.getByText('It is held back from Saturday morning.').waitFor()
  await tellQuizzes(db, plus(now, minute), 100)

  await page.getByRole('button', { name: 'Time…' }).click()
  await dialog.getByLabel('For').selectOption('student')
  await dialog.getByLabel('Who').fill('Nell Ashdown')
  await dialog.getByRole('spinbutton', { name: 'Minutes more' }).fill('15')
  await dialog.getByRole('button', { name: 'See what it does' }).click()
  await page.getByText('45 minutes instead of 30 minutes').waitFor()
  await page.getByRole('button', { name: 'Change it' }).click()
  await expect.poll(async () => (await loadQuiz(db, id)).quiz.rules.needs.length).toBe(1)
  await tellQuizzes(db, plus(now, 2 * minute), 100)

  // Closing for one class: what it would do is shown, and left.
  await page.getByRole('button', { name: 'Time…' }).click()
  await dialog.getByLabel('For').selectOption({ label: 'Tuesday evening' })
  await dialog.getByLabel(/closed at once/).check()
  await dialog.getByRole('button', { name: 'See what it does' }).click()
  await dialog.getByText('Not started, and cannot any more').waitFor()
  await dialog.getByRole('button', { name: 'Leave it' }).click()

  // To the letters by the keyboard.
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find or do' }).fill('letters')
  await page
    .getByRole('option', { name: /Letters/ })
    .first()
    .waitFor()
  await page.keyboard.press('Enter')
  await page.waitForURL((url) => url.pathname === '/mail')
  await page.getByText('Other times for Rehearsed').first().waitFor()
  const letters = await db.rows<{ to_address: string }>(
    "SELECT to_address FROM mail WHERE subject = 'Other times for Rehearsed'",
  )
  expect(letters.map((row) => row.to_address)).toEqual(['nell.ashdown@gannet.example'])
  expect(await db.rows("SELECT id FROM mail WHERE subject = 'A quiz for you: Rehearsed'")).toHaveLength(14)
  await page.goto(`/quizzes/${id}/record`)
  await page.getByText('changed the rules').first().waitFor()
  await page.getByText('opened it, edition 1').waitFor()
  expect(faults).toEqual([])
})

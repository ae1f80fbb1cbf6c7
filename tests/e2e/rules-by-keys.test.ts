/** Every rule of a quiz set through the page without a mouse; and what was set is what is kept, and what a student reads. */
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { day, iso, minute, plus } from '../../core/kit/time'
import { editTo, newRow, newSection } from '../../core/quiz'
import { chapters, contentRules, quizRules, sentencesOf, type Chapter, type Reading, type Slot } from '../../core/rules'
import { blankWindow } from '../../core/rules/windows'
import type { Database } from '../../server/database/database'
import { audienceNames } from '../../server/domain/classes/classes'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { freshDatabase, person } from '../support/database'
import { startServer, type RunningServer } from '../support/server'

let db: Database
let server: RunningServer
let teacher: Visitor
let page: Page
const id = 'quiz-by-keys'
beforeAll(async () => {
  const now = iso(Date.now())
  const fresh = await freshDatabase('e2e_rules_keys', now)
  db = fresh.db
  const maren = await person(db, 'p-maren')
  await createQuiz(db, maren, 'Set by keys', now, id)
  const { quiz } = await loadQuiz(db, id)
  const row = (question: string) => newRow({ type: 'question', id: `r-${question}`, question, points: 1 })
  const window = blankWindow({
    id: 'w1',
    classes: ['c-tuesday'],
    opens: plus(now, -60 * minute),
    closes: plus(now, 2 * day),
  })
  const whole = {
    content: {
      ...quiz.content,
      intro: '<p>Read first.</p>',
      movement: 'section' as const,
      languages: ['en'],
      sections: [
        newSection({ id: 's1', title: 'Tides', order: 'kept', rows: [row('q-datum'), row('q-cover')] }),
        newSection({ id: 's2', title: 'Buoys', order: 'kept', rows: [row('q-clearing')] }),
      ],
    },
    rules: {
      ...quiz.rules,
      windows: [{ ...window, due: plus(now, day), latestStart: plus(now, day) }],
      limit: 45,
      atDeadline: 'handIn' as const,
      attempts: { ...quiz.rules.attempts, count: 3 },
      grade: { ...quiz.rules.grade, sections: [{ id: 'pass-s1', section: 's1', percent: 40 }] },
      working: { ...quiz.rules.working, check: true, hints: true },
      release: {
        ...quiz.rules.release,
        best: { ...quiz.rules.release.best, from: { at: 'everyoneDone' as const, offset: 0 } },
      },
    },
  }
  await makeEdit(db, maren, id, 0, 'keys.1', editTo(quiz, whole)!, now)
  await openQuiz(db, maren, id, now)
  server = await startServer(fresh.url)
  teacher = await visitor(server.address, 'Maren Holt')
  page = teacher.page
  await page.goto(`/quizzes/${id}/rules`)
  await page.getByRole('heading', { name: 'Who sits, and when' }).waitFor()
  await teacher.quiet()
})
afterAll(async () => {
  await closeBrowser()
  await server.stop()
  await db.close()
})

const isSlot = (piece: unknown): piece is Slot => typeof piece === 'object' && piece !== null && 'control' in piece
async function reading(): Promise<Reading> {
  const [{ quiz }, maren] = [await loadQuiz(db, id), await person(db, 'p-maren')]
  return { quiz, zone: maren.zone, names: await audienceNames(db, maren.school, []), scales: [] }
}
/** All values in sentences, in the order of the page. */
const slotsIn = (read: Reading): Slot[] =>
  (Object.keys(chapters) as Chapter[])
    .flatMap((chapter) => sentencesOf(chapter, read))
    .flatMap(({ pieces }) => pieces.filter(isSlot))
const button = (name: string) => page.getByRole('button', { name: `${name}: `, exact: false }).first()

/** Sets a control that is open to something else, by keys; what has the focus is where it begins. */
async function setByKeys(slot: Slot, isFirst: boolean): Promise<void> {
  const panel = page.locator('[id^=headlessui-popover-panel]')
  const { control } = slot
  switch (control.sort) {
    case 'choice': {
      const group = panel.getByRole('group', { name: slot.name, exact: true }).first()
      const all =
        isFirst && !(await group.count()) ? panel.locator('input[type=radio]') : group.locator('input[type=radio]')
      const checked = all.and(page.locator(':checked')).first()
      await ((await checked.count()) ? checked : all.first()).focus()
      await page.keyboard.press('ArrowDown')
      return
    }
    case 'minutes':
    case 'number': {
      const field = panel.getByLabel(slot.name, { exact: true }).first()
      const { min = 0, max, step = 1 } = control
      const next = typeof slot.value === 'number' && slot.value + step <= max ? slot.value + step : min + step
      await field.focus()
      await page.keyboard.press('Control+A')
      await page.keyboard.type(String(next))
      await page.keyboard.press('Enter')
      return
    }
    case 'text': {
      const field = panel.getByLabel(slot.name, { exact: true }).first()
      await field.focus()
      await page.keyboard.press('Control+A')
      await page.keyboard.type('Ebb tide')
      await page.keyboard.press('Enter')
      return
    }
    case 'instant': {
      const group = panel.getByLabel(slot.name, { exact: true })
      const field = (await group.count()) ? group.first() : panel.locator('input[type=datetime-local]').first()
      await field.focus()
      if (slot.value === null) {
        // Month, day, year, hour, minute, half of the day: as the browser parts it.
        for (const part of ['01', '02', '2031']) await page.keyboard.type(part)
        await page.keyboard.press('ArrowRight')
        for (const part of ['09', '30', 'AM']) await page.keyboard.type(part)
        await page.keyboard.press('Tab')
        return
      }
      // The last part of it: minutes.
      for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight')
      await page.keyboard.press('ArrowUp')
      await page.keyboard.press('Tab')
      return
    }
    case 'people': {
      await panel.locator('input[type=checkbox]:not(:checked)').first().focus()
      await page.keyboard.press('Space')
      return
    }
    case 'languages': {
      await panel.getByLabel('Code of another language').focus()
      await page.keyboard.type('nl')
      await page.keyboard.press('Enter')
    }
  }
}

/** Students have the quiz: what a change does to whom is said first, and waits for a yes. */
async function saidYes(before: string): Promise<void> {
  const yes = page.getByRole('button', { name: 'Change it' })
  await expect
    .poll(async () => (await yes.isVisible()) || JSON.stringify((await loadQuiz(db, id)).quiz) !== before, {
      message: 'it is asked, or done',
      timeout: 5000,
    })
    .toBe(true)
  if (!(await yes.isVisible())) return
  await yes.focus()
  await page.keyboard.press('Enter')
  await yes.waitFor({ state: 'hidden' })
}

it('every rule is set by keys, each value says so at once, and all of it is kept', async () => {
  const set = new Set<string>()
  const tried = new Set<string>()
  // One after another on the page as it stands then: some take others out of the sentences.
  for (let i = 0; i < 90; i++) {
    const slot = slotsIn(await reading()).find(({ path }) => !tried.has(path.join('/')))
    if (!slot) break
    tried.add(slot.path.join('/'))
    const parts = slot.also && slot.control.sort !== 'people' ? [slot, ...slot.also] : [slot]
    for (const part of parts) {
      // Of facets that are alike, one is enough for what stands beside the moment.
      if (part !== slot && set.has(`facet/${String(part.path.at(-1))}`)) continue
      const before = JSON.stringify((await loadQuiz(db, id)).quiz)
      await button(slot.name).focus()
      await page.keyboard.press('Enter')
      await page.locator('[id^=headlessui-popover-panel]').waitFor()
      await setByKeys(part, part === slot)
      await saidYes(before)
      await page.keyboard.press('Escape')
      await expect
        .poll(async () => JSON.stringify((await loadQuiz(db, id)).quiz) !== before, {
          message: `${slot.name} › ${part.name} is set`,
          timeout: 5000,
        })
        .toBe(true)
      set.add(part.path.slice(0, 2).join('/'))
      if (part.path[1] === 'release' && part !== slot) set.add(`facet/${String(part.path.at(-1))}`)
    }
  }
  const missing = [
    ...Object.keys(quizRules).map((name) => `rules/${name}`),
    ...Object.keys(contentRules).map((name) => `content/${name}`),
  ].filter((path) => !set.has(path))
  // Needs, the link and what is held back are added by buttons of their own, and set where they are tested.
  expect(missing).toEqual(['rules/link', 'rules/heldBack', 'rules/needs'])
  await teacher.quiet()
  for (const slot of slotsIn(await reading()))
    expect(
      await page.locator(`[aria-label=${JSON.stringify(`${slot.name}: ${slot.words}`)}]`).count(),
      slot.name,
    ).toBeGreaterThan(0)
  expect(teacher.faults).toEqual([])
}, 120_000)

/** What teachers do in the bank every day: many at once, searches kept, versions, plain text, look-alikes, sharing. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import type { Database } from '../../server/database/database'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { freshDatabase } from '../support/database'
import { startServer, type RunningServer } from '../support/server'

let db: Database
let server: RunningServer
let teacher: Visitor
beforeAll(async () => {
  const fresh = await freshDatabase('e2e_daily', iso(Date.now()))
  db = fresh.db
  server = await startServer(fresh.url)
  teacher = await visitor(server.address, 'Maren Holt')
})
afterAll(async () => {
  await closeBrowser()
  await server.stop()
  await db.close()
})

const find = async (words: string) => {
  await teacher.page.goto('/bank')
  const asked = `words=${encodeURIComponent(words)}`
  await Promise.all([
    teacher.page.waitForResponse((reply) => reply.url().replaceAll('+', '%20').includes(asked)),
    teacher.page.getByRole('searchbox', { name: 'Search words' }).fill(words),
  ])
}
const found = (n: number) =>
  teacher.page
    .getByRole('status')
    .getByText(n === 1 ? '1 question' : `${n} questions`, { exact: true })
    .waitFor()
const write = async (stem: string) => {
  await teacher.page.goto('/bank/new?kind=trueFalse')
  await teacher.page.getByRole('textbox', { name: 'Question', exact: true }).fill(stem)
  await teacher.page.getByRole('button', { name: 'Keep in the bank' }).click()
  await teacher.page.waitForURL(/\/bank\/[a-z0-9]{14}$/)
  await teacher.page.getByText('version 1').first().waitFor()
  return teacher.page.url().split('/').at(-1)!
}
const tagsOf = async (tag: string) =>
  (await db.rows('SELECT question_id FROM question_tag WHERE tag = ?', [tag])).length

describe('many at once', () => {
  it('chosen with Shift, tagged and moved by keyboard alone, and taken back', async () => {
    const { page } = teacher
    await find('twelfths')
    const boxes = page.getByRole('checkbox', { name: /^Choose: / })
    await boxes.nth(3).waitFor()
    await boxes.nth(0).click()
    await boxes.nth(3).click({ modifiers: ['Shift'] })
    const bar = page.getByRole('region', { name: 'Change what is chosen' })
    await bar.getByText('4 chosen').waitFor()
    await bar.getByLabel('Tag').fill('check me')
    await bar.getByRole('button', { name: 'Add tag' }).press('Enter')
    await page.getByText('Tagged “check me”: 4 questions.').waitFor()
    expect(await tagsOf('check me')).toBe(4)
    await page.getByRole('button', { name: 'Undo' }).click()
    await page.getByText('Taken back: 4.').waitFor()
    expect(await tagsOf('check me')).toBe(0)
    await boxes.nth(0).click()
    // A menu waits for Enter: walking through it changes nothing.
    await bar.getByRole('button', { name: 'Move to' }).press('Enter')
    await page.getByRole('menuitem', { name: 'no folder' }).waitFor()
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('ArrowDown')
    expect(await page.getByText(/^Moved/).count()).toBe(0)
    await page.keyboard.type('Safety')
    await page.keyboard.press('Enter')
    await page.getByText('Moved: 1 question.').waitFor()
    await page.getByRole('button', { name: 'Undo' }).click()
    await page.getByText('Taken back: 1.').waitFor()
    expect(teacher.faults).toEqual([])
  })
})

describe('a search', () => {
  it('is kept under a name, taken up again, and let go with a way back', async () => {
    const { page } = teacher
    await find('tide')
    await page.getByRole('button', { name: '+ filter' }).click()
    await page.getByRole('checkbox', { name: /^Number \d/ }).check()
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Save this search' }).click()
    await page.getByLabel('Name of the search').fill('Numbers of tides')
    await page.getByRole('button', { name: 'Keep', exact: true }).click()
    await page.getByRole('button', { name: 'Numbers of tides', exact: true }).waitFor()
    const words = await page.getByRole('status').first().innerText()
    await page.getByRole('button', { name: 'Clear', exact: true }).click()
    await page.getByRole('button', { name: 'Numbers of tides', exact: true }).click()
    await expect.poll(() => page.getByRole('searchbox', { name: 'Search words' }).inputValue()).toBe('tide')
    await page.getByText(words, { exact: true }).waitFor()
    await page.getByRole('button', { name: 'Do not keep the search Numbers of tides' }).click()
    await page.getByText('“Numbers of tides” is no longer kept.').waitFor()
    await page.getByRole('button', { name: 'Undo' }).click()
    await page.getByRole('button', { name: 'Numbers of tides', exact: true }).waitFor()
    expect(teacher.faults).toEqual([])
  })
})

describe('versions', () => {
  it('say what differs word by word, and an old one is kept anew', async () => {
    const { page } = teacher
    const id = await write('The flood runs north.')
    const stem = page.getByRole('textbox', { name: 'Question', exact: true })
    await stem.fill('The flood runs south at springs.')
    await page.getByRole('button', { name: 'Keep as a new version' }).click()
    await page.getByText('Version 2 is kept.').waitFor()
    await page.getByText('2 versions').click()
    await page.getByRole('button', { name: 'What differs' }).click()
    await page.getByText('From version 1 to 2').waitFor()
    await page.locator('del, ins').first().waitFor()
    expect(await page.locator('del').allInnerTexts()).toContain('north')
    await page.getByRole('button', { name: 'Take it up' }).last().click()
    await expect.poll(() => stem.innerText()).toBe('The flood runs north.')
    await page.getByRole('button', { name: 'Keep as a new version' }).click()
    await page.getByText('Version 3 is kept.').waitFor()
    const { body } = (await db.one<{ body: string }>(
      'SELECT body FROM question_version WHERE question_id = ? AND version = 3',
      [id],
    ))!
    expect(body).toContain('The flood runs north.')
    expect(teacher.faults).toEqual([])
  })
  it('two who change one question: the second is told, and loses nothing', async () => {
    const id = await write('Neaps follow the half moon.')
    const colleague = await visitor(server.address, 'Idris Quayle')
    await colleague.page.goto(`/bank/${id}`)
    const theirs = colleague.page.getByRole('textbox', { name: 'Question', exact: true })
    await theirs.fill('Neaps follow the half moon by two days.')
    const { page } = teacher
    await page.getByRole('textbox', { name: 'Question', exact: true }).fill('Neaps come after the half moon.')
    await page.getByRole('button', { name: 'Keep as a new version' }).click()
    await page.getByText('Version 2 is kept.').waitFor()
    await colleague.page.getByRole('button', { name: 'Keep as a new version' }).click()
    await colleague.page.getByText(/Maren Holt has made version 2 since you opened this question/).waitFor()
    expect(await theirs.innerText()).toBe('Neaps follow the half moon by two days.')
    await colleague.context.close()
  })
})

describe('plain text', () => {
  it('is shown as questions while it is typed, with its faults at their place; comes in and goes back', async () => {
    const { page } = teacher
    await page.goto('/bank/paste')
    const text = '# Ropes\n\nWhich knot joins two ropes?\n\n= sheet bend | bend\n\n---\n\nOnly words.\n'
    await page.getByLabel('Questions in Markdown').fill(text)
    const seen = page.getByRole('region', { name: 'As questions' })
    await seen.getByText('Which knot joins two ropes?').waitFor()
    await seen.getByText(/question 2, line/).waitFor()
    await page.getByRole('button', { name: 'Bring in 1 question …' }).click()
    await page.getByRole('button', { name: 'Bring in 1 question', exact: true }).click()
    await page.getByText('1 question is in the bank.').first().waitFor()
    await find('knot joins')
    await found(1)
    await page.goto('/bank/paste')
    await page.reload()
    expect(await page.getByLabel('Questions in Markdown').inputValue()).toBe(text)
    expect(teacher.faults).toEqual([])
  })
})

describe('look-alikes', () => {
  it('are shown together; one is retired, and brought back', async () => {
    const { page } = teacher
    await write('A cable of 185 metres is a tenth of a mile.')
    await write('A cable of 190 metres is a tenth of a mile.')
    await page.goto('/bank/near')
    await page.getByRole('button', { name: 'Retire: A cable of 190 metres is a tenth of a mile.' }).click()
    await page.getByText('None found').waitFor()
    await page.getByRole('button', { name: 'Undo' }).click()
    await page.getByRole('button', { name: 'Retire: A cable of 190 metres is a tenth of a mile.' }).waitFor()
    expect(teacher.faults).toEqual([])
  })
})

describe('sharing', () => {
  it('a private question is nobody else’s; shared for reading it can be read and not changed', async () => {
    const { page } = teacher
    const id = await write('The lifebuoy has a light of its own.')
    await page.getByLabel('Seen by').selectOption('private')
    await page.getByText('Who may see it is set.').waitFor()
    const colleague = await visitor(server.address, 'Idris Quayle')
    await colleague.page.goto('/bank')
    await colleague.page.getByRole('searchbox', { name: 'Search words' }).fill('lifebuoy light own')
    await colleague.page.getByText('Nothing found').waitFor()
    await page.getByLabel('Seen by').selectOption('named')
    await page.getByLabel('E-mail of a colleague').fill('idris.quayle@gannet.example')
    await page.getByRole('button', { name: 'Share', exact: true }).click()
    await page.getByText('Idris Quayle (reads)').waitFor()
    await colleague.page.goto(`/bank/${id}`)
    await colleague.page.getByText('This question is shared with you for reading.').waitFor()
    expect(await colleague.page.getByRole('button', { name: 'Keep as a new version' }).isDisabled()).toBe(true)
    expect([...teacher.faults, ...colleague.faults.filter((fault) => !/404/.test(fault))]).toEqual([])
    await colleague.context.close()
  })
})

describe('recording', () => {
  it('sound and film go from microphone and camera into a question, and are kept as what they are', async () => {
    const { page } = teacher
    await page.goto('/bank/new?kind=trueFalse')
    await page
      .getByRole('textbox', { name: 'Question', exact: true })
      .fill('This is the sound signal of a vessel at anchor.')
    const tool = page
      .getByRole('toolbar', { name: 'Tools for Question', exact: true })
      .getByRole('button', { name: 'Record sound or film' })
    const dialog = page.getByRole('dialog')
    for (const what of ['sound', 'film']) {
      await tool.click()
      await dialog.getByRole('button', { name: `Record ${what}` }).click()
      await dialog.getByText(/Recording … [1-9]/).waitFor()
      await dialog.getByRole('button', { name: 'Stop recording' }).click()
      await dialog.getByLabel('What was recorded').waitFor()
      await dialog.getByRole('button', { name: 'Take it' }).click()
      await dialog.getByLabel('What it shows').fill(`A bell, as ${what}`)
      await dialog.getByLabel('May be played').selectOption('2')
      await dialog.getByRole('button', { name: 'Put it in' }).click()
      await dialog.waitFor({ state: 'detached' })
    }
    const preview = page.getByRole('region', { name: 'As a student sees it' })
    await preview.getByRole('button', { name: 'Play A bell, as sound (2 times left)' }).waitFor()
    await preview.getByRole('button', { name: 'Play A bell, as film (2 times left)' }).click()
    await preview
      .getByText(/Playing|1 time left/)
      .first()
      .waitFor()
    await page.getByRole('button', { name: 'Keep in the bank' }).click()
    await page.getByText('version 1').first().waitFor()
    const kept = await db.rows<{ type: string }>(
      "SELECT type FROM media WHERE type LIKE '%webm' OR type LIKE '%mp4' OR type LIKE '%ogg'",
    )
    expect(kept.map((each) => each.type.split('/')[0]).sort()).toEqual(['audio', 'video'])
    expect(teacher.faults).toEqual([])
  })
})

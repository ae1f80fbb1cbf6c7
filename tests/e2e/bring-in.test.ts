/** Files of others, from choosing one to the bank: what is proven, what differs, what is not understood, and where. */
import axe from 'axe-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import { writeSheet } from '../../formats/sheet/write'
import { zip } from '../../formats/zip'
import type { Database } from '../../server/database/database'
import { sampleQuestion } from '../fixtures/core'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { freshDatabase } from '../support/database'
import { docx, entry, paragraph, run } from '../support/docx'
import {
  choices,
  choosing,
  correct,
  declare,
  itemXml,
  rules,
  score,
  set,
  template,
  variable,
  when,
} from '../support/qti'
import { startServer, type RunningServer } from '../support/server'

let db: Database
let server: RunningServer
let teacher: Visitor
beforeAll(async () => {
  const fresh = await freshDatabase('e2e_bring_in', iso(Date.now()))
  db = fresh.db
  server = await startServer(fresh.url)
  teacher = await visitor(server.address, 'Maren Holt')
})
afterAll(async () => {
  await closeBrowser()
  await server.stop()
  await db.close()
})

const bring = async (name: string, bytes: Uint8Array) => {
  await teacher.page.goto('/bank/import')
  await teacher.page
    .getByLabel('Choose a file')
    .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(bytes) })
}
const line = (title: string) => teacher.page.getByRole('listitem').filter({ hasText: title })
const axeFinds = async () => {
  await teacher.page.evaluate(axe.source)
  return teacher.page.evaluate(async () => {
    const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(document)
    return violations.map(({ id, nodes }) => `${id}: ${nodes[0]!.html.slice(0, 120)}`)
  })
}
const known = async (stem: string) =>
  (await db.rows('SELECT 1 FROM question_version WHERE body LIKE ?', [`%${stem}%`])).length

describe('a package of somebody else', () => {
  const item = (id: string, words: string, processing: string) =>
    itemXml(
      declare('single', 'identifier', correct('A')),
      choosing(choices({ A: 'red', B: 'green', C: 'white' }), 1, `<prompt>${words}</prompt>`),
      processing,
    ).replace('identifier="i"', `identifier="${id}"`)
  const packed = zip(
    new Map(
      [
        item('one', 'Which light is to port?', template('match_correct')),
        item(
          'two',
          'Which light is astern?',
          rules(
            when(
              [`<isNull>${variable()}</isNull>`, score(-1)],
              [`<match>${variable()}<correct identifier="RESPONSE"/></match>`, score(2)],
            ),
          ),
        ),
        item(
          'three',
          'Which light is to starboard?',
          rules(set(`<customOperator class="x.y">${variable()}</customOperator>`)),
        ),
      ].map((xml, i) => [`item-${i}.xml`, new TextEncoder().encode(xml)] as const),
    ),
  )
  it('counts what is proven, tells what differs by an example, and takes it only when it is ticked', async () => {
    const { page } = teacher
    await bring('lights.zip', packed)
    const first = page.getByText('Scored both ways').locator('..')
    await first.getByRole('button').first().waitFor()
    expect(await first.getByRole('button').allInnerTexts()).toEqual(['1 proven', '1 differs', '1 not proven'])
    expect(await axeFinds()).toEqual([])
    await first.getByRole('button', { name: '1 differs' }).click()
    await line('Which light is astern?')
      .getByText('Where nothing is answered the file gives −1; here it earns 0.')
      .waitFor()
    expect(await page.getByText('Which light is to port?').count()).toBe(0)
    await first.getByRole('button', { name: '1 differs' }).click()
    await line('Which light is to starboard?')
      .getByText(/Whether it is scored as in the file is not known/)
      .waitFor()
    const ticks = await page.getByRole('checkbox', { name: /^Take/ }).all()
    expect(await Promise.all(ticks.map((each) => each.isChecked()))).toEqual([true, false, false])
    await page.getByText('2 wait for you to decide').waitFor()
    await page.getByRole('checkbox', { name: 'Take Which light is astern?' }).check()
    await page.getByRole('button', { name: 'Bring in 2 questions' }).click()
    await page.getByText('2 questions are in the bank.').first().waitFor()
    expect([await known('light is astern'), await known('light is to starboard')]).toEqual([1, 0])
    expect(teacher.faults).toEqual([])
  })
})

describe('a spreadsheet', () => {
  it('with faults says them at their cells; the rest of it comes', async () => {
    const { page } = teacher
    const good = sampleQuestion('choice', { stem: '<p>Which mark is yellow over black?</p>' })
    const broken = sampleQuestion('number', { stem: '<p>How long is a cable?</p>' })
    const bytes = writeSheet(
      [good, broken].map((question, i) => ({
        question:
          question.kind === 'number'
            ? ({
                ...question,
                body: { ...question.body, answers: [{ ...question.body.answers[0]!, value: '1,852' }] },
              } as never)
            : question,
        folder: [`Marks ${i}`],
        objectives: [],
      })),
      'xlsx',
    )
    await bring('marks.xlsx', bytes)
    await page.getByText(/^Cell C3: “1,852” can be read in two ways/).waitFor()
    expect(await page.getByRole('checkbox', { name: 'Take row 3' }).isDisabled()).toBe(true)
    await page.getByRole('button', { name: 'Bring in 1 question' }).click()
    await page.getByText('1 question is in the bank.').first().waitFor()
    await page.getByRole('button', { name: 'Take all of it back' }).click()
    await page.getByText(/^Taken back/).waitFor()
    expect(await known('yellow over black')).toBe(0)
    expect(teacher.faults).toEqual([])
  })
})

describe('a document', () => {
  it('comes in by what is bold in it', async () => {
    const { page } = teacher
    await bring(
      'knots.docx',
      docx(
        paragraph(run('Which knot joins two ropes?')) + entry(run('sheet bend', true), 1) + entry(run('bowline'), 1),
      ),
    )
    await line('Which knot joins two ropes?').getByText('Key sheet bend').waitFor()
    await page.getByRole('button', { name: 'Bring in 1 question' }).click()
    await page.getByText('1 question is in the bank.').first().waitFor()
    expect(teacher.faults).toEqual([])
  })
  it('is pasted where somebody types, and stands where they are by then', async () => {
    const { page } = teacher
    await page.goto('/bank/paste')
    const field = page.getByLabel('Questions in Markdown')
    await field.fill('')
    let release = () => {}
    const held = new Promise<void>((done) => {
      release = done
    })
    await page.route('**/api/imports/pasted', async (route) => {
      await held
      await route.continue()
    })
    await field.evaluate((element) => {
      const data = new DataTransfer()
      data.setData(
        'text/html',
        '<p>Which knot is a stopper?</p><ul><li><b>figure of eight</b></li><li>clove hitch</li></ul><p>Only words.</p>',
      )
      data.setData('text/plain', 'Which knot is a stopper?')
      element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
    })
    await field.pressSequentially('# Knots\n\n')
    release()
    const looked = page.getByRole('region', { name: 'As questions' })
    await looked.getByText('figure of eight').first().waitFor()
    expect(await field.inputValue()).toMatch(/^# Knots\n\nWhich knot is a stopper\?\n\n- \[x\] figure of eight/)
    await page.getByText(/Of what was pasted, this could not be understood/).waitFor()
    await page.unroute('**/api/imports/pasted')
    // Without a connection it stands as plain words, and that is told.
    await page.route('**/api/imports/pasted', (route) => route.abort())
    await field.fill('')
    await field.evaluate((element) => {
      const data = new DataTransfer()
      data.setData('text/html', '<ul><li><b>one</b></li></ul>')
      data.setData('text/plain', 'one')
      element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
    })
    await expect.poll(() => field.inputValue()).toBe('one')
    // Looking at the text, which works, does not take that back.
    await looked.getByText('not understood').waitFor()
    expect(await page.getByText(/^It stands as plain words\. .{10,}/).count()).toBe(1)
    await page.unroute('**/api/imports/pasted')
    teacher.faults.length = 0
  })
})

describe('a file of another sort', () => {
  it.each([
    ['a PDF', 'quiz.pdf', '%PDF-1.7 …', /This is a PDF/],
    ['a picture', 'quiz.png', '\u0089PNG', /This is a picture/],
    ['nothing', 'quiz.csv', '', /This file is empty/],
  ])('%s is named, with what to do', async (_name, name, text, sentence) => {
    await bring(
      name,
      Uint8Array.from(text, (sign) => sign.charCodeAt(0)),
    )
    await teacher.page.getByRole('alert').filter({ hasText: sentence }).waitFor()
    teacher.faults.length = 0
  })
})

describe('a download', () => {
  it('lists before what a reader will not see, and is a file after', async () => {
    const { page } = teacher
    await page.goto('/bank')
    await page
      .getByRole('checkbox', { name: /^Choose/ })
      .first()
      .waitFor()
    for (const each of await page.getByRole('checkbox', { name: /^Choose/ }).all()) await each.check()
    await page.getByRole('button', { name: 'Download as' }).click()
    await page.getByRole('menuitem', { name: /CSV/ }).click()
    const dialog = page.getByRole('dialog', { name: /What will not be in/ })
    await dialog.getByText('Such a file has no place for this').waitFor()
    expect(await axeFinds()).toEqual([])
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      dialog.getByRole('button', { name: 'Download it' }).click(),
    ])
    expect(file.suggestedFilename()).toBe('questions.csv')
    await dialog.waitFor({ state: 'detached' })
    expect(teacher.faults).toEqual([])
  })
})

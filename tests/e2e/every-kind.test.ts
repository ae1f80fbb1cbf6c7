/** One question of every kind, written from nothing and answered right, wrong and partly; then all of them sat on a phone and marked. */
import { join } from 'node:path'
import type { Locator, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { iso } from '../../core/kit/time'
import { addRows, addTo, setAt, together, type Pages } from '../../core/quiz'
import type { Database } from '../../server/database/database'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { freshDatabase, person } from '../support/database'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { startServer, type RunningServer } from '../support/server'

let db: Database
let server: RunningServer
let teacher: Visitor

beforeAll(async () => {
  const fresh = await freshDatabase('e2e_kinds', iso(Date.now()))
  db = fresh.db
  server = await startServer(fresh.url)
  teacher = await visitor(server.address, 'Maren Holt')
})
afterAll(async () => {
  await closeBrowser()
  await server.stop()
  await db.close()
})

const verdicts = {
  right: '✓ right',
  partly: '± partly right',
  wrong: '✗ not right',
  waits: '… waits for a mark by hand',
}
interface Answer {
  verdict: keyof typeof verdicts
  give: (preview: Locator, page: Page) => Promise<unknown>
}
interface Case {
  kind: string
  write: (page: Page) => Promise<unknown>
  answers: Answer[]
  /** What is tried where a preview keeps no answer. */
  try?: (preview: Locator) => Promise<unknown>
}

const box = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true })
const stem = (page: Page, words: string) => box(page, 'Question').fill(words)
const options = async (page: Page, ...words: string[]) => {
  for (const [i, each] of words.entries()) await box(page, `Option ${'ABCD'[i]}`).fill(each)
}
const option = (words: string) => (preview: Locator) => preview.getByText(words, { exact: true }).click()
const typed = (words: string) => (preview: Locator) => preview.getByRole('textbox').fill(words)
/** By keyboard alone: pick a thing, then its place. */
const pair = async (preview: Locator, thing: string, place: string) => {
  await preview.getByRole('button', { name: thing, exact: true }).press('Enter')
  await preview.getByRole('button', { name: `Put ${thing} to ${place}` }).press('Enter')
}
const at = (x: number, y: number) => async (preview: Locator) => {
  const picture = preview.getByRole('application')
  const size = (await picture.boundingBox())!
  await picture.click({ position: { x: size.width * x, y: size.height * y } })
}

/** Some beeps of the browser's own. */
async function record(field: Locator): Promise<void> {
  await field.getByRole('button', { name: 'Record an answer' }).click()
  await field.getByText(/Recording … [1-9]/).waitFor()
  await field.getByRole('button', { name: 'Stop recording' }).click()
}

const cases: Case[] = [
  {
    kind: 'choice',
    write: async (page) => {
      await stem(page, 'Which?')
      await options(page, 'Ebb', 'Flood', 'Slack', 'Stand')
      await page.getByRole('spinbutton').nth(1).fill('0.5')
      await page.getByRole('spinbutton').nth(1).blur()
    },
    answers: [
      { verdict: 'right', give: option('Ebb') },
      { verdict: 'partly', give: option('Flood') },
      { verdict: 'wrong', give: option('Slack') },
    ],
  },
  {
    kind: 'choices',
    write: async (page) => {
      await stem(page, 'Which ones?')
      await options(page, 'One', 'Two', 'Three', 'Four')
    },
    answers: [
      { verdict: 'partly', give: option('One') },
      { verdict: 'right', give: option('Two') },
      {
        verdict: 'wrong',
        give: async (preview) => {
          await option('Three')(preview)
          await option('Four')(preview)
        },
      },
    ],
  },
  {
    kind: 'trueFalse',
    write: (page) => stem(page, 'It is so.'),
    answers: [
      { verdict: 'right', give: option('True') },
      { verdict: 'wrong', give: option('False') },
    ],
  },
  {
    kind: 'yesNo',
    write: (page) => stem(page, 'Is it so?'),
    answers: [
      { verdict: 'right', give: option('Yes') },
      { verdict: 'wrong', give: option('No') },
    ],
  },
  {
    kind: 'number',
    write: async (page) => {
      await stem(page, 'How much?')
      await box(page, 'Number').fill('3.9')
      await page.getByLabel('Tolerance').fill('0.1')
      await page.getByLabel('Unit', { exact: true }).fill('m')
      await page.getByRole('button', { name: 'Accept another number' }).click()
      await box(page, 'Number').nth(1).fill('5')
    },
    answers: [
      { verdict: 'right', give: typed('3,8') },
      { verdict: 'partly', give: typed('5') },
      { verdict: 'wrong', give: typed('7') },
    ],
  },
  {
    kind: 'text',
    write: async (page) => {
      await stem(page, 'What?')
      await page.getByLabel('Text', { exact: true }).first().fill('leeway')
      await page.getByLabel('Slips allowed').selectOption('1')
      await page.getByRole('button', { name: 'Accept another answer' }).click()
      await page.getByLabel('The answer').nth(1).selectOption('matches')
      await page.getByLabel('Text', { exact: true }).nth(1).fill('drift(ing)?')
      await page.getByLabel('earns').nth(1).fill('0.5')
    },
    answers: [
      { verdict: 'right', give: typed('Leewya') },
      { verdict: 'partly', give: typed('drifting') },
      { verdict: 'wrong', give: typed('set') },
    ],
  },
  {
    kind: 'gaps',
    write: async (page) => {
      const text = box(page, 'Text with gaps')
      await text.click()
      await page.keyboard.type('Springs and neaps')
      for (const steps of [0, 12]) {
        // The editor takes the focus back a moment after a tool was used: marked once more where that came in between.
        const marked = async () => {
          await text.focus()
          await page.keyboard.press('Home')
          for (let i = 0; i < steps; i++) await page.keyboard.press('ArrowRight')
          await page.keyboard.press('Shift+Control+ArrowRight')
          return page.evaluate(() => document.getSelection()!.toString().trim())
        }
        await expect.poll(marked, { timeout: 10_000, interval: 300 }).toBe(steps ? 'neaps' : 'Springs')
        await page.waitForFunction(() => {
          const fields = [...document.querySelectorAll<HTMLElement>('.ProseMirror')]
          const field = fields.find((each) => each.ariaLabel === 'Text with gaps') as unknown as {
            editor: { state: { selection: { empty: boolean } } }
          }
          return !field.editor.state.selection.empty
        })
        await page.getByRole('button', { name: 'Gap', exact: true }).click()
        await page.getByRole('button', { name: 'No gap' }).waitFor()
      }
      await page.getByText('Gap 2').first().waitFor()
    },
    answers: [
      { verdict: 'partly', give: (preview) => preview.getByLabel('Gap 1').fill('springs') },
      { verdict: 'right', give: (preview) => preview.getByLabel('Gap 2').fill('neaps') },
      {
        verdict: 'wrong',
        give: async (preview) => {
          await preview.getByLabel('Gap 1').fill('x')
          await preview.getByLabel('Gap 2').fill('y')
        },
      },
    ],
  },
  {
    kind: 'matching',
    write: async (page) => {
      await stem(page, 'What goes with what?')
      for (const [i, [left, right]] of [
        ['Port', 'red'],
        ['Starboard', 'green'],
        ['Stern', 'white'],
      ].entries()) {
        await box(page, `Left entry ${i + 1}`).fill(left!)
        await box(page, `Partner ${i + 1}`).fill(right!)
      }
    },
    answers: [
      { verdict: 'partly', give: (preview) => pair(preview, 'red', 'Port') },
      {
        verdict: 'right',
        give: async (preview) => {
          await pair(preview, 'green', 'Starboard')
          await pair(preview, 'white', 'Stern')
        },
      },
      {
        verdict: 'wrong',
        give: async (preview) => {
          await pair(preview, 'green', 'Stern')
          await pair(preview, 'white', 'Port')
          await pair(preview, 'red', 'Starboard')
        },
      },
    ],
  },
  {
    kind: 'sorting',
    write: async (page) => {
      await stem(page, 'Sort.')
      await box(page, 'Group 1').fill('Fish')
      await box(page, 'Group 2').fill('Birds')
      for (const [i, words] of ['cod', 'eel', 'gull', 'tern'].entries()) await box(page, `Thing ${i + 1}`).fill(words)
      // A gull among the fish is half right; anything else that is wrong takes half of a right one away.
      await page.getByLabel('It earns').selectOption('what each of its pairs adds')
      await page.getByLabel('gull – Fish adds').fill('0.5')
      await page.getByLabel('an empty box takes away').fill('0.5')
      await page.getByLabel('an empty box takes away').blur()
      await page.getByText('Right ones add 4 together; 4 is worth all of the points.').waitFor()
    },
    answers: [
      { verdict: 'partly', give: (preview) => pair(preview, 'gull', 'Fish') },
      {
        verdict: 'right',
        give: async (preview) => {
          await pair(preview, 'cod', 'Fish')
          await pair(preview, 'eel', 'Fish')
          await pair(preview, 'gull', 'Birds')
          await pair(preview, 'tern', 'Birds')
        },
      },
      {
        verdict: 'wrong',
        give: async (preview) => {
          for (const [thing, group] of [
            ['cod', 'Birds'],
            ['eel', 'Birds'],
            ['gull', 'Fish'],
            ['tern', 'Fish'],
          ])
            await pair(preview, thing!, group!)
        },
      },
    ],
  },
  {
    kind: 'grid',
    write: async (page) => {
      await stem(page, 'Tick.')
      for (const [i, words] of ['red', 'white'].entries()) await box(page, `Column ${i + 1}`).fill(words)
      for (const [i, words] of ['port', 'stern', 'tug'].entries()) await box(page, `Row ${i + 1}`).fill(words)
      await page.getByRole('checkbox', { name: 'red', exact: true }).nth(0).check()
      await page.getByRole('checkbox', { name: 'white', exact: true }).nth(1).check()
      await page.getByRole('checkbox', { name: 'white', exact: true }).nth(2).check()
      await page.getByRole('checkbox', { name: 'red', exact: true }).nth(2).check()
    },
    answers: [
      { verdict: 'partly', give: (preview) => preview.getByRole('checkbox', { name: 'port: red' }).press('Space') },
      {
        verdict: 'right',
        give: async (preview) => {
          for (const name of ['stern: white', 'tug: white', 'tug: red'])
            await preview.getByRole('checkbox', { name }).check()
        },
      },
      {
        verdict: 'wrong',
        give: async (preview) => {
          for (const name of ['port: red', 'tug: red', 'tug: white', 'stern: white'])
            await preview.getByRole('checkbox', { name }).uncheck()
          await preview.getByRole('checkbox', { name: 'port: white' }).check()
        },
      },
    ],
  },
  {
    kind: 'ordering',
    write: async (page) => {
      await stem(page, 'Order.')
      for (const [i, words] of ['one', 'two', 'three', 'four'].entries()) await box(page, `Line ${i + 1}`).fill(words)
    },
    answers: [
      { verdict: 'right', give: (preview) => arrange(preview, ['one', 'two', 'three', 'four']) },
      { verdict: 'partly', give: (preview) => arrange(preview, ['two', 'one', 'three', 'four']) },
      { verdict: 'wrong', give: (preview) => arrange(preview, ['four', 'three', 'two', 'one']) },
    ],
  },
  {
    kind: 'spot',
    write: async (page) => {
      await stem(page, 'Where?')
      await page
        .getByLabel('Choose a picture')
        .setInputFiles(join(import.meta.dirname, '..', '..', 'demo', 'pictures', 'inlet.png'))
      await page.getByLabel('What it shows, without giving the answer away').fill('A small chart')
      const picture = page.locator('svg.cursor-crosshair')
      await picture.scrollIntoViewIfNeeded()
      for (const [x, y] of [
        [0.25, 0.375],
        [0.75, 0.375],
      ]) {
        const size = (await picture.boundingBox())!
        await page.mouse.move(size.x + size.width * x!, size.y + size.height * y!)
        await page.mouse.down()
        await page.mouse.move(size.x + size.width * (x! + 0.06), size.y + size.height * y!, { steps: 4 })
        await page.mouse.up()
      }
      await page.getByLabel('2 is right').waitFor()
      await page.getByLabel('Places asked for').fill('2')
      await page.getByText('Mark 2 places on the picture').waitFor()
    },
    answers: [
      { verdict: 'partly', give: at(0.25, 0.375) },
      { verdict: 'right', give: at(0.75, 0.375) },
      {
        verdict: 'wrong',
        give: async (preview) => {
          await preview.getByRole('button', { name: 'Take mark 1 away' }).click()
          await preview.getByRole('button', { name: 'Take mark 1 away' }).click()
          await preview.getByRole('application').press('ArrowDown')
          await preview.getByRole('application').press('Enter')
        },
      },
    ],
  },
  {
    kind: 'written',
    write: async (page) => {
      await stem(page, 'Why?')
      await page.getByRole('button', { name: 'Add a line to the rubric' }).click()
    },
    answers: [{ verdict: 'waits', give: typed('Because.') }],
  },
  {
    kind: 'short',
    write: (page) => stem(page, 'Name one.'),
    answers: [{ verdict: 'waits', give: typed('An anchor') }],
  },
  {
    kind: 'recording',
    write: (page) => stem(page, 'Say it.'),
    answers: [],
    try: async (preview) => {
      await record(preview)
      await preview.getByText('This is a preview: the recording is not kept.').waitFor()
      await preview.getByLabel('Your recording').waitFor()
    },
  },
]

/** By the arrow keys with Alt: each line is taken to its place from the top down. */
async function arrange(preview: Locator, wanted: string[]): Promise<void> {
  for (const words of wanted) await preview.getByRole('listitem').filter({ hasText: words }).waitFor()
  for (const [place, words] of wanted.entries()) {
    const lines = (await preview.getByRole('listitem').allInnerTexts()).map((line) =>
      wanted.find((each) => line.includes(each)),
    )
    for (let i = lines.indexOf(words); i > place; i--) {
      await preview.getByRole('listitem').nth(i).press('Alt+ArrowUp')
      await preview.getByLabel(`${i}: ${words}`, { exact: true }).waitFor()
    }
  }
  if (await preview.getByRole('button', { name: 'take this order as it stands' }).isVisible())
    await preview.getByRole('button', { name: 'take this order as it stands' }).click()
}

describe('written from nothing, and tried', () => {
  it.each(cases)('$kind', async ({ kind, write, answers, try: attempt }) => {
    const { page, faults } = teacher
    await page.goto(`/bank/new?kind=${kind}`)
    await write(page)
    const preview = page.getByRole('region', { name: 'As a student sees it' })
    for (const { verdict, give } of answers) {
      await preview.scrollIntoViewIfNeeded()
      await give(preview, page)
      await preview.getByText(verdicts[verdict]).waitFor()
    }
    await attempt?.(preview)
    await page.getByRole('button', { name: 'Keep in the bank' }).click()
    await page.waitForURL(/\/bank\/[a-z0-9]{14}$/)
    await page.getByText('version 1').first().waitFor()
    expect(await page.getByText('In work', { exact: true }).count()).toBe(0)
    expect(faults).toEqual([])
  })
})

/** A quiz of given questions of the demo bank, open to Tuesday evening for two hours from now. */
async function openNow(id: string, title: string, questions: string[], pages: Pages): Promise<void> {
  const [maren, now] = [await person(db, 'p-maren'), iso(Date.now())]
  await createQuiz(db, maren, title, now, id)
  const { quiz } = await loadQuiz(db, id)
  const rows = questions.map((question) => ({
    type: 'question' as const,
    id: `r-${question}`,
    question,
    points: 1,
    fixed: false,
  }))
  const window = { id: 'w1', classes: ['c-tuesday'], opens: now, closes: iso(Date.now() + 7_200_000) }
  const edit = together([
    addRows(quiz.content.sections[0]!.id, null, rows),
    setAt(quiz, ['content', 'pages'], pages),
    addTo(['rules', 'windows'], null, [
      { ...window, due: null, latestStart: null, groups: [], students: [], closedAt: null, password: null },
    ]),
  ])!
  await makeEdit(db, maren, id, 0, 'every.1', edit, now)
  await openQuiz(db, maren, id, now)
}

describe('sat on a phone', () => {
  it('one question a page: with the connection lost at once every kind is there, and what was answered is kept when it is back', async () => {
    const questions = [
      'q-datum',
      'q-cover',
      'q-g-crossing',
      'q-m-sounds',
      'q-s-distress',
      'q-o-plan',
      'q-p-anchor',
      'q-p-courses',
      'q-w-squall',
      'q-r-mayday',
    ]
    await openNow('quiz-offline', 'Offline', questions, { by: 'count', count: 1 })
    const student = await visitor(server.address, 'Nell Ashdown', { width: 390, height: 800 })
    const { page, context } = student
    await page.goto('/my/quiz-offline')
    await page.getByRole('button', { name: /^Start/ }).click()
    await page.waitForURL('**/sit/**')
    await page.getByRole('article').waitFor()
    await context.setOffline(true)
    const fieldOf = [
      () => page.getByRole('radio'),
      () => page.getByRole('textbox'),
      () => page.getByLabel('Gap 1'),
      () => page.getByRole('button', { name: 'I am altering my course to starboard', exact: true }),
      () => page.getByRole('button', { name: 'orange smoke', exact: true }),
      () => page.getByRole('button', { name: /earlier$/ }),
      () => page.getByRole('application'),
      () => page.getByLabel('B: across'),
      () => page.getByRole('textbox'),
      () => page.getByRole('button', { name: 'Record an answer' }),
    ]
    for (const [i, field] of fieldOf.entries()) {
      await page.getByText(`Page ${i + 1} of ${questions.length}`).waitFor()
      await field().first().waitFor({ state: 'attached' })
      if (i === 1) await field().first().fill('2.3')
      if (i < questions.length - 1) await page.getByRole('button', { name: 'Next page' }).click()
    }
    await page.getByText(/Connection lost · your answers are kept on this device/).waitFor()
    await context.setOffline(false)
    await page.getByText(/All answers kept/).waitFor()
    expect(
      (await db.one<{ response: string }>(
        "SELECT w.response FROM answer w JOIN attempt a ON a.id = w.attempt_id WHERE a.quiz_id = 'quiz-offline' AND w.response IS NOT NULL",
      ))!.response,
    ).toBe('{"text":"2.3"}')
    expect(student.faults).toEqual([])
    await context.close()
  })
  it('every kind can be answered by tapping, is kept, marked, and reviewed', async () => {
    const questions = [
      'q-datum',
      'q-y-lookout',
      'q-cover',
      'q-clearing',
      'q-g-crossing',
      'q-m-sounds',
      'q-s-distress',
      'q-o-plan',
      'q-p-anchor',
      'q-p-courses',
      'q-h-plan',
      'q-w-squall',
      'q-v-distance',
      'q-r-mayday',
    ]
    await openNow('quiz-every', 'Every kind', questions, { by: 'all' })
    const student = await visitor(server.address, 'Nell Ashdown', { width: 390, height: 800 })
    const { page } = student
    await page.goto('/my/quiz-every')
    await page.getByRole('button', { name: /^Start/ }).click()
    await page.waitForURL('**/sit/**')
    const nth = (n: number) => page.getByRole('article').nth(n - 1)
    await nth(1).getByText('Lowest astronomical tide').click()
    await nth(2).getByText('Yes', { exact: true }).click()
    await nth(3).getByRole('textbox').fill('2.3')
    await nth(4).getByRole('textbox').fill('clearing')
    await nth(5).getByLabel('Gap 1').selectOption({ label: 'starboard' })
    await nth(5).getByLabel('Gap 2').selectOption({ label: 'ahead' })
    for (const [meaning, signal] of [
      ['I am altering my course to starboard', 'One short blast'],
      ['I am altering my course to port', 'Two short blasts'],
    ]) {
      await nth(6).getByRole('button', { name: meaning!, exact: true }).click()
      await nth(6)
        .getByRole('button', { name: `Put ${meaning} to ${signal}` })
        .click()
    }
    for (const thing of ['a red hand flare', 'orange smoke']) {
      await nth(7).getByRole('button', { name: thing, exact: true }).click()
      await nth(7)
        .getByRole('button', { name: `Put ${thing} to Distress` })
        .click()
    }
    await nth(8)
      .getByRole('button', { name: /earlier$/ })
      .last()
      .click()
    await at(230 / 480, 112 / 320)(nth(9))
    await nth(10).getByLabel('B: across').check()
    await nth(11).getByRole('textbox').fill('A port of refuge')
    await nth(12).getByRole('textbox').fill('Reef, clip on, fix the position.')
    const varying = await nth(13).innerText()
    const [, speed, hours] = /makes ([\d.]+) knots for (\d+) hours/.exec(varying)!
    await nth(13)
      .getByRole('textbox')
      .fill(String(Number(speed) * Number(hours)))
    await record(nth(14))
    await nth(14).getByLabel('Your recording').waitFor()
    await page.getByText(/All answers kept/).waitFor()
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0)
    await page.reload()
    await nth(13).getByRole('textbox').waitFor()
    expect(await nth(13).getByRole('textbox').inputValue()).toBe(String(Number(speed) * Number(hours)))
    expect(await nth(5).getByLabel('Gap 1').locator('option:checked').innerText()).toBe('starboard')
    await nth(9).getByText('1: 48 % across').waitFor()
    await page.getByRole('button', { name: 'Hand in…' }).first().click()
    await page.getByRole('dialog').getByRole('button', { name: 'Hand in' }).click()
    await page.waitForURL('**/review/**')
    const attempt = page.url().split('/').at(-1)!
    expect(student.faults).toEqual([])

    const { page: desk } = teacher
    await desk.goto(`/quizzes/quiz-every/marks/${attempt}`)
    await desk.getByText('waits for marks').waitFor()
    await desk.getByLabel('Your recording').waitFor()
    for (const points of ['1', '0.5', '0.5']) {
      const waiting = desk.getByRole('article').filter({ hasText: 'waits for a mark' }).first()
      const number = await waiting.locator('p').first().innerText()
      await waiting.getByLabel('Points of 1').fill(points)
      await waiting.getByRole('button', { name: 'Mark', exact: true }).click()
      await desk
        .getByRole('article')
        .filter({ hasText: number.split('\n')[0]! })
        .getByText(points === '1' ? '✓ right' : '± partly right')
        .waitFor()
    }
    // Ten right, two of four pairs, two of four things of distress, an order of one move, and the marks by hand.
    await desk
      .getByText(/\d+(\.\d+)? of 14/)
      .first()
      .waitFor()
    const { score } = (await db.one<{ score: string }>('SELECT score FROM attempt WHERE id = ?', [attempt]))!
    expect(score).not.toBeNull()
  })
})

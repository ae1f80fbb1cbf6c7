/** axe finds nothing on any view, wide and on a phone. */
import axe from 'axe-core'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { day, plus } from '../../core/kit/time'
import { addRows, addTo, setAt, together } from '../../core/quiz'
import { makeLink } from '../../server/domain/links/make-link'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { openQuiz } from '../../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { startSitting } from '../../server/domain/sittings/start'
import { closeBrowser, visitor, type Visitor } from '../support/browser'
import { person } from '../support/database'
import { sharedScene } from '../support/scene'

const { db, address, now } = sharedScene()
const who: Record<string, Visitor> = {}
const ids: Record<string, string> = {}

beforeAll(async () => {
  ids.sitting = (
    await startSitting(db, await person(db, 'p-silas-penn'), 'quiz-buoys', { device: 'other' }, now)
  ).attempt
  const maren = await person(db, 'p-maren')
  await createQuiz(db, maren, 'Shared', now, 'quiz-shared')
  const { quiz } = await loadQuiz(db, 'quiz-shared')
  const { audience, token } = await makeLink(db, maren, 'quiz-shared', now)
  ids.link = token
  await makeEdit(
    db,
    maren,
    'quiz-shared',
    0,
    'shared.1',
    together([
      addRows(quiz.content.sections[0]!.id, null, [
        {
          type: 'stimulus',
          id: 'g1',
          stimulus: 'st-forecast',
          questions: ['q-f-direction', 'q-f-force'],
          draw: 2,
          order: 'kept',
          points: 1,
          fixed: false,
        },
      ]),
      setAt(quiz, ['rules', 'link'], {
        audience,
        by: 'fields',
        fields: [
          { id: 'entry-1', name: 'Name', sort: 'name', required: true, unique: false },
          { id: 'entry-2', name: 'Born', sort: 'date', required: false, unique: false },
        ],
      }),
      // All that a paper can have beside its questions.
      setAt(quiz, ['rules', 'working', 'check'], true),
      setAt(quiz, ['rules', 'working', 'hints'], true),
      ...(['ruler', 'notes', 'highlight'] as const).map((name) => setAt(quiz, ['rules', 'tools', name], true)),
      setAt(quiz, ['rules', 'tools', 'calculator'], 'scientific'),
      addTo(['rules', 'windows'], null, [
        {
          id: 'w1',
          classes: ['c-tuesday', audience],
          opens: now,
          closes: plus(now, day),
          due: null,
          latestStart: null,
          groups: [],
          students: [],
          closedAt: null,
          password: null,
        },
      ]),
    ])!,
    now,
  )
  await openQuiz(db, maren, 'quiz-shared', now)
  ids.shared = (
    await startSitting(db, await person(db, 'p-silas-penn'), 'quiz-shared', { device: 'other' }, now)
  ).attempt
  ids.marked = (await db.one<{ id: string }>(
    "SELECT id FROM attempt WHERE quiz_id = 'quiz-chart' AND student_id = 'p-silas-penn'",
  ))!.id
  who.nobody = await visitor(address, null)
  who.teacher = await visitor(address, 'Maren Holt')
  who.student = await visitor(address, 'Silas Penn')
})
afterAll(async () => {
  await closeBrowser()
  await db.close()
})

const views: [string, string, () => string][] = [
  ['sign-in', 'nobody', () => '/sign-in'],
  ['today', 'teacher', () => '/today'],
  ['bank', 'teacher', () => '/bank'],
  ['editor, choice', 'teacher', () => '/bank/new?kind=choice'],
  ['editor, choices', 'teacher', () => '/bank/new?kind=choices'],
  ['editor, number', 'teacher', () => '/bank/q-twelfths-2'],
  ['editor, text', 'teacher', () => '/bank/q-lat'],
  ['editor, gaps', 'teacher', () => '/bank/q-g-datum'],
  ['editor, matching', 'teacher', () => '/bank/q-m-sounds'],
  ['editor, sorting', 'teacher', () => '/bank/q-s-distress'],
  ['editor, grid', 'teacher', () => '/bank/q-k-lights'],
  ['editor, ordering', 'teacher', () => '/bank/q-o-plan'],
  ['editor, spot', 'teacher', () => '/bank/q-p-masthead'],
  ['editor, places', 'teacher', () => '/bank/q-p-courses'],
  ['editor, written', 'teacher', () => '/bank/q-w-squall'],
  ['editor, recording', 'teacher', () => '/bank/q-r-mayday'],
  ['editor, varying', 'teacher', () => '/bank/q-v-third'],
  ['import', 'teacher', () => '/bank/import'],
  ['plain text', 'teacher', () => '/bank/paste'],
  ['near-duplicates', 'teacher', () => '/bank/near'],
  ['stimuli', 'teacher', () => '/bank/stimuli'],
  ['stimulus', 'teacher', () => '/bank/stimuli/st-forecast'],
  ['on a stimulus', 'teacher', () => '/bank/q-t-sill'],
  ['banks of others', 'teacher', () => '/bank/outside'],
  ['found outside', 'teacher', () => '/bank?from=outside'],
  ['objectives', 'teacher', () => '/bank/objectives'],
  ['levels and fields', 'teacher', () => '/bank/words'],
  ['quizzes', 'teacher', () => '/quizzes'],
  ['compose', 'teacher', () => '/quizzes/quiz-tides/compose'],
  ['fill from a blueprint', 'teacher', () => '/quizzes/quiz-tides/fill'],
  ['pass mark', 'teacher', () => '/quizzes/quiz-tides/pass-mark'],
  ['rules', 'teacher', () => '/quizzes/quiz-tides/rules'],
  ['rehearse', 'teacher', () => '/quizzes/quiz-tides/rehearse'],
  ['trial run', 'teacher', () => '/quizzes/quiz-tides/trial'],
  ['record', 'teacher', () => '/quizzes/quiz-chart/record'],
  ['reminders', 'nobody', () => `/reminders/${'0'.repeat(32)}`],
  ['marks', 'teacher', () => '/quizzes/quiz-chart/marks'],
  ['one paper', 'teacher', () => `/quizzes/quiz-chart/marks/${ids.marked}`],
  ['classes', 'teacher', () => '/classes'],
  ['a register', 'teacher', () => '/classes/c-tuesday'],
  ['a student', 'teacher', () => '/students/p-petra-lund'],
  ['the school', 'teacher', () => '/school'],
  ['a roster', 'teacher', () => '/roster'],
  ['letters', 'teacher', () => '/mail'],
  ['own account', 'student', () => '/me'],
  ['joining', 'nobody', () => '/join'],
  ['first start', 'nobody', () => '/first-start'],
  ['a link that is over', 'nobody', () => '/come-in/none'],
  ['the link of a quiz', 'nobody', () => `/link/${ids.link}`],
  ['rules with a link', 'teacher', () => '/quizzes/quiz-shared/rules'],
  ['my quizzes', 'student', () => '/my'],
  ['before sitting', 'student', () => '/my/quiz-buoys'],
  ['sitting', 'student', () => `/sit/${ids.sitting}`],
  ['sitting, shared', 'student', () => `/sit/${ids.shared}`],
  ['review', 'student', () => `/review/${ids.marked}`],
]

const widths = [
  { width: 1280, height: 800 },
  { width: 390, height: 800 },
]

it.each(views)('%s', async (_view, role, path) => {
  const { page, quiet } = who[role]!
  await page.setViewportSize(widths[0]!)
  await page.goto(path())
  await page.locator('h1').first().waitFor()
  await quiet()
  await page.evaluate(axe.source)
  for (const size of widths) {
    await page.setViewportSize(size)
    expect(await violations(page), `at ${size.width} pixels`).toEqual([])
    // Nothing runs out of the page sideways.
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0)
  }
})

/** What axe finds, each with the beginnings of three of its places. */
function violations(page: Page): Promise<string[]> {
  return page.evaluate(async () => {
    const { violations: found } = await (window as unknown as { axe: typeof axe }).axe.run(document, {
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
      rules: { 'label-content-name-mismatch': { enabled: true } },
      // What is found alone: places where nothing is wrong are not listed.
      resultTypes: ['violations'],
    })
    const place = (node: { html: string }) => node.html.slice(0, 160)
    return found.map((each) => `${each.id}: ${each.nodes.slice(0, 3).map(place).join(' | ')}`)
  })
}

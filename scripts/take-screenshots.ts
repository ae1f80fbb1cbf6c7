/** Takes the pictures; started by scripts/screenshots.mjs with a database of its own. */
import { join } from 'node:path'
import { iso } from '../core/kit/time'
import { seedDemo } from '../demo/seed'
import { unzip, zip } from '../formats/zip'
import { openDatabase } from '../server/database/database'
import { migrate } from '../server/database/migrate'
import { giveQuiz } from '../server/domain/imports/tests'
import { findPerson } from '../server/people/people'
import { closeBrowser, visitor } from '../tests/support/browser'
import { startServer } from '../tests/support/server'

const url = process.env.THISTLE_DATABASE_URL!
const db = openDatabase(url, 2)
await migrate(db)
await seedDemo(db, iso(Date.now()))
const server = await startServer(url)
const folder = join(import.meta.dirname, '..', 'docs', 'screenshots')
const attemptOf = async (quiz: string, student: string) =>
  (await db.one<{ id: string }>('SELECT id FROM attempt WHERE quiz_id = ? AND student_id = ? ORDER BY number LIMIT 1', [
    quiz,
    student,
  ]))!.id

try {
  const nobody = await visitor(server.address, null)
  const teacher = await visitor(server.address, 'Maren Holt')
  const student = await visitor(server.address, 'Hedda Moe')
  const views: [string, typeof teacher, string][] = [
    ['sign-in', nobody, '/sign-in'],
    ['today', teacher, '/today'],
    ['bank', teacher, '/bank'],
    ['editor', teacher, '/bank/q-twelfths-formula'],
    ['editor-spot', teacher, '/bank/q-p-masthead'],
    ['outside', teacher, '/bank?from=outside'],
    ['objectives', teacher, '/bank/objectives'],
    ['compose', teacher, '/quizzes/quiz-tides/compose'],
    ['rules', teacher, '/quizzes/quiz-tides/rules'],
    ['marks', teacher, '/quizzes/quiz-chart/marks'],
    ['paper', teacher, `/quizzes/quiz-chart/marks/${await attemptOf('quiz-chart', 'p-nell-ashdown')}`],
    ['classes', teacher, '/classes/c-tuesday'],
    ['my-quizzes', student, '/my'],
    ['sitting', student, `/sit/${await attemptOf('quiz-buoys', 'p-hedda-moe')}`],
    ['review', student, `/review/${await attemptOf('quiz-chart', 'p-hedda-moe')}`],
  ]
  for (const [name, { page, quiet }, path] of views) {
    await page.goto(path)
    await page.locator('h1').first().waitFor()
    await quiet()
    await page.evaluate(() => document.fonts.ready)
    await page.screenshot({ path: join(folder, `${name}.png`) })
  }
  await teacher.page.goto('/quizzes/quiz-tides/rehearse')
  const frame = teacher.page.frameLocator('iframe')
  await frame.getByRole('button', { name: 'Start now' }).click()
  await frame.getByText('Question 1 ·').waitFor()
  await teacher.page.getByRole('button', { name: 'as a usual one' }).click()
  await frame.getByText('17 of 17 answered').waitFor()
  await teacher.page.evaluate(() => window.scrollTo(0, 0))
  await teacher.page.screenshot({ path: join(folder, 'rehearse.png') })
  await teacher.page.goto('/quizzes/quiz-tides/trial')
  await teacher.page.getByRole('button', { name: 'Run' }).click()
  await teacher.page.getByText('1000 sittings of 1000').waitFor({ timeout: 60_000 })
  await teacher.page.screenshot({ path: join(folder, 'trial.png') })
  await teacher.page.goto('/quizzes/quiz-tides/fill')
  await teacher.page.getByRole('button', { name: 'Read one off this quiz' }).click()
  await teacher.page.getByRole('button', { name: 'Find them' }).click()
  await teacher.page.getByText('Asked and got').waitFor({ timeout: 60_000 })
  await teacher.page.screenshot({ path: join(folder, 'blueprint.png') })
  // A file that has a test, new questions, one that is there already, and one that cannot be read.
  const { bytes } = await giveQuiz(db, (await findPerson(db, 'p-maren'))!, 'quiz-lights', { as: 'qti-2.2' })
  const files = unzip(new Uint8Array(bytes))
  const items = [...files.keys()].filter((name) => name.startsWith('items/'))
  for (const [i, name] of items.entries()) {
    const text = new TextDecoder().decode(files.get(name))
    if (i % 4 === 1)
      files.set(
        name,
        new TextEncoder().encode(text.replaceAll('vessel', 'ship').replace(/identifier="q-/, 'identifier="other-')),
      )
    if (i === 2) files.set(name, new TextEncoder().encode(text.replaceAll('choiceInteraction', 'drawingInteraction')))
  }
  // And two of somebody else: one that is scored otherwise here, and one by an operator of their own.
  const other = (id: string, title: string, processing: string) =>
    `<assessmentItem identifier="${id}" title="${title}"><responseDeclaration identifier="RESPONSE" cardinality="single" baseType="integer"><correctResponse><value>5</value></correctResponse></responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><p>${title} <textEntryInteraction responseIdentifier="RESPONSE"/></p></itemBody><responseProcessing>${processing}</responseProcessing></assessmentItem>`
  const isFive =
    '<equal toleranceMode="exact"><variable identifier="RESPONSE"/><baseValue baseType="integer">5</baseValue></equal>'
  const sets = (n: string) =>
    `<setOutcomeValue identifier="SCORE"><baseValue baseType="float">${n}</baseValue></setOutcomeValue>`
  const manifest = new TextDecoder().decode(files.get('imsmanifest.xml'))
  const named = (id: string) => `<resource identifier="${id}" type="imsqti_item_xmlv2p2" href="${id}.xml"/>`
  files.set(
    'imsmanifest.xml',
    new TextEncoder().encode(manifest.replace('<resources>', `<resources>${named('blasts')}${named('bell')}`)),
  )
  files.set(
    'blasts.xml',
    new TextEncoder().encode(
      other(
        'blasts',
        'How many short blasts say that another’s intentions are in doubt?',
        `<responseCondition><responseIf><not>${isFive}</not>${sets('0')}</responseIf><responseElse>${sets('1')}</responseElse></responseCondition>`,
      ),
    ),
  )
  files.set(
    'bell.xml',
    new TextEncoder().encode(
      other(
        'bell',
        'For how many seconds is a bell rung at anchor?',
        '<setOutcomeValue identifier="SCORE"><customOperator class="org.example.signals"><variable identifier="RESPONSE"/></customOperator></setOutcomeValue>',
      ),
    ),
  )
  await teacher.page.goto('/bank/import')
  await teacher.page
    .getByLabel('Choose a file')
    .setInputFiles({ name: 'rules-of-the-road.zip', mimeType: 'application/zip', buffer: Buffer.from(zip(files)) })
  await teacher.page.getByRole('region', { name: 'What would come in' }).waitFor()
  await teacher.page.screenshot({ path: join(folder, 'import.png') })
} finally {
  await closeBrowser()
  await server.stop()
  await db.close()
}
process.exit(0)

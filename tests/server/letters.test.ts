/** Letters of quizzes: what is due is written once, by whoever looks, and nothing that is not shown yet is in one. */
import PostalMime from 'postal-mime'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { noticeNames } from '../../core/rules'
import { usualRules, type Rules } from '../../core/quiz'
import type { Instant } from '../../core/kit/time'
import { fromSql } from '../../server/database/codec'
import type { Database } from '../../server/database/database'
import { tellQuizzes } from '../../server/domain/letters/tell'
import { sendDays } from '../../server/domain/letters/days'
import { previewLetter } from '../../server/domain/letters/preview'
import { ownReminders, remindersAt, setRemindersAt } from '../../server/domain/letters/reminders'
import { makeEdit } from '../../server/domain/quizzes/edits'
import { releaseTo } from '../../server/domain/quizzes/open'
import { loadQuiz } from '../../server/domain/quizzes/quizzes'
import { sendDue } from '../../server/domain/outbox'
import { handIn } from '../../server/domain/sittings/hand-in'
import { startSitting } from '../../server/domain/sittings/start'
import type { Letter } from '../../server/standins/mail/mail'
import { freshDatabase, person } from '../support/database'
import { day, later, openedQuiz, rulesEdit } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('letters', day)).db
  await db.run("UPDATE quiz SET state = 'filed'")
  process.env.THISTLE_ADDRESS = 'http://thistle.example'
})
afterAll(async () => {
  delete process.env.THISTLE_ADDRESS
  await db.close()
})

const nell = 'p-nell-ashdown'
const all = Object.fromEntries(
  noticeNames.map((name) => [name, { on: true, words: null, ...(name === 'reminder' ? { hours: 1 } : {}) }]),
) as unknown as Rules['notices']
const never = { at: 'never' as const }
const release = Object.fromEntries(
  Object.entries(usualRules.release).map(([name, rule]) => [name, { ...rule, from: never }]),
) as Rules['release']
const addressOf = async (id: string) =>
  (await db.one<{ email: string }>('SELECT email FROM person WHERE id = ?', [id]))!.email
/** Letters written since they were last asked for. */
async function written(to?: string): Promise<{ to: string; subject: string; body: string }[]> {
  const rows = await db.rows<{ to_address: string; subject: string; body: string }>(
    'SELECT * FROM mail ORDER BY to_address, subject',
  )
  await db.run('DELETE FROM mail')
  return rows
    .map(({ to_address: address, subject, body }) => ({ to: address, subject, body }))
    .filter((letter) => !to || letter.to === to)
}
/** When letters of a quiz are looked for next. */
const nextLook = async (quiz: string): Promise<Instant> =>
  fromSql((await db.one<{ next_at: string }>('SELECT next_at FROM quiz_told WHERE quiz_id = ?', [quiz]))!.next_at)
/** Looks until nothing is due any more. */
async function look(now: Instant): Promise<number> {
  const n = await tellQuizzes(db, now, 100)
  return n + (n ? await look(now) : 0)
}
async function only(quiz: string): Promise<void> {
  await db.run("UPDATE quiz SET state = 'filed' WHERE id <> ?", [quiz])
}

describe('letters of a quiz', () => {
  it('are written once to each, however many look at once, with the times that are theirs', async () => {
    const quiz = await openedQuiz(db, 'told', { notices: all })
    await only(quiz)
    const counts = await Promise.all(Array.from({ length: 6 }, () => tellQuizzes(db, later(-30), 100)))
    expect(counts.filter((n) => n > 0)).toHaveLength(1)
    await look(later(-30))
    const letters = await written()
    expect(new Set(letters.map(({ subject }) => subject))).toEqual(new Set(['A quiz for you: Quiz told']))
    expect(letters).toHaveLength(14)
    expect(new Set(letters.map(({ to }) => to)).size).toBe(14)
    // Petra has time and a half.
    const petra = letters.find(({ body }) => body.includes('Hello Petra Lund'))!
    expect(petra.body).toContain('you have 1 hour 30 minutes')
    expect(petra.body).toContain(`http://thistle.example/my/${quiz}`)
    expect(letters.find(({ body }) => body.includes('Hello Nell Ashdown'))!.body).toContain('you have 1 hour\n')
    await look(later(-29))
    expect(await written()).toEqual([])
  })

  it('two processes that find the same student due at once write one letter', async () => {
    const quiz = await openedQuiz(db, 'raced', { notices: all })
    await only(quiz)
    // Both have claimed the quiz: as if the first had been held up for longer than a minute.
    const first = tellQuizzes(db, later(-30), 100)
    await db.run("UPDATE quiz_told SET next_at = '2000-01-01' WHERE quiz_id = ?", [quiz])
    await Promise.all([first, tellQuizzes(db, later(-28), 100)])
    await db.run("UPDATE quiz_told SET next_at = '2000-01-01' WHERE quiz_id = ?", [quiz])
    await look(later(-27))
    expect(await written()).toHaveLength(14)
  })

  it('say a change of times to whom it touches alone', async () => {
    const quiz = await openedQuiz(db, 'moved', { notices: all })
    await only(quiz)
    await look(later(-30))
    await written()
    const { revision, quiz: document } = await loadQuiz(db, quiz)
    const own = { ...document.rules.windows[0]!, id: 'own', classes: [], students: [nell], closes: later(400) }
    const maren = await person(db, 'p-maren')
    const edit = await rulesEdit(db, quiz, { windows: [...document.rules.windows, own] })
    await makeEdit(db, maren, quiz, revision, 'let.1', edit, later(-20))
    await look(later(-19))
    const letters = await written()
    expect(letters.map(({ to, subject }) => [to, subject])).toEqual([
      [await addressOf(nell), 'Other times for Quiz moved'],
    ])
    expect(letters[0]!.body).toContain('to Tue 14 May, 16:40')
    // A colleague edits words of the quiz: nobody's times are others.
    const again = await loadQuiz(db, quiz)
    await makeEdit(
      db,
      maren,
      quiz,
      again.revision,
      'let.2',
      await rulesEdit(db, quiz, { progress: !again.quiz.rules.progress }),
      later(-18),
    )
    await look(later(-17))
    expect(await written()).toEqual([])
  })

  it('remind who has not begun, and nobody who has called reminders off by the address in one', async () => {
    const quiz = await openedQuiz(db, 'reminded', { notices: all })
    await only(quiz)
    await look(later(-30))
    await written()
    await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, later(10))
    const first = (await db.one<{ id: string; reminder_word: string }>(
      'SELECT id, reminder_word FROM person WHERE id = ?',
      ['p-petra-lund'],
    ))!
    expect(await setRemindersAt(db, first.reminder_word, false)).toEqual({ on: false })
    expect(await ownReminders(db, 'p-petra-lund')).toEqual({ on: false })
    await expect(remindersAt(db, '0'.repeat(32))).rejects.toMatchObject({ status: 404 })
    const reminders = async () => (await written()).filter(({ subject }) => subject.startsWith('Not sat yet'))
    await look(later(119))
    expect(await reminders()).toEqual([])
    await look(later(121))
    const letters = await reminders()
    expect(letters).toHaveLength(12)
    expect(letters.map(({ to }) => to)).not.toContain(await addressOf(nell))
    expect(letters.map(({ to }) => to)).not.toContain(await addressOf('p-petra-lund'))
    expect(letters[0]!.body).toMatch(/To get no more reminders: http:\/\/thistle\.example\/reminders\/[0-9a-f]{32}\n/)
  })

  it('acknowledge a paper, tell of what a teacher releases, and of a result only once it may be read', async () => {
    const quiz = await openedQuiz(db, 'released', {
      notices: all,
      release: {
        ...release,
        grade: { ...release.grade, from: { at: 'teacher' } },
        key: { ...release.key, from: { at: 'windowClosed', offset: 0 } },
      },
    })
    await only(quiz)
    await look(later(-30))
    await look(later(1))
    const { attempt } = await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, later(10))
    await handIn(db, nell, attempt, 1, [], later(20))
    await written()
    await look(later(22))
    const [receipt, ...more] = await written(await addressOf(nell))
    expect(more).toEqual([])
    expect(receipt!.subject).toBe('Handed in: Quiz released')
    expect(receipt!.body).toMatch(/0 answers to 3 questions were kept\. The code of this receipt is [0-9a-f]{12}\./)
    // What a key holds is in no receipt.
    expect(receipt!.body).not.toMatch(/astronomical|2\.3|clearing/)
    expect(await nextLook(quiz)).toBe(later(24))
    await releaseTo(db, await person(db, 'p-maren'), quiz, 'c-tuesday', later(30))
    await look(later(31))
    const told = await written(await addressOf(nell))
    expect(told.map(({ subject }) => subject)).toEqual([
      'There is more to see of Quiz released',
      'Your result in Quiz released',
    ])
    expect(told[1]!.body).toContain('is 0.0 %: not passed.')
    expect(await db.rows("SELECT facet FROM viewed WHERE attempt_id = ? AND facet = 'grade'", [attempt])).toHaveLength(
      1,
    )
    await look(later(800))
    const late = await written(await addressOf(nell))
    expect(late.map(({ body }) => body.includes('correct answers'))).toEqual([true])
  })

  it('of papers without names say nothing that tells whose one is', async () => {
    const quiz = await openedQuiz(db, 'unnamed', { notices: all, anonymous: true })
    await only(quiz)
    await look(later(-30))
    await written()
    const { attempt } = await startSitting(db, await person(db, nell), quiz, { device: 'd1' }, later(10))
    await handIn(db, nell, attempt, 1, [], later(20))
    await look(later(21))
    await look(later(170))
    expect(await written()).toEqual([])
  })

  it('are none while all are off, and go on after a process has died in the middle', async () => {
    const quiz = await openedQuiz(db, 'off')
    await only(quiz)
    expect(await look(later(-30))).toBe(0)
    const { revision } = await loadQuiz(db, quiz)
    await makeEdit(
      db,
      await person(db, 'p-maren'),
      quiz,
      revision,
      'let.1',
      await rulesEdit(db, quiz, { notices: all }),
      later(-20),
    )
    // It was claimed, and nobody came back to it: a minute later somebody else does.
    await look(later(-19))
    await db.run('DELETE FROM told WHERE quiz_id = ?', [quiz])
    await db.run('DELETE FROM mail')
    await db.run('UPDATE quiz_told SET next_at = ? WHERE quiz_id = ?', ['2030-05-14 08:43:00.000', quiz])
    expect(await tellQuizzes(db, later(-18), 100)).toBe(0)
    expect(await tellQuizzes(db, later(-17), 100)).toBe(14)
    await written()
  })

  it('leave as messages that another reader understands, sent once and tried again', async () => {
    const quiz = await openedQuiz(db, 'sent', {
      notices: { ...all, opening: { on: true, words: 'Grüße — ✓ bring tables.' } },
    })
    await only(quiz)
    await look(later(-30))
    const got: Letter[] = []
    let broken = true
    const post = (letter: Letter) => {
      if (broken) return Promise.reject(new Error('451 not now'))
      got.push(letter)
      return Promise.resolve()
    }
    await sendDue(db, post, later(-29), 100)
    expect(got).toEqual([])
    broken = false
    await Promise.all([sendDue(db, post, later(-20), 100), sendDue(db, post, later(-20), 100)])
    expect(got).toHaveLength(14)
    const { createTransport } = await import('nodemailer')
    const { message } = await createTransport({ streamTransport: true, buffer: true }).sendMail({
      from: 'quiz@thistle.example',
      ...got[0]!,
      text: got[0]!.body,
    })
    const read = await PostalMime.parse(message as Buffer)
    expect(read.subject).toBe(got[0]!.subject)
    expect(read.text!.trimEnd()).toBe(got[0]!.body.trimEnd())
    expect(read.text).toContain('Grüße — ✓ bring tables.')
    await written()
  })
})

it('what a student will see is sent to them, moment by moment, once the quiz is theirs', async () => {
  const quiz = await openedQuiz(db, 'days')
  const maren = await person(db, 'p-maren')
  expect(await sendDays(db, maren, quiz, nell, later(1))).toEqual({ to: await addressOf(nell) })
  const [letter] = await written()
  expect(letter!.body).toContain('  Tue 14 May, 10:00: can start; has 1 hour at most')
  expect(letter!.body).toContain('when everyone is done: sees ')
  for (const nobody of ['p-kit-sorrel', 'p-idris'])
    await expect(sendDays(db, maren, quiz, nobody, later(1))).rejects.toMatchObject({ status: 404 })
  await expect(sendDays(db, maren, 'quiz-tides', nell, later(1))).rejects.toMatchObject({ status: 409 })
  expect(await written()).toEqual([])
})

it('a letter is read beforehand as a student would get it, and of nobody elsewhere', async () => {
  const quiz = await openedQuiz(db, 'read', { notices: all })
  const maren = await person(db, 'p-maren')
  const of = (student: string, name: (typeof noticeNames)[number]) =>
    previewLetter(db, maren, quiz, { student, name }, later(1))
  expect((await of('p-petra-lund', 'opening')).body).toContain('you have 1 hour 30 minutes')
  expect((await of(nell, 'reminder')).body).toContain('http://thistle.example/my/read')
  expect((await of(nell, 'receipt')).to).toBe(await addressOf(nell))
  await expect(of('p-idris', 'opening')).rejects.toMatchObject({ status: 404 })
  expect(await written()).toEqual([])
})

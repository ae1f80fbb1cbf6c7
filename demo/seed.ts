import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { iso, minute, ms, plus, type Instant } from '../core/kit/time'
import { toJson } from '../server/database/codec'
import type { Database } from '../server/database/database'
import { addMedia } from '../server/domain/bank/material/media'
import { askForBank } from '../server/domain/bank/outside/outside'
import { insertQuestions } from '../server/domain/bank/questions/rows'
import { prepared } from '../server/domain/bank/questions/questions'
import { addStimulus } from '../server/domain/bank/material/stimuli'
import { hashPassword } from '../server/people/password'
import { findPerson, hasSchool, type Person } from '../server/people/people'
import { loadEdition } from '../server/domain/quizzes/edition'
import { makeEdit } from '../server/domain/quizzes/edits'
import { openQuiz } from '../server/domain/quizzes/open'
import { createQuiz, loadQuiz } from '../server/domain/quizzes/quizzes'
import { loadPaper } from '../server/domain/sittings/attempts'
import { endSitting } from '../server/domain/sittings/end'
import { saveAnswers } from '../server/domain/sittings/save'
import { startSitting } from '../server/domain/sittings/start'
import { standInKeeper } from '../server/standins/keeper/stand-in'
import { inventedAnswer } from './answers'
import { bank } from './bank'
import { withPictures } from './bank/pictures'
import { stimuli } from './bank/stimuli'
import { folderFor, folders } from './folders'
import { demoVocabulary, essential, needs, objectiveId, objectives } from './objectives'
import { halfLaidOut } from './reset'
import { accommodations, classes, demoPassword, email, personId, teachers } from './people'
import { daysTo, demoQuizzes, editsFor, onDay, zone, type DemoQuiz } from './quizzes'

export const demoSchool = 'gannet'

/** Lays out the demo school where there is no school yet. Until all of it is there it is no demo school: see reset.ts. */
export async function seedDemo(database: Database, now: Instant): Promise<void> {
  if (await hasSchool(database)) return
  await seedPeople(database)
  const maren = (await findPerson(database, teachers[0][0]))!
  await seedBank(database, maren, plus(now, -60 * 24 * 60 * minute))
  for (const quiz of demoQuizzes(now)) await seedQuiz(database, maren, quiz)
  await askForBank(database, maren, standInKeeper(database, now), 'harrow-bay', now)
  await database.run('INSERT INTO quiz_teacher (quiz_id, person_id) VALUES (?, ?)', ['quiz-tides', teachers[1][0]])
  await seedSittings(database, now)
  await database.run('UPDATE school SET demo = 1 WHERE id = ?', [demoSchool])
}

async function seedPeople(database: Database): Promise<void> {
  const hash = await hashPassword(demoPassword)
  const students = classes.flatMap((group) => group.students)
  await database.transaction(async (db) => {
    await db.run('INSERT INTO school (id, name, zone, demo) VALUES (?, ?, ?, ?)', [
      demoSchool,
      'Gannet Sound Sailing School',
      zone,
      halfLaidOut,
    ])
    await db.run(
      'INSERT INTO person (id, school_id, role, name, email, password_hash, accommodation, admin) VALUES ?',
      [
        [
          ...teachers.map(([id, name]) => [
            id,
            demoSchool,
            'teacher',
            name,
            email(name),
            hash,
            null,
            id === 'p-maren' ? 1 : 0,
          ]),
          ...students.map((name) => [
            personId(name),
            demoSchool,
            'student',
            name,
            email(name),
            hash,
            accommodations[name] ? toJson(accommodations[name]) : null,
            0,
          ]),
        ],
      ],
    )
    await db.run('INSERT INTO class (id, school_id, name) VALUES ?', [
      classes.map((group) => [group.id, demoSchool, group.name]),
    ])
    await db.run('INSERT INTO class_teacher (class_id, person_id) VALUES ?', [
      [
        ['c-tuesday', 'p-maren'],
        ['c-tuesday', 'p-idris'],
        ['c-saturday', 'p-maren'],
      ],
    ])
    await db.run('INSERT INTO enrolment (class_id, person_id) VALUES ?', [
      classes.flatMap((group) => group.students.map((name) => [group.id, personId(name)])),
    ])
    await db.run('INSERT INTO objective (id, school_id, parent_id, code, title, essential) VALUES ?', [
      objectives.map(([code, title]) => [
        objectiveId(code),
        demoSchool,
        code.includes('.') ? objectiveId(code.split('.')[0]!) : null,
        code,
        title,
        essential.includes(code),
      ]),
    ])
    await db.run('INSERT INTO objective_need (objective_id, needs_id) VALUES ?', [
      needs.map((pair) => pair.map(objectiveId)),
    ])
    await db.run('INSERT INTO school_words (school_id, revision, body) VALUES (?, 1, ?)', [
      demoSchool,
      toJson(demoVocabulary),
    ])
  })
}

async function seedBank(database: Database, owner: Person, from: Instant): Promise<void> {
  const pictures = new Map<string, string>()
  const folder = join(import.meta.dirname, 'pictures')
  for (const name of (await readdir(folder)).filter((file) => file.endsWith('.png')).map((file) => file.slice(0, -4))) {
    pictures.set(name, (await addMedia(database, owner, await readFile(join(folder, `${name}.png`)), from)).src)
  }
  await database.run('INSERT INTO folder (id, school_id, parent_id, name) VALUES ?', [
    folders.map(([id, name]) => [id, demoSchool, null, name]),
  ])
  for (const { id, stimulus } of stimuli) await addStimulus(database, owner, stimulus, from, id)
  const questions = bank.map(({ id, question }, i) => ({
    id,
    question: prepared(withPictures(question, (name) => pictures.get(name)!)),
    keeping: { folder: folderFor(question), sharing: 'school' as const },
    // The first of the bank is the newest, so that lists begin with the tides.
    at: plus(from, (bank.length - i) * 60 * minute),
  }))
  await database.transaction((db) => insertQuestions(db, owner, questions, from))
}

async function seedQuiz(database: Database, owner: Person, quiz: DemoQuiz): Promise<void> {
  await createQuiz(database, owner, quiz.title, quiz.made, quiz.id)
  const { quiz: blank } = await loadQuiz(database, quiz.id)
  for (const [i, edit] of editsFor(quiz, blank).entries()) {
    await makeEdit(database, owner, quiz.id, i, `demo.${i}`, edit, plus(quiz.made, i * 4 * minute))
  }
  if (quiz.opened) await openQuiz(database, owner, quiz.id, quiz.opened)
}

/** One student's sitting, played through the same functions that the routes call. */
async function sit(
  database: Database,
  student: string,
  quiz: string,
  start: Instant,
  minutes: number,
  ability: number,
  share = 1,
): Promise<void> {
  const person = (await findPerson(database, student))!
  const { attempt } = await startSitting(database, person, quiz, { device: 'demo-device' }, start)
  const paper = await loadPaper(database, attempt)
  const edition = await loadEdition(database, paper.edition)
  const items = paper.items.slice(0, Math.ceil(paper.items.length * share))
  const answers = items.flatMap((item, i) => {
    const response = inventedAnswer(edition.questions[item.question]!.question, item, student, ability)
    return response === null
      ? []
      : [{ item: item.id, response: response as Record<string, unknown>, flagged: false, seq: i + 1 }]
  })
  if (answers.length) await saveAnswers(database, person.id, attempt, 1, answers, plus(start, minutes * 0.9 * minute))
  if (share === 1) await endSitting(database, attempt, { by: 'student', lease: 1 }, plus(start, minutes * minute))
}

const abilityOf = (index: number) => 0.45 + ((index * 37) % 50) / 100

async function seedSittings(database: Database, now: Instant): Promise<void> {
  const [tuesday, saturday] = classes
  for (const [i, name] of tuesday.students.entries()) {
    if (i !== 9)
      await sit(
        database,
        personId(name),
        'quiz-chart',
        plus(onDay(now, daysTo(now, 2, -3), '19:02'), i * 3 * minute),
        Math.min(29, 14 + ((i * 5) % 17)),
        abilityOf(i),
      )
  }
  for (const [i, name] of saturday.students.entries()) {
    if (i !== 4)
      await sit(
        database,
        personId(name),
        'quiz-chart',
        plus(onDay(now, daysTo(now, 6, -3), '09:34'), i * 4 * minute),
        Math.min(29, 12 + ((i * 7) % 18)),
        abilityOf(i + 3),
      )
  }
  const evening = iso(Math.min(ms(onDay(now, -1, '18:30')), ms(now) - 3 * 60 * minute))
  for (const [i, name] of tuesday.students.slice(0, 6).entries())
    await sit(database, personId(name), 'quiz-buoys', plus(evening, i * 6 * minute), 12 + i, abilityOf(i + 1))
  for (const [i, name] of [...tuesday.students.slice(6, 9), ...saturday.students.slice(0, 2)].entries())
    await sit(database, personId(name), 'quiz-buoys', plus(now, -(20 - i * 3) * minute), 8, abilityOf(i), 0.5)
}

import type { Quiz, Student } from '../../../core/quiz'
import { endsByRules, type LatestEnds } from '../../../core/release'
import { assignedTo, audienceOf, namedIn, oneOfEach, stillToCome, type Audience } from '../../../core/schedule'
import type { Db } from '../../database/database'
import { Remembered } from '../../database/remembered'
import { studentsMeant } from '../classes/students'
import { documentKey, type DocumentKey } from './known-documents'

/** A quiz whose ends are asked. */
export interface Asked {
  row: DocumentKey
  quiz: Quiz
}

/**
 * When quizzes end for everybody, by their rules: the same for all who ask until the document or the school's roster
 * changes. Worked out once in each process, by whoever asks first.
 */
const known = new Remembered<Promise<LatestEnds>>(2000)

/**
 * One after another, and others are served in between.
 * @param students one of each sort is enough: the latest of the same ends is that end
 */
async function workOut(students: Promise<Student[]>, before: Promise<unknown>, quiz: Quiz): Promise<LatestEnds> {
  await before
  await new Promise((done) => setImmediate(done))
  return endsByRules(assignedTo([...(await students), ...stillToCome(quiz.rules)], quiz.rules))
}

/** @param roster the stamp of the school's roster, read before */
export async function endsByDocument(db: Db, quizzes: readonly Asked[], roster: number): Promise<LatestEnds[]> {
  const keyOf = ({ row }: Asked) => `${documentKey(row)} ${roster}`
  const fresh = quizzes.filter((asked) => !known.get(keyOf(asked)))
  if (fresh.length) {
    const meant = fresh.map(({ quiz }) => audienceOf(quiz.rules))
    const of = (name: keyof Audience) => [...new Set(meant.flatMap((each) => each[name]))]
    const named = new Set(fresh.flatMap(({ quiz }) => namedIn(quiz.rules)))
    const students = studentsMeant(db, { classes: of('classes'), groups: of('groups'), students: of('students') }).then(
      (all) => oneOfEach(all, named),
    )
    let before: Promise<unknown> = students
    for (const asked of fresh) {
      const key = keyOf(asked)
      const ends = workOut(students, before, asked.quiz)
      before = ends.catch(() => {
        known.delete(key)
      })
      known.set(key, ends)
    }
  }
  return Promise.all(quizzes.map((asked) => known.get(keyOf(asked))!))
}

import { id as idSchema } from '../../core/question'
import type { Db } from '../database/database'
import { mayInClass, teaches } from '../domain/classes/teachers'
import { mayLook, mayTeach } from '../domain/quizzes/quizzes'
import { forbidden, notFound, Problem } from '../domain/problem'
import type { Person } from './people'

/** The right that a route needs. Each route names one; a test walks every route as every role. */
export type Right =
  /** Nobody has to be signed in. */
  | 'anyone'
  | 'signedIn'
  | 'teacher'
  /** A student; what is theirs is decided by the domain, which asks with their id. */
  | 'student'
  /** A teacher who owns the quiz `id` or shares it. */
  | 'quizTeacher'
  /** A teacher who may look at the quiz `id`, and copy it. */
  | 'quizReader'
  /** A teacher with the student `id` in a class of theirs. */
  | 'studentTeacher'
  /** A teacher of the class `id`: who is in it, and what it is called. */
  | 'classTeacher'
  /** A teacher of the class `id`, or one who helps in it: its register. */
  | 'classHelper'
  /** A teacher who runs the school. */
  | 'admin'

/** Refuses a person who lacks a right. What is not theirs to see is "not here", so that nothing is told by asking. */
export async function ensureRight(
  db: Db,
  right: Right,
  person: Person | null,
  asked: string | undefined,
): Promise<void> {
  if (right === 'anyone') return
  if (!person) throw new Problem(401, 'signed-out', 'You are not signed in. Sign in and try again.')
  if (right === 'signedIn') return
  if (person.role !== (right === 'student' ? 'student' : 'teacher')) throw forbidden()
  const id = idSchema.safeParse(asked).data
  if (right === 'quizTeacher' && !(id && (await mayTeach(db, person.id, id)))) throw notFound('This quiz')
  if (right === 'quizReader' && !(id && (await mayLook(db, person, id)))) throw notFound('This quiz')
  if (right === 'admin' && !person.admin) throw forbidden()
  if (right === 'classTeacher' || right === 'classHelper') {
    const may = id && (await mayInClass(db, person.id, id))
    if (!may) throw notFound('This class')
    if (right === 'classTeacher' && may !== 'teach')
      throw new Problem(403, 'helper', 'You help in this class. Who is in it is changed by those who teach it.')
  }
  if (right === 'studentTeacher' && !(id && (await teaches(db, person.id, id)))) throw notFound('This student')
}

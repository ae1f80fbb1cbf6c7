import type { Standing } from '../../../core/roster'
import { inBatches } from '../../database/batches'
import type { Db } from '../../database/database'

/** The school as it is, as far as a roster can change it. @param emails those of the roster */
export async function standingOf(db: Db, school: string, emails: readonly string[]): Promise<Standing> {
  const [people, classes, terms, enrolments, teachers] = [
    await db.rows<Standing['people'][number]>(
      'SELECT id, outside_id AS outsideId, name, email, role, state FROM person WHERE school_id = ? AND guest = 0',
      [school],
    ),
    await db.rows<Omit<Standing['classes'][number], 'filed'> & { filed: number }>(
      'SELECT id, outside_id AS outsideId, name, filed, term_id AS term FROM class WHERE school_id = ? AND link_of IS NULL',
      [school],
    ),
    await db.rows<Standing['terms'][number]>(
      'SELECT id, outside_id AS outsideId, name, starts, ends FROM term WHERE school_id = ?',
      [school],
    ),
    await db.rows<Standing['enrolments'][number]>(
      'SELECT e.class_id AS class, e.person_id AS person FROM enrolment e JOIN class c ON c.id = e.class_id WHERE c.school_id = ? AND c.link_of IS NULL',
      [school],
    ),
    await db.rows<Standing['teachers'][number]>(
      'SELECT t.class_id AS class, t.person_id AS person FROM class_teacher t JOIN class c ON c.id = t.class_id WHERE c.school_id = ?',
      [school],
    ),
  ]
  const elsewhere: string[] = []
  await inBatches(emails, 2000, async (part) => {
    const rows = await db.rows<{ email: string }>('SELECT email FROM person WHERE email IN (?) AND school_id <> ?', [
      part,
      school,
    ])
    elsewhere.push(...rows.map((row) => row.email))
  })
  return {
    people,
    classes: classes.map((each) => ({ ...each, filed: Boolean(each.filed) })),
    terms,
    enrolments,
    teachers,
    elsewhere,
  }
}

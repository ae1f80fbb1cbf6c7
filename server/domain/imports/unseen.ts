import type { z } from 'zod'
import { unseenBy, type Unseen } from '../../../formats'
import type { Db } from '../../database/database'
import type { Person } from '../../people/people'
import { outgoingFor, type giveRequest } from './give'

/** What readers of a file will not see of the questions in it, before it is written: only those of which there is something. */
export async function lookAtUnseen(
  db: Db,
  person: Person,
  { questions, as }: z.infer<typeof giveRequest>,
): Promise<Unseen[]> {
  return unseenBy(as, await outgoingFor(db, person, questions))
}

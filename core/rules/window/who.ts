import { list } from '../../kit/phrases'
import type { Audience } from '../../schedule/assigned'
import type { Reading } from '../rule'

/** Names of those whom ids stand for, in a sentence. */
export const namesOf = (ids: readonly string[], names: Reading['names'], gone: string): string[] =>
  ids.map((each) => names.get(each) ?? gone)

/** For whom something is: classes, groups and students. */
export function whoWords(
  { classes = [], groups, students }: Omit<Audience, 'classes'> & Partial<Audience>,
  names: Reading['names'],
): string {
  return list([
    ...namesOf(classes, names, 'a class that is gone'),
    ...namesOf(groups, names, 'a group that is gone'),
    ...namesOf(students, names, 'somebody who is gone'),
  ])
}

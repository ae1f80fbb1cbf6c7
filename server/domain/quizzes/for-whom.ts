import { z } from 'zod'
import { id } from '../../../core/question'
import type { ForWhom } from '../../../core/quiz/more-time'

/** For whom something is done: a class, a student; everybody where neither is named. */
export const forWhom = z.strictObject({ inClass: id.optional(), student: id.optional() })

export function readWhom({ inClass, student }: z.infer<typeof forWhom>): ForWhom {
  if (student !== undefined) return { students: [student] }
  return inClass === undefined ? { everybody: true } : { inClass }
}

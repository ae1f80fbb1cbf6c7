import { z } from 'zod'
import { id } from '../../../../../core/question'
import { addRemark, newRemark } from '../../../../domain/bank/questions/remarks'
import { route } from '../../../../utils/route'

/** A remark to colleagues, or a doubt: something is wrong here. */
export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: newRemark,
  handle: ({ db, person, params, body, now }) => addRemark(db, person, params.id, body, now),
})

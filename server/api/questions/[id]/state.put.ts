import { z } from 'zod'
import { id } from '../../../../core/question'
import { setQuestionState } from '../../../domain/bank/questions/questions'
import { route } from '../../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  body: z.strictObject({ retired: z.boolean() }),
  async handle({ db, person, params, body, now }) {
    await setQuestionState(db, person, params.id, body.retired, now)
    return { retired: body.retired }
  },
})

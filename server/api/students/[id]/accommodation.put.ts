import { z } from 'zod'
import { id } from '../../../../core/question'
import { need, setAccommodation } from '../../../domain/classes/needs'
import { route } from '../../../utils/route'

export default route({
  right: 'studentTeacher',
  params: z.object({ id }),
  body: need,
  async handle({ db, person, params, body, now }) {
    await setAccommodation(db, person, params.id, body, now)
    return body
  },
})

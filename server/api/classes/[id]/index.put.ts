import { z } from 'zod'
import { id } from '../../../../core/question'
import { changeClass, classChange } from '../../../domain/classes/keeping'
import { route } from '../../../utils/route'

export default route({
  right: 'classTeacher',
  params: z.object({ id }),
  body: classChange,
  handle: ({ db, person, params, body, now }) => changeClass(db, person, params.id, body, now),
})

import { z } from 'zod'
import { id } from '../../../../../../core/question'
import { groupSpec, keepGroup } from '../../../../../domain/classes/groups'
import { route } from '../../../../../utils/route'

export default route({
  right: 'classTeacher',
  params: z.object({ id, group: id }),
  body: groupSpec,
  handle: ({ db, person, params, body, now }) => keepGroup(db, person, params.id, body, now, params.group),
})

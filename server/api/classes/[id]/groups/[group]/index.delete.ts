import { z } from 'zod'
import { id } from '../../../../../../core/question'
import { dropGroup } from '../../../../../domain/classes/groups'
import { route } from '../../../../../utils/route'

export default route({
  right: 'classTeacher',
  params: z.object({ id, group: id }),
  handle: ({ db, person, params, now }) => dropGroup(db, person, params.id, params.group, now),
})

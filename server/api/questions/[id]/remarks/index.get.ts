import { z } from 'zod'
import { id } from '../../../../../core/question'
import { listRemarks } from '../../../../domain/bank/questions/remarks'
import { route } from '../../../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params }) => listRemarks(db, person, params.id),
})

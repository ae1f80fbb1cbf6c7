import { z } from 'zod'
import { id } from '../../../core/question'
import { removeStimulus } from '../../domain/bank/material/stimuli'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  params: z.object({ id }),
  handle: ({ db, person, params }) => removeStimulus(db, person, params.id),
})

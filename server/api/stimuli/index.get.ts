import { z } from 'zod'
import { listStimuli } from '../../domain/bank/material/stimuli'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  query: z.object({ words: z.string().max(200).default('') }),
  handle: ({ db, person, query }) => listStimuli(db, person, query.words),
})

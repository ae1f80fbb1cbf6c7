import { z } from 'zod'
import { id } from '../../../../core/question'
import { mediaLimits } from '../../../domain/bank/material/media'
import { keepRecording } from '../../../domain/sittings/recordings'
import { readBytes } from '../../../utils/body'
import { route } from '../../../utils/route'

/** A student's recording, as the bytes of the request; the answer that names it is saved like any other. */
export default route({
  right: 'student',
  params: z.object({ id }),
  handle: async ({ event, db, person, params, now }) =>
    keepRecording(
      db,
      person,
      params.id,
      await readBytes(event, mediaLimits.sound, 'A recording may have at most 10 MB. Make it shorter.'),
      now,
    ),
})

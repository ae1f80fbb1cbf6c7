import { z } from 'zod'
import { id } from '../../../../core/question'
import { mediaLimits } from '../../../domain/bank/material/media'
import { keepRecording } from '../../../domain/sittings/recordings'
import { route } from '../../../utils/route'

/** A student's recording, as the bytes of the request; the answer that names it is saved like any other. */
export default route({
  right: 'student',
  params: z.object({ id }),
  bytes: { most: mediaLimits.sound, sentence: 'A recording may have at most 10 MB. Make it shorter.' },
  handle: ({ db, person, params, bytes, now }) => keepRecording(db, person, params.id, bytes, now),
})

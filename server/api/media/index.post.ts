import { addMedia, mediaLimit } from '../../domain/bank/material/media'
import { readBytes } from '../../utils/body'
import { route } from '../../utils/route'

/** A picture, a sound or a film, as the bytes of the request. */
export default route({
  right: 'teacher',
  handle: async ({ event, db, person, now }) =>
    addMedia(
      db,
      person,
      await readBytes(
        event,
        mediaLimit,
        'A film may have at most 40 MB, a sound 10 MB, a picture 4 MB. Make it smaller and try again.',
      ),
      now,
    ),
})

import { addMedia, mediaLimit } from '../../domain/bank/material/media'
import { route } from '../../utils/route'

/** A picture, a sound, a film or a PDF, as the bytes of the request. */
export default route({
  right: 'teacher',
  bytes: {
    most: mediaLimit,
    sentence:
      'A film may have at most 40 MB, a PDF 20 MB, a sound 10 MB, a picture 4 MB. Make it smaller and try again.',
  },
  handle: ({ db, person, bytes, now }) => addMedia(db, person, bytes, now),
})

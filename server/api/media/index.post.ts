import { addPicture, pictureLimit } from '../../domain/bank/media'
import { Problem } from '../../domain/problem'
import { route } from '../../utils/route'

/** A picture, as the bytes of the request. */
export default route({
  right: 'teacher',
  async handle({ event, db, person, now }) {
    if (Number(getHeader(event, 'content-length') ?? 0) > pictureLimit) throw new Problem(413, 'too-large', 'A picture may have at most 4 MB. Make it smaller and try again.')
    return { src: await addPicture(db, person, await readRawBody(event, false) ?? Buffer.alloc(0), now) }
  },
})

import { z } from 'zod'
import { inThread } from '../../utils/job'
import { route } from '../../utils/route'

/** A file of questions, as the bytes of the request: read, and shown with what would come. Nothing is in the bank yet. */
export default route({
  right: 'teacher',
  query: z.object({ name: z.string().max(200).default('file') }),
  bytes: {
    most: 60 * 1024 * 1024,
    sentence: 'A file may have at most 60 MB. Part it and bring the parts in one after another.',
  },
  handle(context) {
    const { person, query, bytes, now } = context
    const own = new Uint8Array(bytes)
    return inThread(context, 'stageFile', [person, own, query.name, now], [own.buffer])
  },
})

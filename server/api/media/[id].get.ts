import { z } from 'zod'
import { loadPicture } from '../../domain/bank/media'
import { route } from '../../utils/route'

/** Pictures have the digest of their bytes as their name, so they never change. */
export default route({
  right: 'signedIn',
  params: z.object({ id: z.string().regex(/^[a-f0-9]{64}$/, 'This is not the address of a picture.') }),
  async handle({ event, db, person, params }) {
    const { type, bytes } = await loadPicture(db, person, params.id)
    setHeaders(event, { 'content-type': type, 'cache-control': 'private, max-age=31536000, immutable', 'content-security-policy': 'default-src \'none\'' })
    return bytes
  },
})

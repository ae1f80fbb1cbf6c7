import { z } from 'zod'
import { loadMedia } from '../../domain/bank/material/media'
import { route } from '../../utils/route'

/** Files have the digest of their bytes as their name, so they never change. Sound and film are sent in parts when asked (RFC 9110 §14). */
export default route({
  right: 'signedIn',
  params: z.object({ id: z.string().regex(/^[a-f0-9]{64}$/, 'This is not the address of a file.') }),
  async handle({ event, db, person, params }) {
    const { type, bytes } = await loadMedia(db, person, params.id)
    setHeaders(event, {
      'content-type': type,
      'cache-control': 'private, max-age=31536000, immutable',
      'content-security-policy': "default-src 'none'",
      'accept-ranges': 'bytes',
      // A document is kept by the browser: it does not take the place of a paper that is being sat.
      ...(type === 'application/pdf' ? { 'content-disposition': 'attachment' } : {}),
    })
    const asked = /^bytes=(\d+)-(\d*)$/.exec(getHeader(event, 'range') ?? '')
    if (!asked) return bytes
    const [from, to] = [Number(asked[1]), Math.min(asked[2] ? Number(asked[2]) : bytes.length - 1, bytes.length - 1)]
    if (from > to) {
      setHeader(event, 'content-range', `bytes */${bytes.length}`)
      setResponseStatus(event, 416)
      return ''
    }
    setHeader(event, 'content-range', `bytes ${from}-${to}/${bytes.length}`)
    setResponseStatus(event, 206)
    return bytes.subarray(from, to + 1)
  },
})

import { giveFile, giveRequest } from '../../domain/imports/give'
import { route } from '../../utils/route'

/** Questions as a file: Thistle's JSON, CSV, or a QTI package. */
export default route({
  right: 'teacher',
  body: giveRequest,
  async handle({ event, db, person, body }) {
    const { bytes, type, name } = await giveFile(db, person, body)
    setHeaders(event, { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` })
    return bytes
  },
})

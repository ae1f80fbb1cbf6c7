import { giveRequest } from '../../domain/imports/give'
import { resultOfThread } from '../../utils/job'
import { route } from '../../utils/route'

/** Questions as a file: Thistle's JSON, CSV, or a QTI package. */
export default route({
  right: 'teacher',
  body: giveRequest,
  async handle(context) {
    const { event, person, body } = context
    const { bytes, type, name } = await resultOfThread(context, 'giveFile', [person, body])
    setHeaders(event, { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` })
    return Buffer.from(bytes.buffer)
  },
})

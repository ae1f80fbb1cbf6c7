import { thistleFileSchema } from '../../../formats/json/thistle'
import { route } from '../../utils/route'

/** The JSON Schema of Thistle's own file of questions. */
export default route({
  right: 'anyone',
  handle({ event }) {
    setHeader(event, 'content-type', 'application/schema+json')
    return thistleFileSchema()
  },
})

import { plainTemplate } from '../../../formats/roster/plain-csv'
import { sendFile } from '../../utils/send-file'
import { route } from '../../utils/route'

/** A plain roster to fill in. */
export default route({
  right: 'teacher',
  handle: ({ event }) =>
    sendFile(event, { name: 'roster-template.csv', type: 'text/csv; charset=utf-8', bytes: `\uFEFF${plainTemplate}` }),
})

import { z } from 'zod'
import { csvTemplate } from '../../../formats/csv/write'
import { sheetTypes } from '../../../formats/sheet'
import { sheetTemplate } from '../../../formats/sheet/write'
import { route } from '../../utils/route'

/** A table with the header and a line for each of the commonest kinds, to write questions into. */
export default route({
  right: 'teacher',
  query: z.object({ as: z.enum(['csv', 'xlsx', 'ods']).default('csv') }),
  handle({ event, query: { as } }) {
    setHeaders(event, {
      'content-type': as === 'csv' ? 'text/csv; charset=utf-8' : sheetTypes[as],
      'content-disposition': `attachment; filename="questions-template.${as}"`,
    })
    return as === 'csv' ? csvTemplate() : Buffer.from(sheetTemplate(as))
  },
})

import { csvTemplate } from '../../../formats/csv/questions'
import { route } from '../../utils/route'

/** A CSV file with the header and a line for each of the commonest kinds. */
export default route({
  right: 'teacher',
  handle({ event }) {
    setHeaders(event, {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="questions-template.csv"',
    })
    return csvTemplate()
  },
})

import { z } from 'zod'
import { giveObjectives, objectivesFile } from '../../domain/bank/describing/objectives'
import { route } from '../../utils/route'

/** The school's objectives as CASE or CSV. */
export default route({
  right: 'teacher',
  query: z.object({ as: objectivesFile }),
  async handle({ event, db, person, query, now }) {
    const { text, type, name } = await giveObjectives(db, person, query.as, now)
    setHeaders(event, { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` })
    return text
  },
})

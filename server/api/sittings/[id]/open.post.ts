import { z } from 'zod'
import { id, readingLanguage } from '../../../../core/question'
import { openSitting } from '../../../domain/sittings/sitting'
import { hasMathsToDraw } from '../../../domain/bank/material/clean-html'
import { resultOfThread } from '../../../utils/job'
import { route } from '../../../utils/route'

/** The whole sheet, the answers kept and the clock; this device gets the lease. */
export default route({
  right: 'student',
  params: z.object({ id }),
  body: z.strictObject({ device: id, language: readingLanguage.nullish() }),
  async handle(context) {
    const { db, person, params, body, now } = context
    const opened = await openSitting(db, person.id, params.id, body.device, now, body.language)
    // Only varying questions have maths that was not drawn when they were frozen.
    return hasMathsToDraw(opened.sheet)
      ? { ...opened, sheet: await resultOfThread(context, 'sheetWithMaths', [opened.sheet]) }
      : opened
  },
})

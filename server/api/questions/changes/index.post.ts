import { bulkRequest, changeMany } from '../../../domain/bank/questions/bulk'
import { route } from '../../../utils/route'

/** Changes many questions at once. */
export default route({
  right: 'teacher',
  body: bulkRequest,
  handle: ({ db, person, body, now }) => changeMany(db, person, body, now),
})

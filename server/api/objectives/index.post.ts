import { addObjective, objectiveBody } from '../../domain/bank/describing/objectives'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: objectiveBody,
  handle: ({ db, person, body, now }) => addObjective(db, person, body, now),
})

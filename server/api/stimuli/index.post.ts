import { stimulus } from '../../../core/question'
import { addStimulus } from '../../domain/bank/material/stimuli'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: stimulus,
  handle: ({ db, person, body, now }) => db.transaction((tx) => addStimulus(tx, person, body, now)),
})

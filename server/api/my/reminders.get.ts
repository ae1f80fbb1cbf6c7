import { ownReminders } from '../../domain/letters/reminders'
import { route } from '../../utils/route'

export default route({ right: 'student', handle: ({ db, person }) => ownReminders(db, person.id) })

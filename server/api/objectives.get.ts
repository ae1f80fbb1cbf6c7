import { objectives } from '../domain/bank/search'
import { route } from '../utils/route'

export default route({ right: 'teacher', handle: ({ db, person }) => objectives(db, person) })

import { savedSearches } from '../../domain/bank/finding/saved-searches'
import { route } from '../../utils/route'

export default route({ right: 'teacher', handle: ({ db, person }) => savedSearches(db, person) })

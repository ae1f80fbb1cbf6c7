import { savedSearches } from '../../domain/bank/saved-searches'
import { route } from '../../utils/route'

export default route({ right: 'teacher', handle: ({ db, person }) => savedSearches(db, person) })

import { newSavedSearch, saveSearch } from '../../domain/bank/finding/saved-searches'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: newSavedSearch,
  handle: ({ db, person, body }) => saveSearch(db, person, body),
})

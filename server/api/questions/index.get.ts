import { searchQuery, searchQuestions } from '../../domain/bank/finding/search'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  query: searchQuery,
  handle: ({ db, person, query, now }) => searchQuestions(db, person, query, now),
})

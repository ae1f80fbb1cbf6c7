import { listPeople, peopleQuery } from '../../domain/people/people'
import { route } from '../../utils/route'

export default route({
  right: 'admin',
  query: peopleQuery,
  handle: ({ db, person, query }) => listPeople(db, person, query),
})

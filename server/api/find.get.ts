import { z } from 'zod'
import { find } from '../domain/find/find'
import { route } from '../utils/route'

/** Whatever one may see, by typing. */
export default route({
  right: 'signedIn',
  query: z.object({ words: z.string().max(200, 'Search for at most 200 characters.').default('') }),
  handle: ({ db, person, query, now }) => find(db, person, query.words, now),
})

import { Problem } from '../domain/problem'
import { sendProblem } from '../utils/route'

/** What no route has. */
export default defineEventHandler((event) =>
  sendProblem(event, new Problem(404, 'no-route', 'There is nothing at this address.')),
)

import { z } from 'zod'
import { id } from '../../../../core/question'
import { serverNow } from '../../../clock'
import { mayTeach } from '../../../domain/quizzes/quizzes'
import { signedInPerson } from '../../../people/session-cookie'
import { quizFeed } from '../../../utils/feed'
import { route } from '../../../utils/route'

const beat = 15_000

/** Server-sent events: the newest revision, and who else is here, as they change. */
export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  query: z.object({ page: z.string().regex(/^[a-z0-9]{4,20}$/) }),
  async handle({ event, db, person, params, query }) {
    const stream = createEventStream(event)
    // As a request of this page would be answered now: session, person, role, school and right to the quiz.
    const mayHear = async () => {
      const now = await signedInPerson(event, db, serverNow())
      if (now?.id !== person.id || now.role !== person.role || now.school !== person.school) return false
      return mayTeach(db, person.id, params.id)
    }
    const leave = await quizFeed.follow(params.id, query.page, person, mayHear, (news) => {
      const [name] = Object.keys(news)
      // A process that stops only hangs up: the browser finds another by itself.
      if (!('closing' in news)) void stream.push({ event: name!, data: JSON.stringify(news) })
      if ('ended' in news || 'closing' in news) void stream.close()
    })
    // What stands between may cut a line on which nothing is said.
    const beating = setInterval(() => void stream.push({ event: 'beat', data: '' }), beat)
    stream.onClosed(() => {
      clearInterval(beating)
      leave()
    })
    return stream.send()
  },
})

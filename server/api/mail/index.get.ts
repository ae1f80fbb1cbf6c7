import { listLetters } from '../../domain/outbox'
import { staysHere } from '../../standins/mail/post'
import { route } from '../../utils/route'

/** What was sent. Letters hold links that let somebody in: who runs the school reads them where no mail leaves the machine. */
export default route({
  right: 'admin',
  handle: async ({ db, person }) => {
    const stays = staysHere()
    const letters = await listLetters(db, person.school)
    return { stays, letters: stays ? letters : letters.map((letter) => ({ ...letter, body: '' })) }
  },
})

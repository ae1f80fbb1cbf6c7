import { z } from 'zod'
import { firstStart, makeSchool } from '../../domain/people/first-start'
import { Problem } from '../../domain/problem'
import { isFirstWord } from '../../first-word'
import { currentSession } from '../../people/current-session'
import { findPerson } from '../../people/people'
import { signInto } from '../../people/session-cookie'
import { countedTry, mostForAccount } from '../../people/tries'
import { route } from '../../utils/route'

/** Sets the school and its first teacher up, where there is none yet, and signs them in. */
export default route({
  right: 'anyone',
  body: firstStart.extend({ word: z.string().max(60).default('') }),
  async handle({ event, db, body: { word, ...body }, now }) {
    const isRight = await countedTry(db, [{ by: 'first word', most: mostForAccount }], now, () => isFirstWord(word))
    if (!isRight)
      throw new Problem(403, 'first-word', 'This is not the word that the start command printed. Look there again.')
    const person = (await findPerson(db, await makeSchool(db, body, now)))!
    await signInto(event, db, person.id, now)
    return currentSession(db, person, now)
  },
})

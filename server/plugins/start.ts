import { currentDatabase } from '../database/current'
import { shownCode } from '../../core/people'
import { firstWord } from '../first-word'
import { addressFault } from '../own-address'
import { hasSchool } from '../people/people'

/** Says what a process needs before it serves, and the word for a first start that can be reached from elsewhere. */
export default defineNitroPlugin(() => {
  const fault = addressFault()
  if (fault) {
    console.error(fault)
    process.exit(1)
  }
  const word = firstWord()
  if (word === null) return
  hasSchool(currentDatabase())
    .then((there) => {
      if (!there) console.log(`No school has been set up yet. Setting it up asks for this word: ${shownCode(word)}`)
    })
    .catch(() => {
      /* With its database away it says so elsewhere. */
    })
})

import { firstWord } from '../../first-word'
import { route } from '../../utils/route'

/** Whether setting the school up asks for the word that the start command printed. */
export default route({
  right: 'anyone',
  handle: () => ({ asksWord: firstWord() !== null }),
})

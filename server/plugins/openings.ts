import { serverNow } from '../clock'
import { again, usualPause } from '../utils/again'
import { inThreadByItself } from '../utils/job'

/** Every process opens quizzes whose time has come, in a thread. */
export default defineNitroPlugin((nitro) => {
  const end = again('openings', usualPause(), () => inThreadByItself('openDue', [serverNow()]))
  nitro.hooks.hook('close', end)
})

import { quizFeed } from '../utils/feed'

export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('close', () => {
    quizFeed.close()
  })
})

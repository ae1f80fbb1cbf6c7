import { serverNow } from '../clock'
import { currentDatabase } from '../database/current'
import { sendDue } from '../domain/outbox'
import { currentPost } from '../standins/mail/post'
import { again, usualPause } from '../utils/again'
import { inThreadByItself } from '../utils/job'

/**
 * Every process writes letters of quizzes that are due, in a thread, and sends those that are written: a mail server that answers slowly holds up nothing else.
 */
export default defineNitroPlugin((nitro) => {
  const ends = [
    again('letters of quizzes', usualPause(), () => inThreadByItself('tellQuizzes', [serverNow()])),
    again('letters', usualPause(), async () => sendDue(currentDatabase(), await currentPost(), serverNow())),
  ]
  nitro.hooks.hook('close', () => {
    for (const end of ends) end()
  })
})

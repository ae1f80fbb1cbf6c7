import { serverNow } from '../clock'
import { currentDatabase } from '../database/current'
import { sendDue } from '../domain/outbox'
import { currentPost } from '../standins/mail/post'

/** Every process sends letters that are due, at its own uneven pace: a mail server that answers slowly holds up nothing else. */
export default defineNitroPlugin((nitro) => {
  const pause = Number(process.env.THISTLE_SWEEP_SECONDS ?? 10) * 1000
  let timer: NodeJS.Timeout
  const send = async () => {
    try {
      await sendDue(currentDatabase(), await currentPost(), serverNow())
    } catch (error) {
      console.error('letters', error)
    }
    timer = setTimeout(send, pause * (0.5 + Math.random()))
  }
  timer = setTimeout(send, pause * Math.random())
  nitro.hooks.hook('close', () => clearTimeout(timer))
})

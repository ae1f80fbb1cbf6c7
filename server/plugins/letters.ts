import { serverNow } from '../clock'
import { currentDatabase } from '../database/current'
import { sendDue } from '../domain/outbox'
import { currentPost } from '../standins/mail/post'
import { inThreadByItself } from '../utils/job'

/**
 * Every process writes letters of quizzes that are due, in a thread, and sends those that are written, at its own uneven
 * pace: a mail server that answers slowly holds up nothing else.
 */
export default defineNitroPlugin((nitro) => {
  const pause = Number(process.env.THISTLE_SWEEP_SECONDS ?? 10) * 1000
  const timers = new Set<NodeJS.Timeout>()
  /** Does something again and again, with uneven pauses. */
  const again = (what: string, work: () => Promise<unknown>) => {
    const turn = async () => {
      await work().catch((error: unknown) => {
        console.error(what, error)
      })
      wait(pause * (0.5 + Math.random()))
    }
    const wait = (milliseconds: number) => {
      const timer = setTimeout(() => {
        timers.delete(timer)
        void turn()
      }, milliseconds)
      timers.add(timer)
    }
    wait(pause * Math.random())
  }
  again('letters of quizzes', () => inThreadByItself('tellQuizzes', [serverNow()]))
  again('letters', async () => sendDue(currentDatabase(), await currentPost(), serverNow()))
  nitro.hooks.hook('close', () => {
    for (const timer of timers) clearTimeout(timer)
  })
})

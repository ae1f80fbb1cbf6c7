import { endProgram, isEnding } from './programs.mjs'
import { say } from './say.mjs'

/** Seconds before the next try, longer while it keeps ending. */
const pauses = [0.2, 0.5, 1, 2, 5]
/** What has run so many milliseconds had started well. */
const well = 60_000

/**
 * Keeps a program running: where it ends by itself, that is said and it is started again, on and on.
 * @param {string} name for a sentence: “The server”
 * @param {() => Promise<import('node:child_process').ChildProcess>} start resolves when it serves; rejects when it did not
 * @returns {Promise<{ stop: () => Promise<void> }>} rejects when the very first start fails
 */
export async function keepRunning(name, start) {
  let child = await start()
  let stopped = false
  let failed = 0
  const after = (since) => async (code, signal) => {
    if (stopped || isEnding()) return
    if (Date.now() - since > well) failed = 0
    const pause = pauses[Math.min(failed++, pauses.length - 1)]
    say(`${name} ended by itself (${signal ?? `code ${code}`}). It is started again …`)
    await new Promise((done) => setTimeout(done, pause * 1000))
    if (stopped || isEnding()) return
    const began = Date.now()
    try {
      child = await start()
      say(`${name} runs again.`)
      child.once('exit', after(began))
      if (child.exitCode !== null || child.signalCode !== null) await after(began)(child.exitCode, child.signalCode)
    } catch (error) {
      say(error.message)
      await after(began)(null, 'before it served')
    }
  }
  child.once('exit', after(Date.now()))
  return {
    stop: () => {
      stopped = true
      return endProgram(child)
    },
  }
}

import { clockFault } from '../clock'

/** Does something again and again, with uneven pauses, so that processes do not meet. @returns what ends it */
export function again(what: string, pause: number, work: () => Promise<unknown>): () => void {
  let timer: NodeJS.Timeout
  const turn = async () => {
    try {
      // What this process would do at a wrong time, others do at the right one.
      if (clockFault().serves) await work()
    } catch (error) {
      console.error(what, error)
    }
    timer = setTimeout(turn, pause * (0.5 + Math.random()))
  }
  timer = setTimeout(turn, pause * Math.random())
  return () => clearTimeout(timer)
}

/** Milliseconds between the turns of what every process does by itself. */
export const usualPause = (): number => Number(process.env.THISTLE_SWEEP_SECONDS ?? 10) * 1000

/** A first start that is cut off at any moment, asked or killed outright, is made good by the next one. */
import { expect, it } from 'vitest'
import { startsIn } from '../support/started'

const start = startsIn('first-starts')

const moments = [
  ['SIGINT', 900],
  ['SIGTERM', 2600],
  ['SIGINT', 300],
  ['SIGHUP', 1800],
  ['SIGTERM', 4000],
  ['SIGINT', 6000],
] as const
it.each(moments)(
  'ends on the first %s after %i ms of a first start, and starts the next time',
  async (signal, after) => {
    const data = `cut-${after}`
    const cut = await start(data)
    cut.running()
    await new Promise((done) => setTimeout(done, after))
    cut.running()
    process.kill(-cut.child.pid!, signal)
    await cut.until('everything to end on the first signal', cut.ended, 25)

    // And cut off at the same moment without any warning.
    const killed = await start(`${data}-killed`)
    await new Promise((done) => setTimeout(done, after))
    killed.killAll()

    for (const name of [data, `${data}-killed`]) {
      const again = await start(name)
      await again.until('the next start to serve', again.serves, 90)
      const people = (await (await fetch(`${again.address}/api/session/demo`)).json()) as unknown[]
      expect(people.length).toBeGreaterThan(10)
      process.kill(-again.child.pid!, 'SIGTERM')
      await again.until('everything to end', again.ended, 25)
    }
  },
  180_000,
)

/** npm start, as people run it: it ends when it should, and only then. */
import { readFileSync } from 'node:fs'
import { it } from 'vitest'
import { startsIn } from '../support/started'

const start = startsIn('start')

/** Seconds of processor time that a process has taken. */
const cpuOf = (pid: number) => {
  const stat = readFileSync(`/proc/${pid}/stat`, 'latin1')
  const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
  return (Number(fields[11]) + Number(fields[12])) / 100
}

/** What a process takes of a processor in the next second: one that tries for ever takes all of it, second after second. */
const cpuInASecond = async (pid: number) => {
  const before = cpuOf(pid)
  await new Promise((done) => setTimeout(done, 1000))
  return cpuOf(pid) - before
}

it('starts its server and its database again when they die, goes on with nobody listening, ends when it is killed outright', async () => {
  const thistle = await start('one')
  await thistle.until('the first page', thistle.serves, 90)

  process.kill(thistle.named('server/index.mjs').pid, 'SIGKILL')
  await thistle.until('the server to be missed', () => thistle.said.includes('The server ended by itself (SIGKILL)'))
  await thistle.until('the server to serve again', thistle.serves)

  process.kill(thistle.named('mariadbd').pid, 'SIGKILL')
  await thistle.until('the database to be missed', () =>
    thistle.said.includes('The database ended by itself (SIGKILL)'),
  )
  await thistle.until('the database to be there again', thistle.serves)

  // Nobody reads any more: what cannot be said is not tried for ever.
  thistle.child.stdout!.destroy()
  thistle.child.stderr!.destroy()
  const server = thistle.named('server/index.mjs').pid
  process.kill(thistle.named('mariadbd').pid, 'SIGKILL')
  await thistle.until('the database to be missed silently', async () => !(await thistle.serves()))
  await thistle.until('the database to be there again', thistle.serves)
  await thistle.until('the server to rest', async () => (await cpuInASecond(server)) < 0.3, 3)

  // npm is killed outright: it can tell nobody.
  process.kill(thistle.child.pid!, 'SIGKILL')
  await thistle.until('everything to end', thistle.ended, 25)
}, 300_000)

it('ends, killed outright itself', async () => {
  const thistle = await start('one')
  await thistle.until('a second start', thistle.serves)
  process.kill(thistle.named('scripts/start.mjs').pid, 'SIGKILL')
  await thistle.until('everything to end', thistle.ended, 25)
}, 300_000)

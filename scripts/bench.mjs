/** npm run bench: measures, prints a table and writes bench/latest.json as {name: {value, unit}}. */
import { spawn, spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { freePort, startMariadb } from './lib/mariadb.mjs'
import { root } from './lib/packages.mjs'
import { ready } from './lib/ready.mjs'
import { say, stopWith } from './lib/say.mjs'

await ready({ programs: ['mariadbd', 'chromium'], built: true })

const results = {}
/** How fast the machine was while each was measured. */
const speeds = {}
const reference = JSON.parse(readFileSync(join(root, 'bench', 'reference.json'), 'utf8'))

/** One measuring script in a process of its own; its last line is JSON. */
function measured(file, env = {}) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['--import', 'tsx', join(root, 'bench', file)], {
    cwd: root,
    encoding: 'utf8',
    // The longest takes under a minute: what hangs is told, not waited for.
    timeout: 300_000,
    env: { ...process.env, ...env },
  })
  if (status !== 0) stopWith(`${file} failed:\n${stderr}`)
  return JSON.parse(stdout.trim().split('\n').at(-1))
}

/** The speed of this machine just now: 1 where the reference was taken. */
const speedNow = () => measured('speed.ts')['machine.pieces'].value / reference['machine.pieces'].value
let speed = speedNow()
results['machine.speed'] = { value: Number(speed.toFixed(2)), unit: '× reference' }

/** Keeps results with the speed of the machine around them: it differs from minute to minute where others share it. */
function note(found) {
  const before = speed
  speed = speedNow()
  for (const name of Object.keys(found)) speeds[name] = (before + speed) / 2
  Object.assign(results, found)
}
const measure = (file, env) => note(measured(file, env))

/** Seconds of an npm start, to the first served page. */
async function start(folder) {
  const port = await freePort()
  const began = Date.now()
  const child = spawn('npm', ['start'], {
    cwd: root,
    stdio: 'ignore',
    detached: true,
    env: { ...process.env, THISTLE_PORT: String(port), THISTLE_DATA: folder },
  })
  const ended = new Promise((done) => child.once('exit', done))
  for (;;) {
    if (child.exitCode !== null) stopWith('npm start ended before it served a page.')
    const reply = await fetch(`http://127.0.0.1:${port}/`).catch(() => null)
    if (reply?.ok && (await reply.text()).includes('__nuxt')) break
    await new Promise((done) => setTimeout(done, 20))
  }
  const seconds = (Date.now() - began) / 1000
  process.kill(-child.pid, 'SIGINT')
  await ended
  return seconds
}

measure('paper.ts')
measure('score.ts')
measure('figures.ts')
measure('blueprint.ts')
measure('rules.ts')
measure('media.ts')
const folder = mkdtempSync(join(tmpdir(), 'thistle-bench-'))
const database = await startMariadb(folder)
try {
  measure('answers.ts', { THISTLE_DATABASE_URL: database.url })
  measure('sitting-page.ts', { THISTLE_DATABASE_URL: database.url })
  measure('import.ts', { THISTLE_DATABASE_URL: database.url })
  measure('bank.ts', { THISTLE_DATABASE_URL: database.url })
  measure('find.ts', { THISTLE_DATABASE_URL: database.url })
  measure('bank-list.ts', { THISTLE_DATABASE_URL: database.url })
  measure('longest-wait.ts', { THISTLE_DATABASE_URL: database.url })
  measure('import-wait.ts', { THISTLE_DATABASE_URL: database.url })
  measure('lists.ts', { THISTLE_DATABASE_URL: database.url })
  measure('compose.ts', { THISTLE_DATABASE_URL: database.url })
  measure('rules-page.ts', { THISTLE_DATABASE_URL: database.url })
  measure('rehearse.ts', { THISTLE_DATABASE_URL: database.url })
  measure('rehearse-others.ts', { THISTLE_DATABASE_URL: database.url })
  measure('roster.ts', { THISTLE_DATABASE_URL: database.url })
} finally {
  await database.stop()
}
const again = join(folder, 'again')
await start(again)
note({ 'start.again': { value: Number((await start(again)).toFixed(2)), unit: 's' } })
rmSync(folder, { recursive: true, force: true })

const bounds = {
  'paper.compile': ['at least', 5000],
  'answer.save.ratio': ['at least', 0.6],
  'sitting.javascript': ['at most', 150],
  'start.again': ['at most', 5],
  'score.rate': ['at least', 100_000],
  'bank.import.rate': ['at least', 630],
  'import.wait': ['at most', 100],
  'files.media.memory': ['at most', 200],
  'bank.import.memory': ['at most', 500],
  'bank.search.p95': ['at most', 80],
  'bank.list.frame': ['at most', 50],
  'my.list': ['at least', 500],
  'quiz.open': ['at most', 1],
  'longest.wait': ['at most', 100],
  'rehearse.others': ['at most', 100],
  'figures.time': ['at most', 60],
  'figures.overlap': ['at most', 400],
  'blueprint.time': ['at most', 3],
  'blueprint.forms': ['at most', 15],
  'blueprint.large': ['at most', 10],
  'compose.edit': ['at most', 50],
  'compose.together': ['at most', 1000],
  'roster.look': ['at most', 3],
  'roster.take': ['at most', 10],
  'class.open': ['at most', 1000],
  'rules.leaks': ['at most', 150],
  'rules.dayline': ['at most', 100],
  'rules.drag': ['at most', 100],
  'release.rate': ['at least', 200_000],
  'rules.rehearse': ['at most', 300],
  'trial.run': ['at most', 5],
  'find.time': ['at most', 100],
}
/** A rate or a time as the reference machine would have it; anything else as it is. */
function onReference(name, value, unit) {
  if (unit.endsWith('/s')) return value / speeds[name]
  return unit === 's' || unit === 'ms' ? value * speeds[name] : value
}
const line = (...cells) =>
  say(cells.map((cell, i) => (i === 1 ? String(cell).padStart(12) : String(cell).padEnd(i === 0 ? 28 : 14))).join('  '))
line('measure', 'value', 'unit', 'bound')
for (const [name, { value, unit }] of Object.entries(results)) {
  const bound = bounds[name]
  const held = onReference(name, value, unit)
  const met = !bound || (bound[0] === 'at least' ? held >= bound[1] : held <= bound[1])
  const words = bound ? `${bound[0]} ${bound[1]}${met ? '' : '  MISSED'}` : ''
  line(name, value, unit, held === value ? words : `${words}  (${Number(held.toPrecision(4))} at speed 1)`)
}
mkdirSync(join(root, 'bench'), { recursive: true })
writeFileSync(join(root, 'bench', 'latest.json'), `${JSON.stringify(results, null, 2)}\n`)

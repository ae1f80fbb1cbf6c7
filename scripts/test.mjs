/**
 * npm test: brings in what is missing, then types, lint, build, unit, published, server and browser tests. Every step
 * runs even when an earlier one failed; the totals stand in the last lines.
 */
import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { setPriority, tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureBuilt } from './lib/build.mjs'
import { root } from './lib/packages.mjs'
import { ready } from './lib/ready.mjs'
import { say, stopWith } from './lib/say.mjs'

// Threads of the application stand back behind its requests (server/work/thread.ts). Here they must not stand back behind
// everything else that runs beside them too: all is as patient as they are.
setPriority(10)

await ready({ programs: ['mariadbd', 'chromium'] })

const reports = mkdtempSync(join(tmpdir(), 'thistle-report-'))
const bin = (name) => join(root, 'node_modules', '.bin', name)
const totals = { passed: 0, failed: 0, skipped: 0 }
const failed = []

/** Runs a command and shows what it said in one piece when it has ended: two run side by side. */
function step(name, command, args) {
  const began = Date.now()
  return new Promise((done) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', NO_COLOR: '1' },
    })
    const said = []
    child.stdout.on('data', (part) => said.push(part))
    child.stderr.on('data', (part) => said.push(part))
    child.once('close', (status) => {
      process.stdout.write(Buffer.concat(said))
      say(`${status === 0 ? 'ok' : 'FAILED'}: ${name} (${Math.round((Date.now() - began) / 1000)} s)`)
      if (status !== 0) failed.push(name)
      done()
    })
  })
}

/**
 * The tests of one project of vitest.config.ts; none at all counts as a failure.
 * @param shard "1/2" for the first half of its files
 */
async function tests(project, shard) {
  const name = `${project} tests${shard ? `, ${shard}` : ''}`
  const report = join(reports, `${name.replace(/\W+/g, '-')}.json`)
  const reporters = ['--reporter', 'default', '--reporter', 'json', '--outputFile', report]
  await step(name, bin('vitest'), ['run', '--project', project, ...reporters, ...(shard ? ['--shard', shard] : [])])
  try {
    const counted = JSON.parse(readFileSync(report, 'utf8'))
    totals.passed += counted.numPassedTests
    totals.failed += counted.numFailedTests
    totals.skipped += counted.numPendingTests + counted.numTodoTests
    if (!counted.numTotalTests) failed.push(`${name} (none ran)`)
  } catch {
    failed.push(`${name} (no report)`)
  }
}

/** The application, which the browser's tests and those of routes need; types are of what it lays out. */
const built = ensureBuilt().catch((error) => stopWith(error.message))

/** The browser's tests, in parts: whichever lane is free takes the next. */
const parts = 2
let part = 0
async function browser() {
  await built
  while (part < parts) await tests('e2e', `${++part}/${parts}`)
}

/**
 * Three lanes on two cores: servers and browsers wait for much, what is checked and computed for nothing. All but the
 * format asks for the types that the build lays out.
 */
async function first() {
  await step('format', bin('prettier'), ['--check', '.'])
  await built
  await step('types of pages', bin('vue-tsc'), [
    '-b',
    '.nuxt/tsconfig.app.json',
    '.nuxt/tsconfig.node.json',
    '--noEmit',
  ])
  await step('types of all else', bin('tsc'), ['-p', 'tsconfig.tools.json'])
  await step('lint', bin('eslint'), ['.', '--max-warnings', '0'])
  await tests('unit')
  await tests('page')
  await tests('published')
  await browser()
}
async function second() {
  await built
  await tests('server')
  await browser()
}
await Promise.all([first(), second(), browser()])
rmSync(reports, { recursive: true, force: true })

if (failed.length) say(`\nFailed: ${[...new Set(failed)].join(', ')}`)
// Steps that are no tests count as failures of their own.
const broken = failed.filter((name) => !name.includes('tests')).length
say(`${totals.passed} passed, ${totals.failed + broken} failed, ${totals.skipped} skipped`)
process.exit(failed.length ? 1 : 0)

/**
 * npm test: brings in what is missing, then lint, types, build, unit, published, server and browser tests. Every step
 * runs even when an earlier one failed; the totals stand in the last lines.
 */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureBuilt } from './lib/build.mjs'
import { ensureModules, ensureProgram, root } from './lib/packages.mjs'
import { say } from './lib/say.mjs'

ensureModules()
ensureProgram('mariadbd', 'mariadb-server')
ensureProgram('chromium', 'chromium')

const reports = mkdtempSync(join(tmpdir(), 'thistle-report-'))
const bin = (name) => join(root, 'node_modules', '.bin', name)
const failed = []

function step(name, command, args) {
  const began = Date.now()
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1' } })
  say(`${status === 0 ? 'ok' : 'FAILED'}: ${name} (${Math.round((Date.now() - began) / 1000)} s)`)
  if (status !== 0) failed.push(name)
}

step('types of pages and routes', bin('nuxt'), ['typecheck'])
step('types of core, domain and tools', bin('tsc'), ['-p', 'tsconfig.tools.json'])
step('lint', bin('eslint'), ['.', '--max-warnings', '0'])
ensureBuilt()

const totals = { passed: 0, failed: 0, skipped: 0 }
for (const project of ['unit', 'published', 'server', 'e2e']) {
  const report = join(reports, `${project}.json`)
  step(`${project} tests`, bin('vitest'), ['run', '--project', project, '--reporter', 'dot', '--reporter', 'json', '--outputFile', report])
  try {
    const counted = JSON.parse(readFileSync(report, 'utf8'))
    totals.passed += counted.numPassedTests
    totals.failed += counted.numFailedTests
    totals.skipped += counted.numPendingTests + counted.numTodoTests
    if (!counted.numTotalTests) failed.push(`${project} tests (none ran)`)
  } catch {
    failed.push(`${project} tests (no report)`)
  }
}
rmSync(reports, { recursive: true, force: true })

if (failed.length) say(`\nFailed: ${[...new Set(failed)].join(', ')}`)
// Steps that are no tests count as failures of their own.
say(`${totals.passed} passed, ${totals.failed + failed.filter((name) => !name.includes('tests')).length} failed, ${totals.skipped} skipped`)
process.exit(failed.length ? 1 : 0)

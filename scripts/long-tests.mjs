/** npm run faults, npm run cluster: tests that take their time, and that npm test leaves out. */
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { root } from './lib/packages.mjs'
import { ready } from './lib/ready.mjs'

await ready({ built: true })
const project = process.argv[2]
const { status } = spawnSync(join(root, 'node_modules', '.bin', 'vitest'), ['run', '--project', project], {
  cwd: root,
  stdio: 'inherit',
})
process.exit(status ?? 1)

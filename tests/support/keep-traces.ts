/** When a browser test fails, the pictures and traces of everybody in it are kept in test-results/. */
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { afterEach } from 'vitest'
import { visitors } from './browser'

const folder = join(import.meta.dirname, '..', '..', 'test-results')
const fileName = (text: string) =>
  text
    .replace(/[^a-z0-9]+/gi, '-')
    .slice(0, 80)
    .toLowerCase()

afterEach(async ({ task }) => {
  const failed = task.result?.state === 'fail'
  for (const [index, { context, page }] of [...visitors].entries()) {
    if (!failed) {
      // What went before belongs to no failure: the next test begins a piece of its own.
      await context.tracing.stopChunk().catch(() => {})
      await context.tracing.startChunk().catch(() => {})
      continue
    }
    mkdirSync(folder, { recursive: true })
    const name = join(folder, `${fileName(task.name)}-${index + 1}`)
    await page.screenshot({ path: `${name}.png`, fullPage: true }).catch(() => {})
    await context.tracing.stopChunk({ path: `${name}.zip` }).catch(() => {})
    await context.tracing.startChunk().catch(() => {})
    console.log(`kept: ${name}.png and .zip`)
  }
})

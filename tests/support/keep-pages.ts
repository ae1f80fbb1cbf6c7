/** When a browser test fails, everybody's page is kept in test-results/ as a picture and as it stands; traces where they are asked for. */
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterEach } from 'vitest'
import { keepsTraces, visitors } from './browser'

const folder = join(import.meta.dirname, '..', '..', 'test-results')
const fileName = (text: string) =>
  text
    .replace(/[^a-z0-9]+/gi, '-')
    .slice(0, 80)
    .toLowerCase()

afterEach(async ({ task }) => {
  const failed = task.result?.state === 'fail'
  for (const [index, { context, page, faults }] of [...visitors].entries()) {
    const name = join(folder, `${fileName(task.name)}-${index + 1}`)
    if (failed) {
      mkdirSync(folder, { recursive: true })
      await page.screenshot({ path: `${name}.png`, fullPage: true }).catch(() => {})
      writeFileSync(`${name}.html`, await page.content().catch(String))
      console.log([`kept: ${name}.png and .html, of ${page.url()}`, ...faults].join('\n'))
    }
    if (!keepsTraces) continue
    // What went before belongs to no failure: the next test begins a piece of its own.
    await context.tracing.stopChunk(failed ? { path: `${name}.zip` } : {}).catch(() => {})
    await context.tracing.startChunk().catch(() => {})
  }
})

import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
// @ts-expect-error -- the start scripts are plain JavaScript: they run before anything is installed
import { startMariadb } from '../../scripts/lib/mariadb.mjs'

declare module 'vitest' {
  export interface ProvidedContext {
    mariadb: string
  }
}

/** A throw-away MariaDB for one project of tests. */
export default async function setup(project: TestProject) {
  const folder = await mkdtemp(join(tmpdir(), 'thistle-test-'))
  const server = await (
    startMariadb as (folder: string, options: { quick: boolean }) => Promise<{ url: string; stop(): Promise<void> }>
  )(folder, { quick: true })
  project.provide('mariadb', server.url)
  return async () => {
    await server.stop()
    await rm(folder, { recursive: true, force: true })
  }
}

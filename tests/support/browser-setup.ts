import type { TestProject } from 'vitest/node'
import { iso } from '../../core/kit/time'
import { laidOut } from './database'
import startDatabase from './mariadb'
import { startServer } from './server'

declare module 'vitest' {
  export interface ProvidedContext {
    scene: { url: string; address: string; now: string }
  }
}

/** A throw-away MariaDB, and on it the scene that browser tests share. */
export default async function setup(project: TestProject) {
  let root = ''
  const stopDatabase = await startDatabase({
    provide: (name: 'mariadb', url: string) => {
      root = url
      project.provide(name, url)
    },
  } as TestProject)
  const now = iso(Date.now())
  const { db, url } = await laidOut(root, 'scene', now)
  await db.close()
  const server = await startServer(url)
  project.provide('scene', { url, address: server.address, now })
  return async () => {
    await server.stop()
    await stopDatabase()
  }
}

import { longCrew, quickCrew } from '../utils/job'

/** The first text that somebody looks at does not wait for its thread to be started. */
export default defineNitroPlugin((nitro) => {
  setTimeout(() => {
    quickCrew.warmUp()
  }, 1000).unref()
  nitro.hooks.hook('close', () => {
    quickCrew.close()
    longCrew.close()
  })
})

import { closeThreads, warmUpThreads } from '../utils/job'

export default defineNitroPlugin((nitro) => {
  setTimeout(warmUpThreads, 1000).unref()
  nitro.hooks.hook('close', closeThreads)
})

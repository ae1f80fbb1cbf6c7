import { visitor } from '../tests/support/browser'

/** A visitor as tests have one, without the traces that they keep of what fails: these copy the page at every step. */
export async function untraced(...who: Parameters<typeof visitor>): ReturnType<typeof visitor> {
  const made = await visitor(...who)
  await made.context.tracing.stop()
  return made
}

import type { ByteLimit } from './body'

/** Files in base64: a third more than they are. */
export const rosterLimit: ByteLimit = {
  most: 40_000_000,
  sentence: 'These files have more than 30 MB together. Bring in fewer at a time.',
}

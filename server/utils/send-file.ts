import type { H3Event } from 'h3'

/** A file that the browser keeps under a name. */
export function sendFile(
  event: H3Event,
  { name, type, bytes }: { name: string; type: string; bytes: Uint8Array | string },
): Buffer | string {
  setHeaders(event, { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` })
  return typeof bytes === 'string' ? bytes : Buffer.from(bytes)
}

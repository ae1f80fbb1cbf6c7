import type { H3Event } from 'h3'
import { Problem } from '../domain/problem'

/**
 * The bytes of a request, at most `limit` of them. Reading stops at the limit, whatever length the request claims, so
 * that memory stays bounded.
 * @throws Problem 413 with the sentence given
 */
export async function readBytes(event: H3Event, limit: number, sentence: string): Promise<Buffer> {
  const tooLarge = () => new Problem(413, 'too-large', sentence)
  if (Number(getHeader(event, 'content-length') ?? 0) > limit) throw tooLarge()
  const parts: Buffer[] = []
  let size = 0
  for await (const part of event.node.req as AsyncIterable<Buffer>) {
    size += part.length
    if (size > limit) throw tooLarge()
    parts.push(part)
  }
  return Buffer.concat(parts)
}

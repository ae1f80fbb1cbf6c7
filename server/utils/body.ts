import { getHeader, type H3Event } from 'h3'
import { Problem } from '../domain/problem'

/** Whoever asked has gone in the middle of asking: nobody is there to be told, and nothing was done. */
export class AskerGone extends Error {
  override name = 'AskerGone'
}

/** What a route reads as bytes: at most so many, and the sentence for more. */
export interface ByteLimit {
  most: number
  sentence: string
}

/**
 * The bytes of a request. Reading stops at the limit, whatever length the request claims, so that memory stays bounded.
 * @throws Problem 413 with the sentence given
 * @throws AskerGone when the connection broke before the request was whole
 */
export async function readBytes(event: H3Event, { most: limit, sentence }: ByteLimit): Promise<Buffer> {
  const tooLarge = () => new Problem(413, 'too-large', sentence)
  if (Number(getHeader(event, 'content-length') ?? 0) > limit) throw tooLarge()
  const parts: Buffer[] = []
  let size = 0
  try {
    for await (const part of event.node.req as AsyncIterable<Buffer>) {
      size += part.length
      if (size > limit) throw tooLarge()
      parts.push(part)
    }
  } catch (error) {
    if (error instanceof Problem) throw error
    throw new AskerGone('The request broke off.', { cause: error })
  }
  if (!event.node.req.complete) throw new AskerGone('The request broke off.')
  return Buffer.concat(parts)
}

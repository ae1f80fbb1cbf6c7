import { isIPv6 } from 'node:net'
import { getHeader, type H3Event } from 'h3'

/**
 * The network address that a request comes from; of an IPv6 one the half that says whose network it is. Behind a proxy
 * of one's own (THISTLE_PROXY=on) it is the one that the proxy has added last.
 */
export function addressOf(event: H3Event): string {
  const direct = event.node.req.socket.remoteAddress ?? ''
  const forwarded = process.env.THISTLE_PROXY === 'on' ? getHeader(event, 'x-forwarded-for') : undefined
  const address = forwarded?.split(',').at(-1)?.trim() || direct
  const mapped = address.replace(/^::ffff:(?=\d+\.)/i, '')
  return isIPv6(mapped) ? network(mapped) : mapped
}

/** The first four groups of an IPv6 address, with the zeros that "::" stands for. */
function network(address: string): string {
  const [head = '', tail = ''] = address.split('::')
  const [before, after] = [head, tail].map((part) => part.split(':').filter(Boolean))
  const zeros = Array.from({ length: Math.max(0, 8 - before!.length - after!.length) }, () => '0')
  return [...before!, ...zeros, ...after!]
    .slice(0, 4)
    .map((group) => group.replace(/^0+(?=.)/, '').toLowerCase())
    .join(':')
}

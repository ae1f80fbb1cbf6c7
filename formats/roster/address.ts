import addresses from 'email-addresses'

/** Longest address that is kept: a path of RFC 5321, 4.5.3.1.3, has 254 characters; few have half of the 190 here. */
export const longestAddress = 190

/**
 * An e-mail address as it is kept, in small letters, with the name that stands before it; null where the text is none.
 * Read by RFC 5322 (a registry library), bounded by RFC 5321, 4.5.3.1: 64 octets before the "@"; and a domain of at least
 * two parts, as mail that leaves a machine has.
 */
export function readAddress(text: string): { address: string; name: string } | null {
  const trimmed = text.trim()
  if (!trimmed.includes('@') || trimmed.length > 400) return null
  const read = addresses.parseOneAddress({ input: trimmed, rfc6532: true })
  if (!read || read.type !== 'mailbox') return null
  const { local, domain, name } = read
  const labels = domain.split('.')
  const isDomain =
    labels.length > 1 && labels.every((label) => /^[\p{L}\p{N}](?:[\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?$/u.test(label))
  const address = `${local}@${domain}`.toLowerCase()
  if (!isDomain || octets(local) > 64 || address.length > longestAddress || /\s/.test(address)) return null
  return { address, name: name ?? '' }
}

const octets = (text: string) => new TextEncoder().encode(text).length

import addresses from 'email-addresses'

/** Longest address that is kept: a path of RFC 5321, 4.5.3.1.3, has 254 characters; few have half of the 190 here. */
export const longestAddress = 190

/** A dot-atom of letters and digits at a domain of at least two labels: RFC 5322, 3.4.1, at its plainest. */
const plain =
  /^[a-z0-9]+(?:[._+-][a-z0-9]+)*@(?:[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?$/i

/**
 * An e-mail address as it is kept, in small letters, with the name that stands before it; null where the text is none.
 * Read by RFC 5322 (a registry library), bounded by RFC 5321, 4.5.3.1: 64 octets before the "@"; and a domain of at least
 * two parts, as mail that leaves a machine has.
 */
export function readAddress(text: string): { address: string; name: string } | null {
  const trimmed = text.trim()
  if (!trimmed.includes('@') || trimmed.length > 400) return null
  // Most are this plain; the grammar takes a hundred times as long and says the same.
  if (plain.test(trimmed) && trimmed.length <= longestAddress && trimmed.indexOf('@') <= 64)
    return { address: trimmed.toLowerCase(), name: '' }
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

/** Signs that nobody sees, and that turn what stands around them: none is part of a name. Joiners are: scripts need them. */
const unseen = /[\p{Cc}\u200B\u200E\u200F\u202A-\u202E\u2060-\u2064\u2066-\u2069\uFEFF]/gu

export const longestName = 160

/** A name as it is kept: composed (NFC), without what is not seen, spaces folded. */
export function cleanName(text: string): string {
  return text
    .replace(/[\t\r\n]/g, ' ')
    .replace(unseen, '')
    .normalize('NFC')
    .replace(/\p{Zs}+/gu, ' ')
    .trim()
}

/** What is wrong with a cleaned name, in a sentence; null for nothing. */
export function nameFault(name: string): string | null {
  if (!name) return 'Give a name.'
  if ([...name].length > longestName) return `A name has at most ${longestName} characters.`
  return /[\p{L}\p{N}]/u.test(name) ? null : 'A name has letters in it.'
}

/** Names that look the same to a reader: case, accents and the form of letters aside. */
export const alikeName = (name: string): string =>
  cleanName(name)
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLocaleLowerCase('en')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()

/** Ids of those whose name somebody else in the list has too: they are told apart by something else. */
export function namesakes(people: readonly { id: string; name: string }[]): Set<string> {
  const counts = new Map<string, number>()
  for (const { name } of people) counts.set(alikeName(name), (counts.get(alikeName(name)) ?? 0) + 1)
  return new Set(people.filter(({ name }) => counts.get(alikeName(name))! > 1).map(({ id }) => id))
}

const collator = new Intl.Collator('en', { sensitivity: 'base', numeric: true })
/** Names in the order in which a person looks for them. */
export const byName = (a: { name: string; id: string }, b: { name: string; id: string }): number =>
  collator.compare(a.name, b.name) || (a.id < b.id ? -1 : 1)

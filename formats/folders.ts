/**
 * Headings are folders: one of a level closes those of its own and lower levels, also where a level above it was never named.
 * @param folder names from the top, "" for a level without one; changed
 * @param depth of the heading, from 1
 */
export function openFolder(folder: string[], depth: number, name: string): void {
  const above = Array.from({ length: depth - 1 }, (_, i) => folder[i] ?? '')
  folder.splice(0, folder.length, ...above, name)
}

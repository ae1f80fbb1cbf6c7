import { unzipSync } from 'fflate'

/** What an archive is, by the names in it; looked at without unpacking anything. */
export type ArchiveKind = 'sheet' | 'document' | 'other' | 'locked'

export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b

/** Names in an archive, and what its file "mimetype" says, where there is one; nothing else is unpacked. */
function lookInto(bytes: Uint8Array): { names: string[]; says: string } {
  const names: string[] = []
  try {
    const found = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        names.push(name)
        return name === 'mimetype' && originalSize < 200
      },
    })
    return { names, says: new TextDecoder('latin1').decode(found.mimetype) }
  } catch {
    return { names, says: '' }
  }
}

/** @returns null for what is no archive */
export function archiveKind(bytes: Uint8Array): ArchiveKind | null {
  if (!isZip(bytes)) return null
  // The first entry is locked with a password (APPNOTE 4.4.4, bit 0).
  if (bytes.length > 30 && bytes[2] === 3 && (bytes[6]! & 1) === 1) return 'locked'
  const { names, says } = lookInto(bytes)
  // OpenDocument 1.2, part 3, 3.3.
  if (says.startsWith('application/vnd.oasis.opendocument.')) return says.includes('spreadsheet') ? 'sheet' : 'other'
  if (names.some((name) => /^xl\/workbook\.(xml|bin)$/i.test(name))) return 'sheet'
  return names.some((name) => /^word\/document\.xml$/i.test(name)) ? 'document' : 'other'
}

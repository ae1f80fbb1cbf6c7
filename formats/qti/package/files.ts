import iconv from 'iconv-lite'

/** What a name in an archive may be meant to be: as it stands, in UTF-8 that was not said to be, or in the encoding of old archives. */
function readings(name: string): string[] {
  const bytes = Uint8Array.from(name, (sign) => sign.charCodeAt(0) & 0xff)
  const isNarrow = [...name].every((sign) => sign.charCodeAt(0) < 0x100)
  return [name, ...(isNarrow ? [new TextDecoder().decode(bytes), iconv.decode(bytes, 'cp437')] : [])]
}
const alike = (name: string) =>
  name
    .normalize('NFC')
    .toLowerCase()
    .replace(/\\/g, '/')
    .replace(/^\.?\//, '')

/** The files of an archive by their names; a name that differs in capitals, composition or encoding finds its file all the same. */
export class Files {
  private byReading: Map<string, string> | null = null

  constructor(readonly all: ReadonlyMap<string, Uint8Array>) {}

  /** The name in the archive that a path means; undefined for none. */
  named(path: string): string | undefined {
    return this.all.has(path) ? path : this.readings().get(alike(path))
  }

  get(path: string): Uint8Array | undefined {
    const name = this.named(path)
    return name === undefined ? undefined : this.all.get(name)
  }

  /** Made when the first name is not found as it stands. */
  private readings(): Map<string, string> {
    if (this.byReading) return this.byReading
    const found = (this.byReading = new Map<string, string>())
    for (const name of this.all.keys())
      for (const reading of readings(name)) {
        const key = alike(reading)
        if (!found.has(key)) found.set(key, name)
      }
    return found
  }
}

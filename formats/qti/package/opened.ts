import type { Stimulus } from '../../../core/question'
import { brokenItem, UnreadableFile, type BundleItem } from '../../bundle'
import { decodeXml } from '../../text'
import { readXml, type XmlElement } from '../../xml'
import { fromAnyVersion } from '../names'
import type { Files } from './files'

/** Files of one package and what has been read of them. */
export interface Package {
  files: Files
  media: Map<string, Uint8Array>
  /** By place. */ stimuli: Map<string, { id: string; stimulus: Stimulus }>
  /** Places of the items that a file gave: one, or several. */ places: Map<string, string[]>
  /** Files of QTI 1.2, which hold tests beside their items. */ older: OlderFile[]
}
export interface OlderFile {
  href: string
  tree: XmlElement
  /** In the order in which they stand, with the places of what each gave. */
  items: { written: XmlElement; places: string[] }[]
}

/** A file as elements in the names of 2.x (1.2 keeps its own); null for one that the package does not hold. */
export function treeOf(pack: Package, href: string): XmlElement | null {
  const bytes = pack.files.get(href)
  return bytes ? fromAnyVersion(readXml(decodeXml(bytes))) : null
}

/** What cannot be read is told in the place of what it would have been, so that the rest comes in. */
export function attempted(place: string, notes: string[], run: () => BundleItem[]): BundleItem[] {
  try {
    return run()
  } catch (error) {
    if (error instanceof UnreadableFile) return [brokenItem(place, error.message, { notes })]
    throw error
  }
}

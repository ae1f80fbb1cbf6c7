import { digestOf } from '../../bundle'
import { bytesOfBase64 } from '../../base64'
import { mapElements } from '../../html'
import { childrenOf, type XmlElement } from '../../xml'
import { resolve } from './manifest'
import type { Package } from './opened'

/** Pictures, sounds, films and PDFs of a file, addressed by their digests; what is not in the package is left out and told. */
export function withMedia(tree: XmlElement, href: string, { files, media }: Package, notes: string[]): XmlElement {
  const named = (path: string): string | null => {
    if (/^data:/i.test(path)) return dataMedia(path, media, notes)
    const bytes = files.get(resolve(href, path))
    if (!bytes) {
      notes.push(`“${path.slice(0, 80)}” is not in the package and is left out.`)
      return null
    }
    const digest = digestOf(bytes)
    media.set(digest, bytes)
    return `/api/media/${digest}`
  }
  if (!showsMedia(tree)) return tree
  return {
    ...tree,
    children: mapElements(tree.children, (node) => {
      const { href: link } = node.attributes
      if (node.name === 'a') {
        if (!link || !/\.pdf$/i.test(link) || !files.get(resolve(href, link))) return node
        const download = resolve(href, link).split('/').at(-1)!
        return { ...node, attributes: { ...node.attributes, download, href: named(link)! } }
      }
      const attribute =
        node.name === 'object' ? 'data' : ['img', 'audio', 'video', 'source'].includes(node.name) ? 'src' : null
      const path = attribute && node.attributes[attribute]
      if (!attribute || !path) return node
      const address = named(path)
      return address
        ? { ...node, attributes: { ...node.attributes, [attribute]: address } }
        : node.name === 'object'
          ? node
          : null
    }),
  }
}

const mediaNames = new Set(['a', 'object', 'img', 'audio', 'video', 'source'])
const showsMedia = (node: XmlElement): boolean => mediaNames.has(node.name) || childrenOf(node).some(showsMedia)

/** A picture that stands in the markup itself (RFC 2397). */
function dataMedia(address: string, media: Map<string, Uint8Array>, notes: string[]): string | null {
  const found = /^data:[\w/+.-]+;base64,(.+)$/is.exec(address)
  const bytes = found && bytesOfBase64(found[1]!)
  if (!bytes) {
    notes.push('A picture that stands in the text itself cannot be read and is left out.')
    return null
  }
  const digest = digestOf(bytes)
  media.set(digest, bytes)
  return `/api/media/${digest}`
}

import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex } from '@noble/hashes/utils.js'
import { question as questionSchema, sampleInstances, type Question } from '../../core/question'
import { brokenItem, digestOf, mediaAddress, readItem, UnreadableFile, type Bundle, type BundleItem } from '../bundle'
import type { OutgoingQuestion } from '../json/thistle'
import { document, element, readXml, textOf, within, type XmlElement } from '../xml'
import { unzip, zip } from '../zip'
import { mapElements } from './html'
import { fromAnyVersion, type QtiVersion } from './names'
import { readItemTree } from './read'
import { writeItem } from './write'

const encode = (text: string) => new TextEncoder().encode(text)
const decode = (bytes: Uint8Array) => new TextDecoder('utf-8', { fatal: false }).decode(bytes)

const packaging: Record<QtiVersion, { namespace: string, item: string }> = {
  '2.1': { namespace: 'http://www.imsglobal.org/xsd/imscp_v1p1', item: 'imsqti_item_xmlv2p1' },
  '2.2': { namespace: 'http://www.imsglobal.org/xsd/imscp_v1p1', item: 'imsqti_item_xmlv2p2' },
  '3.0': { namespace: 'http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1', item: 'imsqti_item_xmlv3p0' },
}

/**
 * What QTI has no place for (slips allowed, how an ordering is scored, thinking levels …) stands as Thistle's own JSON in the
 * metadata of an item's resource, which content packaging leaves open to other namespaces. It counts only as long as the
 * item beside it is byte for byte what Thistle wrote: whoever changes the item is believed.
 */
const settingsNamespace = 'urn:thistle:question:1'
const endings: Record<string, string> = { '89504e47': 'png', 'ffd8ffe0': 'jpg', 'ffd8ffe1': 'jpg', '47494638': 'gif', '52494646': 'webp', '1a45dfa3': 'webm', '4f676753': 'ogg' }
const ending = (bytes: Uint8Array) => endings[bytesToHex(bytes.subarray(0, 4))] ?? 'bin'
const safeId = (id: string, i: number) => (/^[a-zA-Z_][a-zA-Z0-9_.-]*$/.test(id) ? id : `item-${i + 1}`)

/** A package of items. Varying questions are written with the values of one instance; their variables travel in the settings. */
export function writePackage(questions: readonly OutgoingQuestion[], media: ReadonlyMap<string, Uint8Array>, version: QtiVersion): Uint8Array {
  const files = new Map<string, Uint8Array>()
  const names = new Map([...media].map(([id, bytes]) => [id, `media/${id}.${ending(bytes)}`]))
  for (const [id, bytes] of media) files.set(names.get(id)!, bytes)
  const resources = questions.map(({ id, folder, objectives, question }, i) => {
    const identifier = safeId(id, i)
    const href = `items/${identifier}.xml`
    const shown = question.vary ? sampleInstances(question, 1)[0]?.question ?? question : question
    const used = [...new Set([...JSON.stringify(question).matchAll(mediaAddress)].map((found) => found[1]!))].flatMap((each) => names.get(each) ?? [])
    const xml = document(writeItem(shown, identifier, version)).replace(mediaAddress, (whole, each: string) => (names.has(each) ? `../${names.get(each)!}` : whole))
    files.set(href, encode(xml))
    const settings = JSON.stringify({ digest: bytesToHex(sha256(encode(xml))), id, folder, objectives, question: { ...question, objectives: [] } })
    return element('resource', { identifier: `res-${identifier}`, type: packaging[version].item, href },
      element('metadata', {}, element('settings', { xmlns: settingsNamespace }, settings)), element('file', { href }), used.map((name) => element('file', { href: name })))
  })
  const manifest = element('manifest', { xmlns: packaging[version].namespace, identifier: 'thistle-questions' },
    element('metadata', {}, element('schema', {}, version === '3.0' ? 'QTI Package' : `QTIv${version} Package`), element('schemaversion', {}, version === '3.0' ? '3.0.0' : `${version}.0`)), element('organizations'), element('resources', {}, resources))
  files.set('imsmanifest.xml', encode(document(manifest)))
  return zip(files)
}

/** "items/../media/a.png" as seen from a file. */
function resolve(from: string, to: string): string {
  const parts = from.split('/').slice(0, -1)
  for (const part of decodeURIComponent(to.split(/[?#]/)[0]!).split('/')) {
    if (part === '..') parts.pop()
    else if (part !== '.' && part !== '') parts.push(part)
  }
  return parts.join('/')
}

interface Place { href: string, settings: string | null }

function itemsOf(files: Map<string, Uint8Array>): Place[] {
  const name = [...files.keys()].find((each) => each === 'imsmanifest.xml' || each.endsWith('/imsmanifest.xml'))
  if (!name) return [...files.keys()].filter((each) => each.endsWith('.xml')).sort().map((href) => ({ href, settings: null }))
  const resources = within(readXml(decode(files.get(name)!)), 'resource').filter((each) => /imsqti_item|imsqti_test/.test(each.attributes.type ?? '') && each.attributes.href)
  return resources.filter((each) => (each.attributes.type ?? '').includes('item')).map((each) => ({ href: resolve(name, each.attributes.href!), settings: within(each, 'settings').map(textOf)[0] ?? null }))
}

/** The question that Thistle put beside an item, if the item is still what Thistle wrote. */
function ownSettings(settings: string | null, xml: Uint8Array): { id: string, folder: string[], objectives: string[], question: Question } | null {
  if (!settings) return null
  try {
    const read = JSON.parse(settings) as { digest: string, id: string, folder: string[], objectives: string[], question: unknown }
    const found = questionSchema.safeParse(read.question)
    return read.digest === bytesToHex(sha256(xml)) && found.success ? { id: String(read.id), folder: read.folder.map(String), objectives: read.objectives.map(String), question: found.data } : null
  } catch {
    return null
  }
}

/** Pictures, sounds and films of an item, addressed by their digests; what is not in the package is left out and told. */
function withMedia(item: XmlElement, href: string, files: Map<string, Uint8Array>, media: Map<string, Uint8Array>, notes: string[]): XmlElement {
  const named = (path: string): string | null => {
    const bytes = files.get(resolve(href, path))
    if (!bytes) { notes.push(`“${path.slice(0, 80)}” is not in the package and is left out.`); return null }
    const digest = digestOf(bytes)
    media.set(digest, bytes)
    return `/api/media/${digest}`
  }
  return { ...item, children: mapElements(item.children, (node) => {
    const attribute = node.name === 'object' ? 'data' : ['img', 'audio', 'video', 'source'].includes(node.name) ? 'src' : null
    const path = attribute && node.attributes[attribute]
    if (!attribute || !path) return node
    const address = named(path)
    return address ? { ...node, attributes: { ...node.attributes, [attribute]: address } } : node.name === 'object' ? node : null
  }) }
}

function itemFrom({ href, settings }: Place, files: Map<string, Uint8Array>, media: Map<string, Uint8Array>): BundleItem | null {
  const bytes = files.get(href)
  if (!bytes) return brokenItem(href, 'The manifest names this file, but the package does not hold it.')
  const notes: string[] = []
  const own = ownSettings(settings, bytes)
  try {
    const tree = fromAnyVersion(readXml(decode(bytes)))
    if (tree.name !== 'assessmentItem') return null
    const placed = withMedia(tree, href, files, media, notes)
    if (own) return readItem(href, own.question, { outsideId: own.id, folder: own.folder, objectives: own.objectives })
    const { question, identifier, notes: more } = readItemTree(placed)
    return readItem(href, question, { outsideId: identifier || null, notes: [...notes, ...more] })
  } catch (error) {
    if (error instanceof UnreadableFile) return brokenItem(href, error.message, { notes })
    throw error
  }
}

/** Reads a package, or a single item, of QTI 2.1, 2.2 or 3.0. What cannot be read is told item by item; the rest comes. */
export function readPackage(bytes: Uint8Array): Bundle {
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b
  const files = isZip ? unzip(bytes) : new Map([['item.xml', bytes]])
  const media = new Map<string, Uint8Array>()
  const items = itemsOf(files).flatMap((place) => itemFrom(place, files, media) ?? [])
  if (!items.length) throw new UnreadableFile('There is no assessment item in this file.')
  return { items, media }
}


import type { Stimulus } from '../../core/question'
import {
  brokenItem,
  digestOf,
  readItem,
  UnreadableFile,
  type Bundle,
  type BundleItem,
  type PortableTest,
} from '../bundle'
import { childOf, readXml, textOf, within, type XmlElement } from '../xml'
import { unzip } from '../zip'
import { mapElements } from './xhtml'
import { fromAnyVersion } from './names'
import { readItemTree } from './read'
import { itemSettings, stimulusSettings } from './settings'
import { readStimulusTree } from './stimulus'
import { readTestTree } from './test'

const decode = (bytes: Uint8Array) => new TextDecoder('utf-8', { fatal: false }).decode(bytes)

/** "items/../media/a.png" as seen from a file. */
function resolve(from: string, to: string): string {
  const parts = from.split('/').slice(0, -1)
  for (const part of decodeURIComponent(to.split(/[?#]/)[0]!).split('/')) {
    if (part === '..') parts.pop()
    else if (part !== '.' && part !== '') parts.push(part)
  }
  return parts.join('/')
}

interface Resource {
  href: string
  what: 'item' | 'test' | 'stimulus' | 'unknown'
  settings: string | null
}

/** The resources of a manifest; without one, every XML file that there is. */
function resourcesOf(files: Map<string, Uint8Array>): Resource[] {
  const name = [...files.keys()].find((each) => each === 'imsmanifest.xml' || each.endsWith('/imsmanifest.xml'))
  if (!name)
    return [...files.keys()]
      .filter((each) => each.endsWith('.xml'))
      .sort()
      .map((href) => ({ href, what: 'unknown', settings: null }))
  return within(readXml(decode(files.get(name)!)), 'resource').flatMap((each): Resource[] => {
    const settings = within(each, 'settings').map(textOf)[0] ?? null
    const what = /imsqti_(?:apip)?(item|test|stimulus)/.exec(each.attributes.type ?? '')?.[1] as
      Resource['what'] | undefined
    return each.attributes.href && (what || settings)
      ? [{ href: resolve(name, each.attributes.href), what: what ?? 'stimulus', settings }]
      : []
  })
}

/** Files of one package and what has been read of them. */
interface Package {
  files: Map<string, Uint8Array>
  media: Map<string, Uint8Array>
  /** By place. */ stimuli: Map<string, { id: string; stimulus: Stimulus }>
}

/** Pictures, sounds, films and PDFs of a file, addressed by their digests; what is not in the package is left out and told. */
function withMedia(tree: XmlElement, href: string, { files, media }: Package, notes: string[]): XmlElement {
  const named = (path: string): string | null => {
    const bytes = files.get(resolve(href, path))
    if (!bytes) {
      notes.push(`“${path.slice(0, 80)}” is not in the package and is left out.`)
      return null
    }
    const digest = digestOf(bytes)
    media.set(digest, bytes)
    return `/api/media/${digest}`
  }
  return {
    ...tree,
    children: mapElements(tree.children, (node) => {
      const { href: link } = node.attributes
      if (node.name === 'a') {
        if (!link || !/\.pdf$/i.test(link) || !files.has(resolve(href, link))) return node
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

function treeOf(pack: Package, href: string): XmlElement | null {
  const bytes = pack.files.get(href)
  return bytes ? fromAnyVersion(readXml(decode(bytes))) : null
}

function readItemFile(resource: Resource, pack: Package): BundleItem | null {
  const { href, settings } = resource
  const bytes = pack.files.get(href)
  if (!bytes) return brokenItem(href, 'The manifest names this file, but the package does not hold it.')
  const notes: string[] = []
  const own = itemSettings(settings, bytes)
  try {
    const tree = treeOf(pack, href)!
    if (tree.name !== 'assessmentItem') return null
    const placed = withMedia(tree, href, pack, notes)
    if (own)
      return readItem(href, own.question, {
        outsideId: own.id,
        folder: own.folder,
        objectives: own.objectives,
        stimulus: own.question.stimulus,
      })
    const shared = childOf(tree, 'assessmentStimulusRef')?.attributes.href
    const stimulus = shared === undefined ? undefined : pack.stimuli.get(resolve(href, shared))
    if (shared !== undefined && !stimulus) notes.push('What it shares with other items is not in the package.')
    const { question, identifier, notes: more } = readItemTree(placed)
    return readItem(href, question, {
      outsideId: identifier || null,
      notes: [...notes, ...more],
      stimulus: stimulus?.id ?? null,
    })
  } catch (error) {
    if (error instanceof UnreadableFile) return brokenItem(href, error.message, { notes })
    throw error
  }
}

function readStimulusFile({ href, settings }: Resource, pack: Package): void {
  const bytes = pack.files.get(href)
  if (!bytes) return
  const tree = treeOf(pack, href)!
  if (tree.name !== 'assessmentStimulus') return
  const own = stimulusSettings(settings, bytes)
  const placed = withMedia(tree, href, pack, [])
  if (own) pack.stimuli.set(href, own)
  else {
    const { identifier, stimulus } = readStimulusTree(placed)
    pack.stimuli.set(href, { id: identifier || href, stimulus })
  }
}

/** A file that cannot be read is told as an item of its own, so that the rest comes in. */
function attempted<T>(href: string, broken: BundleItem[], read: () => T): T | null {
  try {
    return read()
  } catch (error) {
    if (!(error instanceof UnreadableFile)) throw error
    broken.push(brokenItem(href, error.message))
    return null
  }
}

function readTestFile(href: string, pack: Package): PortableTest | null {
  const tree = treeOf(pack, href)
  if (tree?.name !== 'assessmentTest') return null
  return readTestTree(tree, {
    item: (path) => resolve(href, path),
    section: (path) => {
      const found = treeOf(pack, resolve(href, path))
      return found?.name === 'assessmentSection' ? found : null
    },
  })
}

/** Reads a package, or a single item, of QTI 2.1, 2.2 or 3.0. What cannot be read is told item by item; the rest comes. */
export function readPackage(bytes: Uint8Array): Bundle {
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b
  const pack: Package = {
    files: isZip ? unzip(bytes) : new Map([['item.xml', bytes]]),
    media: new Map(),
    stimuli: new Map(),
  }
  const broken: BundleItem[] = []
  const resources = resourcesOf(pack.files)
  const are = (...what: Resource['what'][]) => resources.filter((each) => what.includes(each.what))
  for (const each of are('stimulus')) attempted(each.href, broken, () => readStimulusFile(each, pack))
  const items = are('item', 'unknown').flatMap((each) => readItemFile(each, pack) ?? [])
  const tests = are('test', 'unknown').flatMap((each) =>
    items.some((item) => item.place === each.href)
      ? []
      : (attempted(each.href, broken, () => readTestFile(each.href, pack)) ?? []),
  )
  if (!items.length && !broken.length) throw new UnreadableFile('There is no assessment item in this file.')
  return {
    items: [...items, ...broken],
    media: pack.media,
    stimuli: new Map([...pack.stimuli.values()].map(({ id, stimulus }) => [id, stimulus])),
    tests,
  }
}

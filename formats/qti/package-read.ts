import { isBlank, plainText, type Question, type Stimulus } from '../../core/question'
import {
  brokenItem,
  digestOf,
  readItem,
  UnreadableFile,
  type Bundle,
  type BundleItem,
  type PortableTest,
} from '../bundle'
import { bytesOfBase64 } from '../base64'
import { decodeXml } from '../text'
import { childOf, childrenOf, readXml, type XmlElement } from '../xml'
import { unzip } from '../zip'
import { Files } from './files'
import { resolve, resourcesOf, type Described, type Resource } from './manifest'
import { fromAnyVersion } from './names'
import { asItems } from './older'
import { prove } from './proof/prove'
import { lostOf } from './proof/words'
import { readItemTree, type ReadItem, type ReadPart } from './read'
import { itemSettings, stimulusSettings } from './settings'
import { readStimulusTree } from './stimulus'
import { readTestTree } from './test-read'
import { mapElements } from '../html'

/** Files of one package and what has been read of them. */
interface Package {
  files: Files
  media: Map<string, Uint8Array>
  /** By place. */ stimuli: Map<string, { id: string; stimulus: Stimulus }>
  /** Places of the items that a file gave: one, or several. */ places: Map<string, string[]>
}

/** Pictures, sounds, films and PDFs of a file, addressed by their digests; what is not in the package is left out and told. */
function withMedia(tree: XmlElement, href: string, { files, media }: Package, notes: string[]): XmlElement {
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

function treeOf(pack: Package, href: string): XmlElement | null {
  const bytes = pack.files.get(href)
  return bytes ? fromAnyVersion(readXml(decodeXml(bytes))) : null
}

/** What metadata says of a question, where the question itself says nothing. */
const described = (question: Question, { tags, difficulty, seconds }: Described): Question => ({
  ...question,
  tags: question.tags.length ? question.tags : tags,
  difficulty: difficulty ?? question.difficulty,
  seconds: seconds ?? question.seconds,
})

/** The item as it is known to the bank: one, or one for each thing that it asks, with what they share. */
function itemsFrom(read: ReadItem, tree: XmlElement, resource: Resource, pack: Package, notes: string[]): BundleItem[] {
  const { href } = resource
  const shared = childOf(tree, 'assessmentStimulusRef')?.attributes.href
  let stimulus = shared === undefined ? undefined : pack.stimuli.get(resolve(href, shared))?.id
  if (shared !== undefined && !stimulus) notes.push('What it shares with other items is not in the package.')
  const common = read.common ?? ''
  const inStem = read.common !== null && stimulus !== undefined
  if (read.common !== null && stimulus === undefined) {
    stimulus = `${read.identifier || href}#common`.slice(0, 80)
    pack.stimuli.set(`${href}#common`, { id: stimulus, stimulus: commonStimulus(read) })
  }
  const questions = read.parts.map(({ question }) => question)
  const lost = lostOf(tree, questions, [common])
  if (lost.things > 0 && !notes.length) notes.push('A picture, sound, film or piece of maths of it was not read.')
  const several = read.parts.length > 1
  if (several) notes.push(`It asks ${read.parts.length} things: each is a question of its own here.`)
  return read.parts.map((part: ReadPart, i) => {
    const question = inStem ? { ...part.question, stem: common + part.question.stem } : part.question
    return readItem(
      several ? `${href} (${i + 1} of ${read.parts.length})` : href,
      described(question, resource.described),
      {
        outsideId: read.identifier ? (several ? `${read.identifier}#${part.name ?? i}` : read.identifier) : null,
        notes: [...notes, ...(i === 0 ? read.notes : [])],
        stimulus: stimulus ?? null,
        proof: prove({ item: tree, question: part.question, responses: part.responses }, part.tried),
        lost: i === 0 ? lost.words : [],
      },
    )
  })
}

const commonStimulus = ({ question, common, identifier }: ReadItem): Stimulus => ({
  name: (question.internalName || plainText(common ?? '').slice(0, 60) || identifier || 'Stimulus').slice(0, 160),
  language: question.language,
  html: common ?? '',
  source: '',
  translations: {},
})

/** Everything that one file gives; nothing for one that is no item. */
function readItemFile(resource: Resource, pack: Package): BundleItem[] {
  const { href, settings } = resource
  const bytes = pack.files.get(href)
  if (!bytes) return [brokenItem(href, 'The manifest names this file, but the package does not hold it.')]
  const own = itemSettings(settings, bytes)
  const read = (item: XmlElement, place: string): BundleItem[] => {
    const notes: string[] = []
    return attempted(place, notes, () => {
      const placed = withMedia(item, href, pack, notes)
      if (own)
        return [
          readItem(href, own.question, {
            outsideId: own.id,
            folder: own.folder,
            objectives: own.objectives,
            stimulus: own.question.stimulus,
          }),
        ]
      return itemsFrom(readItemTree(placed), placed, { ...resource, href: place }, pack, notes)
    })
  }
  return attempted(href, [], () => {
    const tree = treeOf(pack, href)!
    const older = asItems(tree)
    if (older) return older.flatMap((item, i) => read(item, older.length > 1 ? `${href}, item ${i + 1}` : href))
    return tree.name === 'assessmentItem' ? read(tree, href) : []
  })
}

/** What cannot be read is told in the place of what it would have been, so that the rest comes in. */
function attempted(place: string, notes: string[], run: () => BundleItem[]): BundleItem[] {
  try {
    return run()
  } catch (error) {
    if (error instanceof UnreadableFile) return [brokenItem(place, error.message, { notes })]
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
    if (!isBlank(stimulus.html)) pack.stimuli.set(href, { id: identifier || href, stimulus })
  }
}

function readTestFile(href: string, pack: Package, points: ReadonlyMap<string, number>): PortableTest | null {
  const found = treeOf(pack, href)
  if (found?.name !== 'assessmentTest') return null
  const notes: string[] = []
  const test = readTestTree(withMedia(found, href, pack, notes), {
    items: (path) => pack.places.get(pack.files.named(resolve(href, path)) ?? '') ?? [resolve(href, path)],
    points: (place) => points.get(place) ?? null,
    section: (path) => {
      const section = treeOf(pack, resolve(href, path))
      return section?.name === 'assessmentSection' ? section : null
    },
  })
  return { ...test, notes: [...test.notes, ...notes] }
}

/** Reads a package, or a single item, of QTI 1.2, 2.1, 2.2 or 3.0. What cannot be read is told item by item; the rest comes. */
export function readPackage(bytes: Uint8Array): Bundle {
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b
  const all = isZip ? unzip(bytes) : new Map([['item.xml', bytes]])
  const pack: Package = { files: new Files(all), media: new Map(), stimuli: new Map(), places: new Map() }
  const resources = resourcesOf(all)
  const are = (...what: Resource['what'][]) => resources.filter((each) => what.includes(each.what))
  const broken = are('stimulus').flatMap((each) =>
    attempted(each.href, [], () => {
      readStimulusFile(each, pack)
      return []
    }),
  )
  const items = are('item', 'unknown').flatMap((each) => {
    const read = readItemFile(each, pack)
    if (read.length)
      pack.places.set(
        pack.files.named(each.href) ?? each.href,
        read.map(({ place }) => place),
      )
    return read
  })
  const points = new Map(items.flatMap(({ place, question }) => (question ? [[place, question.points] as const] : [])))
  const tests: PortableTest[] = []
  for (const { href } of are('test', 'unknown'))
    if (!pack.places.has(pack.files.named(href) ?? href))
      broken.push(
        ...attempted(href, [], () => {
          const test = readTestFile(href, pack, points)
          if (test) tests.push(test)
          return []
        }),
      )
  if (!items.length && !broken.length) throw new UnreadableFile('There is no assessment item in this file.')
  return {
    items: [...items, ...broken],
    media: pack.media,
    stimuli: new Map([...pack.stimuli.values()].map(({ id, stimulus }) => [id, stimulus])),
    tests,
  }
}

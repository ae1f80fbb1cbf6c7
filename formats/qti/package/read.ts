import { isBlank } from '../../../core/question'
import { UnreadableFile, type Bundle, type PortableTest } from '../../bundle'
import { unzip } from '../../zip'
import { readStimulusTree } from '../stimulus'
import { Files } from './files'
import { readItemFile } from './items'
import { resourcesOf, type Resource } from './manifest'
import { withMedia } from './media'
import { attempted, treeOf, type Package } from './opened'
import { stimulusSettings } from './settings'
import { readOlderTests, readTestFile } from './tests'

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

/** Reads a package, or a single item, of QTI 1.2, 2.1, 2.2 or 3.0. What cannot be read is told item by item; the rest comes. */
export function readPackage(bytes: Uint8Array): Bundle {
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b
  const all = isZip ? unzip(bytes) : new Map([['item.xml', bytes]])
  const pack: Package = { files: new Files(all), media: new Map(), stimuli: new Map(), places: new Map(), older: [] }
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
  const take = (href: string, read: () => PortableTest[]) =>
    broken.push(
      ...attempted(href, [], () => {
        tests.push(...read())
        return []
      }),
    )
  for (const { href } of are('test', 'unknown'))
    if (!pack.places.has(pack.files.named(href) ?? href)) take(href, () => readTestFile(href, pack, points))
  for (const file of pack.older) take(file.href, () => readOlderTests(file, pack, points))
  if (!items.length && !broken.length) throw new UnreadableFile('There is no assessment item in this file.')
  return {
    items: [...items, ...broken],
    media: pack.media,
    stimuli: new Map([...pack.stimuli.values()].map(({ id, stimulus }) => [id, stimulus])),
    tests,
  }
}

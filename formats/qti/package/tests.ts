import type { PortableTest } from '../../bundle'
import type { XmlElement } from '../../xml'
import { asTests } from '../older/assessment'
import { readTestTree, type References } from '../assessment/read'
import { resolve } from './manifest'
import { withMedia } from './media'
import { treeOf, type OlderFile, type Package } from './opened'

/** What a place is worth by itself; nothing for one that could not be read. */
export type Points = ReadonlyMap<string, number>

/** The test that a file is; none for a file that is something else. */
export function readTestFile(href: string, pack: Package, points: Points): PortableTest[] {
  const found = treeOf(pack, href)
  if (found?.name !== 'assessmentTest') return []
  return [
    readTest(found, href, pack, points, (path) => {
      const named = pack.files.named(resolve(href, path)) ?? ''
      return pack.places.get(named) ?? null
    }),
  ]
}

/** The tests of a file of QTI 1.2, which stand around its items; those without any are none. */
export function readOlderTests({ href, tree, items }: OlderFile, pack: Package, points: Points): PortableTest[] {
  const at = new Map(items.map(({ written }, i) => [written, i]))
  const worth = (item: XmlElement) => {
    const places = items[at.get(item) ?? -1]?.places ?? []
    return places.length === 1 ? (points.get(places[0]!) ?? null) : null
  }
  return asTests(tree, (item) => String(at.get(item) ?? ''), worth)
    .map(({ test, notes }) => {
      const read = readTest(test, href, pack, points, (path) => items[Number(path)]?.places ?? null)
      return { ...read, notes: [...notes, ...read.notes] }
    })
    .filter(({ sections }) => sections.length > 0)
}

function readTest(
  test: XmlElement,
  href: string,
  pack: Package,
  points: Points,
  items: References['items'],
): PortableTest {
  const notes: string[] = []
  const read = readTestTree(withMedia(test, href, pack, notes), {
    items,
    points: (place) => points.get(place) ?? null,
    section: (path) => {
      const section = treeOf(pack, resolve(href, path))
      return section?.name === 'assessmentSection' ? section : null
    },
  })
  return { ...read, notes: [...read.notes, ...notes] }
}

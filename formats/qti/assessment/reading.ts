import { childrenOf, type XmlElement } from '../../xml'

export const isTrue = (text: string | undefined) => text === 'true' || text === '1'
export const isPart = (node: XmlElement) => ['assessmentItemRef', 'assessmentSection'].includes(node.name)
export const isSection = (node: XmlElement) => node.name === 'assessmentSection'

/** Finds what a reference names. */
export interface References {
  /** Places of an item, by its address within the package: one, or several where it asks several things. */
  /** Places of the items of a file; null for one that is not there. */
  items(href: string): string[] | null
  /** What an item's place is worth by itself; null for one that could not be read. */
  points(place: string): number | null
  /** A section that stands in a file of its own. */
  section(href: string): XmlElement | null
}

/** A test that is being read. */
export interface Reading {
  refs: References
  notes: Set<string>
  /** Whether the test counts by a weight of that name. */
  counts: (weight: string | undefined) => boolean
  /** Met so far in files of their own. */ sections: number
}

export const partsOf = (node: XmlElement): XmlElement[] => childrenOf(node).filter(isPart)
export const titleOf = (node: XmlElement, usual: string) => (node.attributes.title ?? '').trim().slice(0, 160) || usual

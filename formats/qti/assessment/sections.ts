import { UnreadableFile, type PortableSection } from '../../bundle'
import { childOf, isElement, type XmlElement } from '../../xml'
import { isSection, partsOf, titleOf, type Reading } from './reading'
import { rowsOf, selects, shuffles } from './rows'
import { tellSession } from './told'
import { minutesOf, rubricOf } from './words'

const mostSections = 1000

/** Sections that stand in files of their own, put in their places. */
export function withSections(node: XmlElement, reading: Reading, open: readonly string[] = []): XmlElement {
  return {
    ...node,
    children: node.children.flatMap((child): (XmlElement | string)[] => {
      if (!isElement(child)) return [child]
      if (child.name !== 'assessmentSectionRef')
        return child.name === 'testPart' || isSection(child) ? [withSections(child, reading, open)] : [child]
      const href = child.attributes.href ?? ''
      if (open.includes(href)) throw new UnreadableFile(`The section “${href.slice(0, 80)}” lies within itself.`)
      if (++reading.sections > mostSections)
        throw new UnreadableFile(`This test refers to more than ${mostSections} sections.`)
      const found = reading.refs.section(href)
      if (!found) reading.notes.add(`The section “${href.slice(0, 80)}” is not in the package and is left out.`)
      return found ? [withSections(found, reading, [...open, href])] : []
    }),
  }
}

/**
 * Whether items may be skipped, said of a part or a section, holds for all in it that say nothing themselves (QTI 2.1 §4
 * itemSessionControl): written onto each reference to an item.
 */
export function withSkipping(node: XmlElement, inherited?: string): XmlElement {
  const own = childOf(node, 'itemSessionControl')?.attributes.allowSkipping ?? inherited
  if (node.name === 'assessmentItemRef')
    return own === undefined ? node : { ...node, attributes: { ...node.attributes, allowSkipping: own } }
  return { ...node, children: node.children.map((child) => (isElement(child) ? withSkipping(child, own) : child)) }
}

/** A section, and those that people see within it as sections of their own after it. */
export function sectionsOf(section: XmlElement, reading: Reading): PortableSection[] {
  const title = titleOf(section, 'Section')
  const isOwn = (part: XmlElement) => isSection(part) && part.attributes.visible !== 'false'
  const parts = partsOf(section)
  const base = {
    title,
    intro: rubricOf(section, reading),
    order: shuffles(section) ? ('shuffled' as const) : ('kept' as const),
    limit: minutesOf(section, reading),
  }
  if (!parts.some(isOwn) || selects(section) !== null) {
    for (const part of parts)
      if (isSection(part) && minutesOf(part, reading) !== null)
        reading.notes.add('Time limits of sections within sections are left out.')
    return [{ ...base, rows: rowsOf(section, reading) }]
  }
  if (base.order === 'shuffled')
    reading.notes.add(`The parts of “${title}” are mixed in the file; here they keep their order.`)
  if (base.limit !== null) reading.notes.add(`The time limit of “${title}” is for several sections; it is left out.`)
  tellSession(section, reading)
  const runs: PortableSection[] = []
  let loose: XmlElement[] = []
  const close = () => {
    if (loose.length)
      runs.push({ ...base, limit: null, order: 'kept', rows: rowsOf({ ...section, children: loose }, reading) })
    loose = []
  }
  for (const part of parts) {
    if (!isOwn(part)) {
      loose.push(part)
      continue
    }
    close()
    runs.push(...sectionsOf(part, reading))
  }
  close()
  const [first, ...rest] = runs
  return first && base.intro && first.intro !== base.intro
    ? [{ ...first, intro: base.intro + first.intro }, ...rest]
    : runs
}

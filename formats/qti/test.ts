import type { XmlElement } from '../xml'
import { childOf, childrenOf, element, isElement, within } from '../xml'
import { UnreadableFile, type PortableRow, type PortableSection, type PortableTest } from '../bundle'
import { parseHtml, toHtml } from './xhtml'
import { namespaces, toVersion3, type QtiVersion } from './names'

const isTrue = (text: string | undefined) => text === 'true' || text === '1'
const isPart = (node: XmlElement) => ['assessmentItemRef', 'assessmentSection'].includes(node.name)

/** Finds what a reference names: an item by its address within the package, a section that stands in a file of its own. */
export interface References {
  item(href: string): string
  section(href: string): XmlElement | null
}

interface Reading {
  refs: References
  notes: Set<string>
  /** Met so far in files of their own. */ sections: number
}

/** What a section says that has no like here, told once. */
function tellLeftOut(node: XmlElement, { notes }: Reading): void {
  if (within(node, 'preCondition').length || within(node, 'branchRule').length)
    notes.add('Conditions and branches between its parts are left out.')
  if (
    childrenOf(node)
      .filter(isPart)
      .concat(node)
      .some((each) => each.name !== 'assessmentTest' && childOf(each, 'timeLimits'))
  )
    notes.add('Time limits of single sections or items are left out; that of the whole test is kept.')
}

const mostSections = 1000

/** Sections that stand in files of their own, put in their places. */
function withSections(node: XmlElement, reading: Reading, open: readonly string[] = []): XmlElement {
  return {
    ...node,
    children: node.children.flatMap((child): (XmlElement | string)[] => {
      if (!isElement(child)) return [child]
      if (child.name !== 'assessmentSectionRef')
        return child.name === 'testPart' || child.name === 'assessmentSection'
          ? [withSections(child, reading, open)]
          : [child]
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

const partsOf = (node: XmlElement): XmlElement[] => childrenOf(node).filter(isPart)

function weightOf(ref: XmlElement): number | null {
  const weight = childrenOf(ref, 'weight')[0]
  const value = Number(weight?.attributes.value)
  return weight && Number.isFinite(value) && value >= 0 ? Math.min(1000, Math.round(value * 100) / 100) : null
}

const single = (ref: XmlElement, reading: Reading): PortableRow => ({
  items: [reading.refs.item(ref.attributes.href ?? '')],
  draw: 1,
  points: weightOf(ref),
  fixed: isTrue(ref.attributes.fixed),
  together: false,
  order: 'kept',
})

/** All items under a section, whatever lies between. */
const itemRefs = (section: XmlElement): XmlElement[] =>
  partsOf(section).flatMap((part) => (part.name === 'assessmentItemRef' ? [part] : itemRefs(part)))

/** The rows that a section gives: what must be there by itself, the rest as a draw where the section selects. */
function rowsOf(section: XmlElement, reading: Reading): PortableRow[] {
  tellLeftOut(section, reading)
  const selection = childOf(section, 'selection')
  const refs = itemRefs(section)
  const select = Number(selection?.attributes.select)
  const shuffled = isTrue(childOf(section, 'ordering')?.attributes.shuffle)
  if (selection && isTrue(selection.attributes.withReplacement))
    reading.notes.add('Drawing the same item more than once is left out: a paper never repeats a question.')
  if (selection && select > 0 && select < refs.length) {
    const required = refs.filter((ref) => isTrue(ref.attributes.required))
    const open = refs.filter((ref) => !required.includes(ref))
    const draw = select - required.length
    const together =
      childOf(section, 'rubricBlock') === undefined &&
      section.attributes.keepTogether !== 'false' &&
      section.attributes.visible === 'false'
    return [
      ...required.map((ref) => single(ref, reading)),
      ...(draw > 0
        ? [
            {
              items: open.map((ref) => reading.refs.item(ref.attributes.href ?? '')),
              draw,
              points: weightOf(open[0]!),
              fixed: false,
              together,
              order: shuffled ? ('shuffled' as const) : ('kept' as const),
            },
          ]
        : []),
    ]
  }
  return partsOf(section).flatMap((part): PortableRow[] => {
    if (part.name === 'assessmentItemRef') return [single(part, reading)]
    const inner = rowsOf(part, reading)
    const isGroup =
      part.attributes.visible === 'false' &&
      part.attributes.keepTogether !== 'false' &&
      inner.length > 1 &&
      inner.every((row) => row.items.length === 1)
    return isGroup
      ? [
          {
            items: inner.flatMap((row) => row.items),
            draw: inner.length,
            points: inner[0]!.points,
            fixed: isTrue(part.attributes.fixed),
            together: true,
            order: isTrue(childOf(part, 'ordering')?.attributes.shuffle) ? 'shuffled' : 'kept',
          },
        ]
      : inner
  })
}

const rubricOf = (node: XmlElement) =>
  childrenOf(node, 'rubricBlock')
    .filter((block) => (block.attributes.view ?? 'candidate').includes('candidate'))
    .map((block) => toHtml(childOf(block, 'contentBody')?.children ?? block.children))
    .join('')

function sectionOf(section: XmlElement, reading: Reading): PortableSection {
  return {
    title: (section.attributes.title ?? '').trim().slice(0, 160) || 'Section',
    intro: rubricOf(section),
    order: isTrue(childOf(section, 'ordering')?.attributes.shuffle) ? 'shuffled' : 'kept',
    rows: rowsOf(section, reading),
  }
}

/** Reads an assessment test in the names of 2.x (1EdTech QTI): sections, selection, ordering, weights and time limits. */
export function readTestTree(test: XmlElement, refs: References): PortableTest {
  const reading: Reading = { refs, notes: new Set(), sections: 0 }
  const whole = withSections(test, reading)
  const parts = childrenOf(whole, 'testPart')
  tellLeftOut(whole, reading)
  if (childOf(test, 'outcomeProcessing'))
    reading.notes.add('Its own processing of outcomes is left out: points add up.')
  const limits = [test, ...parts].flatMap((node) => childOf(node, 'timeLimits') ?? [])
  const seconds = limits.map((node) => Number(node.attributes.maxTime)).filter((each) => each > 0)
  return {
    title: (test.attributes.title ?? '').trim().slice(0, 160) || 'A test',
    sections: parts
      .flatMap((part) =>
        partsOf(part)
          .filter((each) => each.name === 'assessmentSection')
          .map((section) => sectionOf(section, reading)),
      )
      .filter((section) => section.rows.length),
    limit: seconds.length ? Math.max(1, Math.round(seconds.reduce((sum, each) => sum + each, 0) / 30) / 2) : null,
    mayOverrun: limits.some((node) => isTrue(node.attributes.allowLateSubmission)),
    movement:
      parts.length > 0 && parts.every((part) => part.attributes.navigationMode === 'linear') ? 'forward' : 'free',
    notes: [...reading.notes],
  }
}

/**
 * Writes a test. A pool is a section of its own that selects and whose items mix with their neighbours; what stays together
 * is one that keeps together: by the rules of QTI for invisible sections this orders papers as Thistle does.
 * @param hrefOf where an item stands in the package
 */
export function writeTest(test: PortableTest, hrefOf: (item: string) => string, version: QtiVersion): XmlElement {
  let refs = 0
  let groups = 0
  const ref = (item: string, row: PortableRow) =>
    element(
      'assessmentItemRef',
      { identifier: `ref-${++refs}`, href: hrefOf(item), fixed: row.fixed || null },
      row.points === null ? null : element('weight', { identifier: 'WEIGHT', value: row.points }),
    )
  const rowElement = (row: PortableRow): XmlElement =>
    row.items.length === 1
      ? ref(row.items[0]!, row)
      : element(
          'assessmentSection',
          {
            identifier: `group-${++groups}`,
            title: 'Group',
            visible: false,
            keepTogether: row.together,
            fixed: row.fixed || null,
          },
          row.draw < row.items.length ? element('selection', { select: row.draw }) : null,
          element('ordering', { shuffle: row.together ? row.order === 'shuffled' : true }),
          row.items.map((item) => ref(item, row)),
        )
  const tree = element(
    'assessmentTest',
    { identifier: 'test', title: test.title, toolName: 'Thistle', toolVersion: '1' },
    test.limit === null
      ? null
      : element('timeLimits', { maxTime: Math.round(test.limit * 60), allowLateSubmission: test.mayOverrun || null }),
    element(
      'testPart',
      {
        identifier: 'part',
        navigationMode: test.movement === 'forward' ? 'linear' : 'nonlinear',
        submissionMode: 'individual',
      },
      test.sections.map((section, i) =>
        element(
          'assessmentSection',
          { identifier: `section-${i + 1}`, title: section.title, visible: true },
          element('ordering', { shuffle: section.order === 'shuffled' }),
          section.intro
            ? element(
                'rubricBlock',
                { view: 'candidate' },
                version === '3.0' ? element('contentBody', {}, parseHtml(section.intro)) : parseHtml(section.intro),
              )
            : null,
          section.rows.map(rowElement),
        ),
      ),
    ),
  )
  const named = version === '3.0' ? toVersion3(tree) : tree
  return { ...named, attributes: { xmlns: namespaces[version], ...named.attributes } }
}

import { childOf, childrenOf, element, textOf, within, type XmlElement } from '../../xml'
import { UnreadableFile } from '../../bundle'
import { rubricsIn } from './material'

/**
 * Assessments of QTI 1.2 (ASI selection and ordering, from memory) put into the elements of a test of 2.x. An item is referred to
 * by what its file gives it: "item 3".
 */
export interface OlderTest {
  /** In the elements of 2.x. */
  test: XmlElement
  notes: string[]
}

interface Reading {
  notes: Set<string>
  /** By the names of items and banks. */
  banks: ReadonlyMap<string, XmlElement>
  /** What leads to an item. */
  hrefOf: (item: XmlElement) => string
  /** What an item is worth by itself. */
  points: (item: XmlElement) => number | null
  /** Items and sections, up to now. */
  parts: number
}

/** What metadata of tests and items says, by its label. */
const said = (node: XmlElement, label: string): string | null =>
  ['qtimetadata', 'itemmetadata']
    .flatMap((name) => childrenOf(node, name))
    .flatMap((each) => within(each, 'qtimetadatafield'))
    .filter(
      (field) =>
        textOf(childOf(field, 'fieldlabel') ?? field)
          .trim()
          .toLowerCase() === label,
    )
    .map((field) => textOf(childOf(field, 'fieldentry') ?? element('none')).trim())
    .find(Boolean) ?? null

/** Seconds of "PT1H30M" (ISO 8601). */
function secondsIn(duration: string): number | null {
  const found = /^P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?)?$/i.exec(duration.trim())
  if (!found) return null
  const [days = 0, hours = 0, minutes = 0, seconds = 0] = found.slice(1).map((each) => Number(each ?? 0))
  return days * 86_400 + hours * 3600 + minutes * 60 + seconds || null
}

function limitOf(node: XmlElement, { notes }: Reading): XmlElement | null {
  const duration = childOf(node, 'duration')
  const minutes = said(node, 'qmd_timelimit')
  const seconds = duration ? secondsIn(textOf(duration)) : minutes === null ? null : Number(minutes) * 60
  if (seconds !== null && seconds > 0) return element('timeLimits', { maxTime: seconds })
  if (duration || (minutes !== null && minutes !== '0')) notes.add('A time limit of it cannot be read and is left out.')
  return null
}

/** What a test or a section says that has no like here. */
function tellRest(node: XmlElement, { notes }: Reading): void {
  const title = (node.attributes.title ?? '').trim().slice(0, 160) || 'The test'
  for (const each of childrenOf(node, 'outcomes_processing'))
    if (!/^(sumofscores|sumscores)$/i.test(each.attributes.scoremodel ?? 'SumOfScores'))
      notes.add(`How “${title}” is scored is left out: points add up.`)
  for (const each of childrenOf(node, 'outcomes_processing').flatMap((all) => within(all, 'decvar')))
    if (each.attributes.cutvalue !== undefined)
      notes.add(`In the file it is passed from ${each.attributes.cutvalue.slice(0, 20)} on; say so in the rules.`)
  for (const name of ['assessfeedback', 'sectionfeedback'])
    for (const each of childrenOf(node, name)) {
      const shown = textOf(each).replace(/\s+/g, ' ').trim().slice(0, 200)
      if (shown)
        notes.add(`Words that are shown by the result are not brought in; write them as closing words: “${shown}”.`)
    }
  for (const name of ['sectionprecondition', 'sectionpostcondition', 'selection_extension', 'order_extension'])
    if (within(node, name).length) notes.add('Conditions and extensions between its parts are left out.')
  const tries = said(node, 'cc_maxattempts')
  if (tries !== null && tries !== '1')
    notes.add(`In the file it may be sat more than once (${tries.slice(0, 20)}); say so in the rules.`)
}

const rubrics = ['presentation_material', 'rubric', 'objectives']

const mostParts = 20_000

/** Counts an item or section before anything is made of it. @throws UnreadableFile for a test that is larger than anybody sits */
function count(reading: Reading): void {
  if (++reading.parts > mostParts)
    throw new UnreadableFile(`This test refers to more than ${mostParts} items and sections.`)
}

function itemRef(item: XmlElement, reading: Reading): XmlElement {
  count(reading)
  const weight = said(item, 'cc_weighting') ?? said(item, 'qmd_weighting')
  const own = reading.points(item)
  const value = Number(weight)
  return element(
    'assessmentItemRef',
    { identifier: item.attributes.ident, href: reading.hrefOf(item) },
    weight !== null && own !== null && own > 0 && value >= 0
      ? element('weight', { identifier: 'WEIGHT', value: value / own })
      : null,
  )
}

/** The parts of a section, and what its draw takes them from. */
function partsOf(node: XmlElement, reading: Reading): XmlElement[] {
  const own = childrenOf(node).flatMap((child): XmlElement[] => {
    if (child.name === 'item') return [itemRef(child, reading)]
    if (child.name === 'section') return [sectionOf(child, reading)]
    if (child.name !== 'itemref' && child.name !== 'sectionref') return []
    const name = child.attributes.linkrefid ?? ''
    const found = reading.banks.get(name)
    if (!found) reading.notes.add(`“${name.slice(0, 80)}” is not in the file and is left out.`)
    if (!found) return []
    if (found.name === 'item') return [itemRef(found, reading)]
    // A section that refers to others may lie within itself.
    if (!within(found, 'sectionref').length) return [sectionOf(found, reading)]
    reading.notes.add(`The section “${name.slice(0, 80)}” refers to others in turn and is left out.`)
    return []
  })
  const drawn = within(childOf(node, 'selection_ordering') ?? element('none'), 'sourcebank_ref').flatMap((ref) => {
    const name = textOf(ref).trim()
    const bank = reading.banks.get(name)
    if (!bank) reading.notes.add(`It draws from the bank “${name.slice(0, 80)}”, which is not in the file.`)
    return bank ? within(bank, 'item').map((each) => itemRef(each, reading)) : []
  })
  return [...own, ...drawn]
}

/** A draw, and whether the parts are mixed. */
function drawOf(node: XmlElement, { notes }: Reading): XmlElement[] {
  const ordering = childOf(node, 'selection_ordering')
  if (!ordering) return []
  const numbers = within(ordering, 'selection_number').map((each) => Number(textOf(each).trim()))
  if (numbers.length > 1) notes.add('It draws from several banks at once; here it is one draw of all of them.')
  if (
    within(ordering, 'selection_metadata').length ||
    within(ordering, 'and_selection').length ||
    within(ordering, 'or_selection').length
  )
    notes.add('It draws by what metadata says of its items; here it draws from all of them.')
  const select = numbers.reduce((sum, each) => sum + each, 0)
  const isMixed = within(ordering, 'order').some(({ attributes }) => /^random$/i.test(attributes.order_type ?? ''))
  return [
    ...(select > 0 ? [element('selection', { select })] : []),
    ...(isMixed ? [element('ordering', { shuffle: true })] : []),
  ]
}

function sectionOf(node: XmlElement, reading: Reading): XmlElement {
  count(reading)
  tellRest(node, reading)
  return element(
    'assessmentSection',
    { identifier: node.attributes.ident, title: node.attributes.title, visible: true },
    drawOf(node, reading),
    limitOf(node, reading),
    rubricsIn(node, rubrics, reading.notes),
    partsOf(node, reading),
  )
}

/**
 * The tests of a file of QTI 1.2.
 * @param hrefOf what leads to an item
 * @param points what an item is worth by itself
 */
export function asTests(tree: XmlElement, hrefOf: Reading['hrefOf'], points: Reading['points']): OlderTest[] {
  const banks = new Map(
    ['item', 'section', 'objectbank']
      .flatMap((name) => within(tree, name))
      .map((each) => [each.attributes.ident ?? '', each] as const),
  )
  return within(tree, 'assessment').map((node) => {
    const reading: Reading = { notes: new Set(), banks, hrefOf, points, parts: 0 }
    tellRest(node, reading)
    const parts = partsOf(node, reading)
    const loose = parts.filter(({ name }) => name === 'assessmentItemRef')
    const test = element(
      'assessmentTest',
      { identifier: node.attributes.ident, title: node.attributes.title },
      limitOf(node, reading),
      rubricsIn(node, rubrics, reading.notes),
      element(
        'testPart',
        { navigationMode: 'nonlinear' },
        loose.length ? element('assessmentSection', { title: node.attributes.title, visible: true }, loose) : null,
        parts.filter(({ name }) => name === 'assessmentSection'),
      ),
    )
    if (childOf(node, 'selection_ordering') && drawOf(node, reading).length)
      reading.notes.add('How its sections are drawn and mixed is left out: all of them come, in their order.')
    return { test, notes: [...reading.notes] }
  })
}

import type { PortableRow, PortableSection, PortableTest } from '../bundle'
import { textRow, UnreadableFile } from '../bundle'
import { plainText } from '../../core/question'
import { minutes } from '../../core/rules/values'
import { decimalText, exact } from '../../core/kit/exact'
import { childOf, childrenOf, isElement, within, type XmlElement } from '../xml'
import { blocksOf } from './content/read'

const isTrue = (text: string | undefined) => text === 'true' || text === '1'
const isPart = (node: XmlElement) => ['assessmentItemRef', 'assessmentSection'].includes(node.name)
const isSection = (node: XmlElement) => node.name === 'assessmentSection'

/** Finds what a reference names. */
export interface References {
  /** Places of an item, by its address within the package: one, or several where it asks several things. */
  items(href: string): string[]
  /** What an item's place is worth by itself; null for one that could not be read. */
  points(place: string): number | null
  /** A section that stands in a file of its own. */
  section(href: string): XmlElement | null
}

interface Reading {
  refs: References
  notes: Set<string>
  /** Whether the test counts by a weight of that name. */
  counts: (weight: string | undefined) => boolean
  /** Met so far in files of their own. */ sections: number
}

const mostSections = 1000

/** Sections that stand in files of their own, put in their places. */
function withSections(node: XmlElement, reading: Reading, open: readonly string[] = []): XmlElement {
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

const partsOf = (node: XmlElement): XmlElement[] => childrenOf(node).filter(isPart)
const titleOf = (node: XmlElement, usual: string) => (node.attributes.title ?? '').trim().slice(0, 160) || usual

/** What a weight says, times what the item is worth by itself; null is what the item is worth. */
function pointsOf(ref: XmlElement, place: string, { refs, counts, notes }: Reading): number | null {
  const weight = childrenOf(ref, 'weight').find(({ attributes }) => counts(attributes.identifier))
  const value = Number(weight?.attributes.value)
  if (!weight || !Number.isFinite(value) || value < 0) return null
  const own = refs.points(place)
  if (own === null) return null
  const points = Math.min(1000, Math.round(value * own * 100) / 100)
  if (Math.abs(points - value * own) > 1e-3)
    notes.add(
      `A question that is worth ${decimalText(exact(value * own), 4)} points in the file is worth ${points} here.`,
    )
  return points
}

/** What is said of sessions that has no like here; whether something may be skipped has. */
function tellSession(node: XmlElement, { notes }: Reading): void {
  const control = childOf(node, 'itemSessionControl')
  if (!control) return
  const { maxAttempts, allowReview, allowComment, showFeedback, showSolution } = control.attributes
  const said = [
    maxAttempts !== undefined &&
      maxAttempts !== '1' &&
      `${maxAttempts === '0' ? 'any number of' : maxAttempts} tries each`,
    isTrue(showFeedback) && 'feedback while it is sat',
    isTrue(showSolution) && 'the solution while it is sat',
    allowReview === 'false' && 'no way back to what was answered',
    isTrue(allowComment) && 'comments by candidates',
  ].filter((each) => each !== false)
  if (said.length)
    notes.add(
      `What “${titleOf(node, 'the test')}” says of its items is a rule of the whole quiz here; look at it: ${said.join(', ')}.`,
    )
}

function single(ref: XmlElement, reading: Reading): PortableRow[] {
  tellSession(ref, reading)
  if (childOf(ref, 'timeLimits')) reading.notes.add('Time limits of single items are left out.')
  return reading.refs.items(ref.attributes.href ?? '').map((place) => ({
    items: [place],
    draw: 1,
    points: pointsOf(ref, place, reading),
    fixed: isTrue(ref.attributes.fixed),
    together: false,
    order: 'kept',
    required: childOf(ref, 'itemSessionControl')?.attributes.allowSkipping === 'false',
  }))
}

const selects = (section: XmlElement): number | null => {
  const selection = childOf(section, 'selection')
  const n = Number(selection?.attributes.select)
  return selection && n > 0 ? n : null
}

/** A draw of some of a section's items; those that are required stand by themselves. */
function drawn(section: XmlElement, select: number, reading: Reading): PortableRow[] {
  const refs = partsOf(section)
  const required = refs.filter((ref) => isTrue(ref.attributes.required))
  const open = refs.filter((ref) => !required.includes(ref))
  const draw = select - required.length
  const rows = open.flatMap((ref) => single(ref, reading))
  if (rows.length !== open.length)
    reading.notes.add(
      `“${titleOf(section, 'A section')}” draws from items that ask several things; each of them counts as one here.`,
    )
  const points = [...new Set(rows.map((row) => row.points ?? reading.refs.points(row.items[0]!)))]
  if (points.length > 1)
    reading.notes.add(
      `“${titleOf(section, 'A section')}” draws from items of different weights (${points.join(', ')}); here each that is drawn counts ${points[0] ?? 'the same'}.`,
    )
  return [
    ...required.flatMap((ref) => single(ref, reading)),
    ...(draw > 0 && rows.length
      ? [
          {
            items: rows.flatMap((row) => row.items),
            draw,
            points: points.length === 1 ? rows[0]!.points : (points[0] ?? null),
            fixed: isTrue(section.attributes.fixed),
            together: section.attributes.keepTogether !== 'false' && section.attributes.visible === 'false',
            order: shuffles(section) ? ('shuffled' as const) : ('kept' as const),
            required: false,
          },
        ]
      : []),
  ]
}

const shuffles = (section: XmlElement) => isTrue(childOf(section, 'ordering')?.attributes.shuffle)

/** What a section that stands within another gives: a draw, a group that stays together, or its rows one after another. */
function withinSection(part: XmlElement, reading: Reading): PortableRow[] {
  const inner = rowsOf(part, reading)
  const rubric = rubricOf(part, reading)
  const words: PortableRow[] = rubric ? [textRow(rubric)] : []
  const isGroup =
    part.attributes.visible === 'false' &&
    part.attributes.keepTogether !== 'false' &&
    inner.length > 1 &&
    inner.every((row) => row.items.length === 1) &&
    !rubric
  if (!isGroup) {
    if (shuffles(part) && selects(part) === null && inner.length > 1)
      reading.notes.add(
        `The items of “${titleOf(part, 'a section')}” are mixed among themselves in the file; here they keep their order.`,
      )
    return [...words, ...inner]
  }
  return [
    {
      items: inner.flatMap((row) => row.items),
      draw: inner.length,
      points: inner[0]!.points,
      fixed: isTrue(part.attributes.fixed),
      together: true,
      order: shuffles(part) ? 'shuffled' : 'kept',
      required: false,
    },
  ]
}

/** The rows that a section gives. */
function rowsOf(section: XmlElement, reading: Reading): PortableRow[] {
  tellSession(section, reading)
  const select = selects(section)
  const parts = partsOf(section)
  if (isTrue(childOf(section, 'selection')?.attributes.withReplacement))
    reading.notes.add('Drawing the same item more than once is left out: a paper never repeats a question.')
  if (select !== null && select < parts.length) {
    if (!parts.some(isSection)) return drawn(section, select, reading)
    reading.notes.add(
      `“${titleOf(section, 'A section')}” draws ${select} of the ${parts.length} parts in it; here all of them are there. Take out what is too much.`,
    )
  }
  return parts.flatMap((part) => (isSection(part) ? withinSection(part, reading) : single(part, reading)))
}

function rubricOf(node: XmlElement, { notes }: Reading): string {
  return childrenOf(node, 'rubricBlock')
    .filter((block) => {
      const toCandidates = /\bcandidate\b/.test(block.attributes.view ?? 'candidate')
      if (!toCandidates) notes.add('What the test says to others than candidates is left out.')
      return toCandidates
    })
    .map((block) => blocksOf(childOf(block, 'contentBody')?.children ?? block.children, { notes }))
    .join('')
}

/** Minutes go in halves here: nobody gets less time than in the file. */
function minutesOf(node: XmlElement, { notes }: Reading): number | null {
  const seconds = Number(childOf(node, 'timeLimits')?.attributes.maxTime)
  if (!(seconds > 0)) return null
  const half = Math.ceil(seconds / 30) / 2
  if (!minutes.safeParse(half).success) {
    notes.add(`A time limit of ${seconds} seconds is left out.`)
    return null
  }
  if (half * 60 !== seconds)
    notes.add(`A time limit of ${seconds} seconds is ${half} minutes here, which go in halves.`)
  return half
}

/** A section, and those that people see within it as sections of their own after it. */
function sectionsOf(section: XmlElement, reading: Reading): PortableSection[] {
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

/** The sum of its items' scores, if its outcomes are no more than that, each times its weight. */
function plainSum(processing: XmlElement): XmlElement | null {
  const [only, ...more] = childrenOf(processing)
  const [sum] = only?.name === 'setOutcomeValue' ? childrenOf(only) : []
  const [of, ...others] = sum?.name === 'sum' ? childrenOf(sum) : []
  return !more.length && !others.length && of?.name === 'testVariables' ? of : null
}

/** By which weights the items of a test count: whichever there is where nothing names one. What of its outcomes has no like here is told. */
function weightsOf(test: XmlElement, notes: Set<string>): Reading['counts'] {
  const processing = childOf(test, 'outcomeProcessing')
  if (!processing) return () => true
  const sum = plainSum(processing)
  const {
    variableIdentifier = 'SCORE',
    weightIdentifier,
    includeCategory,
    excludeCategory,
    sectionIdentifier,
  } = sum?.attributes ?? {}
  if (!sum || variableIdentifier !== 'SCORE') {
    notes.add('Its own processing of outcomes is left out: points add up.')
    return () => true
  }
  if (includeCategory || excludeCategory || sectionIdentifier)
    notes.add('Only some of its items count in the file; here all of them do. Give the others no points.')
  return (weight) => weightIdentifier !== undefined && weight === weightIdentifier
}

/** Minutes for all of it: the test's own limit; without one those of its parts, where each has one. */
function limitOf(test: XmlElement, parts: readonly XmlElement[], reading: Reading): number | null {
  const { notes } = reading
  const own = minutesOf(test, reading)
  const limits = parts.map((part) => minutesOf(part, reading)).filter((each) => each !== null)
  if (!limits.length || (own === null && parts.length === 1)) return own ?? limits[0] ?? null
  const all = limits.reduce((sum, each) => sum + each, 0)
  if (own === null && limits.length === parts.length) {
    notes.add(`Its parts have ${limits.join(', ')} minutes each; here there are ${all} minutes for all of them.`)
    return all
  }
  notes.add(`Time limits of parts (${limits.join(', ')} minutes) are left out.`)
  return own
}

/** Words that a test shows by its outcomes: told one by one, since here they go by the grade. */
function feedbackIn(test: XmlElement, reading: Reading): void {
  for (const each of within(test, 'testFeedback')) {
    const words = plainText(blocksOf(childOf(each, 'contentBody')?.children ?? each.children, reading))
    if (words)
      reading.notes.add(
        `Words that are shown by the result are not brought in; write them as closing words: “${words.slice(0, 200)}”.`,
      )
  }
}

/** Reads an assessment test in the names of 2.x (1EdTech QTI): what has no like here is told, one by one. */
export function readTestTree(test: XmlElement, refs: References): PortableTest {
  const notes = new Set<string>()
  const reading: Reading = { refs, notes, counts: weightsOf(test, notes), sections: 0 }
  const whole = withSections(test, reading)
  const parts = childrenOf(whole, 'testPart')
  if (within(whole, 'preCondition').length || within(whole, 'branchRule').length)
    reading.notes.add('Conditions and branches between its parts are left out.')
  feedbackIn(whole, reading)
  parts.forEach((part) => tellSession(part, reading))
  if (within(whole, 'timeLimits').some(({ attributes }) => Number(attributes.minTime) > 0))
    notes.add('A least time that has to be spent is left out.')
  const late = [whole, ...parts].some((node) => isTrue(childOf(node, 'timeLimits')?.attributes.allowLateSubmission))
  const modes = new Set(parts.map((part) => part.attributes.navigationMode))
  if (modes.size > 1)
    reading.notes.add('In some of its parts people move freely, in others not; here they move freely in all.')
  return {
    title: titleOf(test, 'A test'),
    intro: [whole, ...parts].map((node) => rubricOf(node, reading)).join(''),
    sections: parts
      .flatMap((part) =>
        partsOf(part)
          .filter(isSection)
          .flatMap((section) => sectionsOf(section, reading)),
      )
      .filter((section) => section.rows.length),
    limit: limitOf(whole, parts, reading),
    mayOverrun: late,
    movement: parts.length > 0 && modes.size === 1 && modes.has('linear') ? 'forward' : 'free',
    notes: [...reading.notes],
  }
}

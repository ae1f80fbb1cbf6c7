import { textRow, type PortableRow } from '../../bundle'
import { childOf, type XmlElement } from '../../xml'
import { isSection, isTrue, partsOf, titleOf, type Reading } from './reading'
import { rubricOf } from './words'
import { tellSession } from './told'
import { pointsOf } from './weights'

function single(ref: XmlElement, reading: Reading): PortableRow[] {
  tellSession(ref, reading)
  if (childOf(ref, 'timeLimits')) reading.notes.add('Time limits of single items are left out.')
  const href = ref.attributes.href ?? ''
  const places = reading.refs.items(href)
  if (!places) {
    reading.notes.add(
      `The item “${(ref.attributes.identifier ?? href).slice(0, 80)}” (${href.slice(0, 80)}) is not in the package and is left out.`,
    )
    return []
  }
  return places.map((place) => ({
    items: [place],
    draw: 1,
    points: pointsOf(ref, place, reading),
    fixed: isTrue(ref.attributes.fixed),
    together: false,
    order: 'kept',
    required: ref.attributes.allowSkipping === 'false',
  }))
}

export const selects = (section: XmlElement): number | null => {
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

export const shuffles = (section: XmlElement) => isTrue(childOf(section, 'ordering')?.attributes.shuffle)

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
export function rowsOf(section: XmlElement, reading: Reading): PortableRow[] {
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

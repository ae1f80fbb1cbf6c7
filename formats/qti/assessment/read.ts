import type { PortableTest } from '../../bundle'
import { childOf, childrenOf, within, type XmlElement } from '../../xml'
import { isSection, isTrue, partsOf, titleOf, type Reading, type References } from './reading'
import { sectionsOf, withSections, withSkipping } from './sections'
import { tellFeedback, tellItems, tellSession } from './told'
import { weightsOf } from './weights'
import { minutesOf, rubricOf } from './words'

export type { References } from './reading'

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

/** Reads an assessment test in the names of 2.x (1EdTech QTI): what has no like here is told, one by one. */
export function readTestTree(test: XmlElement, refs: References): PortableTest {
  const notes = new Set<string>()
  const reading: Reading = { refs, notes, counts: weightsOf(test, notes), sections: 0 }
  const whole = withSkipping(withSections(test, reading))
  const parts = childrenOf(whole, 'testPart')
  if (within(whole, 'preCondition').length || within(whole, 'branchRule').length)
    reading.notes.add('Conditions and branches between its parts are left out.')
  tellFeedback(whole, reading)
  tellItems(whole, reading)
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

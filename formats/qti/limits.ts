import { childOf, childrenOf, within, type XmlElement } from '../xml'
import { numeric, refuse } from './kinds/reading'

/**
 * What the standard lets an interaction ask of those who answer (QTI 2.1 §7: minChoices, maxAssociations, matchMax, matchGroup,
 * patternMask, base …), and what questions here ask of nobody: none of it changes what an answer earns, and each is told.
 * @param nodes the interactions of an item
 * @throws UnreadableFile where it changes what an answer is
 */
export function tellLimits(nodes: readonly XmlElement[], notes: Set<string>): void {
  for (const node of nodes) {
    const { base, minChoices, patternMask } = node.attributes
    if (numeric(base, 10) !== 10) refuse(`It asks for a number in base ${base!.slice(0, 10)}, which has no like here.`)
    if (numeric(minChoices) > 1)
      notes.add(`At least ${numeric(minChoices)} have to be chosen in the file; here any number may be.`)
    if (patternMask)
      notes.add(`What may be typed has a pattern in the file (${patternMask.slice(0, 60)}); here anything may be.`)
    tellPairs(node, notes)
  }
}

/** How often a thing may be used: 0 is as often as there are partners. */
const capOf = ({ attributes }: XmlElement, partners: number) => {
  const most = numeric(attributes.matchMax, 1)
  return most > 0 ? Math.min(most, partners) : partners
}
const sum = (all: readonly number[]) => all.reduce((total, each) => total + each, 0)

const pairs = (n: number) => (n === 1 ? 'one pair' : `${n} pairs`)

function tellPairs(node: XmlElement, notes: Set<string>): void {
  const sides = sidesOf(node)
  if (!sides) return
  const [first, second] = sides
  const things = [...first, ...second]
  const caps = [...first.map((each) => capOf(each, second.length)), ...second.map((each) => capOf(each, first.length))]
  const limited = things.filter((each, i) => {
    const partners = i < first.length ? second.length : first.length
    return caps[i]! < partners && (caps[i]! > 1 || each.name === 'gapText')
  })
  if (limited.length)
    notes.add(
      limited.every(({ name }) => name === 'gapText')
        ? 'How often a word may be used is limited in the file; here every gap takes any word.'
        : 'How often things of it may be used is limited in the file; here they may be used any number of times.',
    )
  const most = Math.min(sum(caps.slice(0, first.length)), sum(caps.slice(first.length)))
  const { maxAssociations, minAssociations } = node.attributes
  if (numeric(maxAssociations) > 0 && numeric(maxAssociations) < most)
    notes.add(`At most ${pairs(numeric(maxAssociations))} may be made in the file; here any number of them.`)
  if (numeric(minAssociations) > 1)
    notes.add(`At least ${pairs(numeric(minAssociations))} have to be made in the file; here any number may be.`)
  if (things.some(({ attributes }) => numeric(attributes.matchMin) > 0))
    notes.add('That some things of it have to be used is not kept.')
  if (things.some(({ attributes }) => (attributes.matchGroup ?? '').trim()))
    notes.add('Which of it may go with which is limited in the file; here each may go with each.')
}

/** What goes together, on either side; null for an interaction without pairs. */
function sidesOf(node: XmlElement): [XmlElement[], XmlElement[]] | null {
  if (node.name === 'matchInteraction') {
    const [first, second] = childrenOf(node, 'simpleMatchSet').map((set) => childrenOf(set, 'simpleAssociableChoice'))
    return first && second ? [first, second] : null
  }
  return node.name === 'gapMatchInteraction' ? [childrenOf(node, 'gapText'), within(node, 'gap')] : null
}

/** What a file says of responses and of the score that questions here do not have. @param marked whether people mark it here */
export function tellDeclared(item: XmlElement, marked: boolean, notes: Set<string>): void {
  if (childrenOf(item, 'responseDeclaration').some((each) => childOf(each, 'defaultValue')))
    notes.add('The file fills in an answer beforehand; here nothing is.')
  const score = childrenOf(item, 'outcomeDeclaration').find(({ attributes }) => attributes.identifier === 'SCORE')
  if (score?.attributes.externalScored && !marked)
    notes.add('In the file its score comes from elsewhere (people, or another program); here it is scored by its key.')
}

/** What lies beside an item. @returns whether a calculator does */
export function besideIn(item: XmlElement, notes: Set<string>): { calculator: boolean } {
  const beside = childOf(item, 'companionMaterialsInfo')
  const things = beside ? childrenOf(beside) : []
  if (things.some(({ name }) => name !== 'calculator'))
    notes.add('What the file lays beside the item (rulers, tables, things to take along) is left out.')
  if (childOf(item, 'catalogInfo'))
    notes.add('Its catalogue of other forms (spoken, signed, explained words) is left out.')
  return { calculator: things.some(({ name }) => name === 'calculator') }
}

import { plainText, type Question, type Stimulus } from '../../../core/question'
import { brokenItem, readItem, UnreadableFile, type BundleItem } from '../../bundle'
import { childOf, childrenOf, type XmlElement } from '../../xml'
import { asItems, type OlderItem } from '../older'
import { prove } from '../proof/prove'
import { lostOf } from '../proof/words'
import { readItemTree, type ReadItem, type ReadPart } from '../read'
import { resolve, type Described, type Resource } from './manifest'
import { withMedia } from './media'
import { attempted, treeOf, type Package } from './opened'
import { itemSettings } from './settings'

/** What metadata says of a question, where the question itself says nothing. */
const described = (question: Question, { tags, difficulty, seconds }: Described): Question => ({
  ...question,
  tags: question.tags.length ? question.tags : tags,
  difficulty: difficulty ?? question.difficulty,
  seconds: seconds ?? question.seconds,
})

/** Processing that lies in another file of the package, put in its place (QTI 2.1 §11.1, template and templateLocation). */
function withProcessing(item: XmlElement, href: string, pack: Package): XmlElement {
  const own = childOf(item, 'responseProcessing')
  if (!own || childrenOf(own).length) return item
  const found = [own.attributes.template, own.attributes.templateLocation]
    .filter((address) => address !== undefined && !/^[a-z][a-z0-9+.-]*:/i.test(address))
    .map((address) => treeOf(pack, resolve(href, address!)))
    .find((tree) => tree?.name === 'responseProcessing')
  return found ? { ...item, children: item.children.map((child) => (child === own ? found : child)) } : item
}

/** An item in the names of 2.x, and what it was put together from where it is older. */
interface FileItem {
  item: XmlElement
  older: OlderItem | null
}

/** The item as it is known to the bank: one, or one for each thing that it asks, with what they share. */
function itemsFrom(
  read: ReadItem,
  { item: tree, older }: FileItem,
  resource: Resource,
  pack: Package,
  notes: string[],
): BundleItem[] {
  const { href } = resource
  const shared = childrenOf(tree, 'assessmentStimulusRef').map(({ attributes }) =>
    pack.stimuli.get(resolve(href, attributes.href ?? '')),
  )
  if (shared.includes(undefined)) notes.push('What it shares with other items is not in the package.')
  const [first, ...others] = shared.filter((each) => each !== undefined)
  let stimulus = first?.id
  if (others.length) notes.push('It goes with several stimuli: all but the first stand in its own text here.')
  const common = others.map((each) => each.stimulus.html).join('') + (read.common ?? '')
  const inStem = common !== '' && stimulus !== undefined
  if (read.common !== null && stimulus === undefined) {
    stimulus = `${read.identifier || href}#common`.slice(0, 80)
    pack.stimuli.set(`${href}#common`, { id: stimulus, stimulus: commonStimulus(read) })
  }
  const questions = read.parts.map(({ question }) => question)
  const lost = lostOf(tree, questions, [common], older?.written)
  if (lost.things > 0 && !notes.length) notes.push('A picture, sound, film or piece of maths of it was not read.')
  const several = read.parts.length > 1
  if (several) notes.push(`It asks ${read.parts.length} things: each is a question of its own here.`)
  return read.parts.map((part: ReadPart, i) => {
    const question = inStem ? { ...part.question, stem: common + part.question.stem } : part.question
    return readItem(
      several ? `${href} (${i + 1} of ${read.parts.length})` : href,
      described(question, resource.described),
      {
        outsideId: read.identifier ? (several ? `${read.identifier}#${part.name ?? i}` : read.identifier) : null,
        notes: [...notes, ...(i === 0 ? read.notes : [])],
        stimulus: stimulus ?? null,
        proof: prove(
          { item: tree, older: older?.written, question: part.question, responses: part.responses },
          part.tried,
        ),
        lost: i === 0 ? lost.words : [],
      },
    )
  })
}

const commonStimulus = ({ question, common, identifier }: ReadItem): Stimulus => ({
  name: (question.internalName || plainText(common ?? '').slice(0, 60) || identifier || 'Stimulus').slice(0, 160),
  language: question.language,
  html: common ?? '',
  source: '',
  translations: {},
})

/** Everything that one file gives; nothing for one that is no item. */
export function readItemFile(resource: Resource, pack: Package): BundleItem[] {
  const { href, settings } = resource
  const bytes = pack.files.get(href)
  if (!bytes) return [brokenItem(href, 'The manifest names this file, but the package does not hold it.')]
  const own = itemSettings(settings, bytes)
  const read = ({ item, older }: FileItem, place: string): BundleItem[] => {
    const notes: string[] = [...(older?.notes ?? [])]
    return attempted(place, notes, () => {
      if (older?.problem) throw new UnreadableFile(older.problem)
      const placed = withMedia(withProcessing(item, href, pack), href, pack, notes)
      if (own)
        return [
          readItem(href, own.question, {
            outsideId: own.id,
            folder: own.folder,
            objectives: own.objectives,
            stimulus: own.question.stimulus,
          }),
        ]
      const found = readItemTree(placed, older?.written)
      return itemsFrom(found, { item: placed, older }, { ...resource, href: place }, pack, notes)
    })
  }
  return attempted(href, [], () => {
    const tree = treeOf(pack, href)!
    const all = asItems(tree)
    if (all) {
      const found = all.map((older, i) => ({
        written: older.written,
        read: read({ item: older.item, older }, all.length > 1 ? `${href}, item ${i + 1}` : href),
      }))
      const items = found.map((each) => ({ written: each.written, places: each.read.map(({ place }) => place) }))
      pack.older.push({ href, tree, items })
      return found.flatMap((each) => each.read)
    }
    return tree.name === 'assessmentItem' ? read({ item: tree, older: null }, href) : []
  })
}

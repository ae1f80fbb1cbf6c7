import { element, within, type XmlElement } from '../../xml'
import { bodyOf, feedbackOf } from './body'
import { processingIn } from './processing'
import { askedIn, responseOf, strangeness } from './responses'

/**
 * Items of QTI 1.2 (IMS Question & Test Interoperability ASI information model, from memory), which packages of courses still
 * hold, put into the elements of 2.x: what reads those reads these. They are proven by their own processing, as it stands.
 */
export interface OlderItem {
  /** As it stands in its file. */
  written: XmlElement
  /** In the elements of 2.x. */
  item: XmlElement
  /** What is left out or taken for granted. */
  notes: string[]
  /** Why it cannot be read, in a sentence. */
  problem: string | null
}

function asItem(written: XmlElement): OlderItem {
  const notes = new Set<string>()
  const asked = askedIn(written)
  const responses = new Map(asked.map((each) => [each.attributes.ident ?? '', responseOf(each)]))
  const { rules, outcomes } = processingIn(written, { responses, notes })
  const { ident, title, lang, maxattempts } = written.attributes
  if (maxattempts !== undefined && maxattempts !== '1')
    notes.add('How often it may be tried is a rule of the whole quiz here.')
  const item = element(
    'assessmentItem',
    { identifier: ident, title, adaptive: 'false', lang },
    [...responses.values()].map((each) => element('responseDeclaration', { ...each })),
    outcomes,
    bodyOf(written, notes),
    rules.length ? element('responseProcessing', {}, rules) : null,
    feedbackOf(written, notes),
  )
  return { written, item, notes: [...notes], problem: asked.map(strangeness).find((each) => each !== null) ?? null }
}

/** The items of a file of QTI 1.2; null for a file that is none. */
export const asItems = (tree: XmlElement): OlderItem[] | null =>
  tree.name === 'questestinterop' ? within(tree, 'item').map(asItem) : null

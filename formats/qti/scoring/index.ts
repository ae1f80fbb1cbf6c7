import { childOf, childrenOf, type XmlElement } from '../../xml'
import { NotProven } from '../processing/not-proven'
import { templateRules } from '../processing/templates'
import { Unfolded, unfold } from './outcomes'
import { scoreOf, type Score } from './terms'

/** The score of an item as a sum over its responses; null where its processing cannot be put so, or where there is none. */
export function scoreFor(item: XmlElement): Score | null {
  const processing = childOf(item, 'responseProcessing')
  if (!processing) return null
  const own = childrenOf(processing)
  const address = processing.attributes.template ?? processing.attributes.templateLocation
  if (!own.length && address === undefined) return null
  try {
    const score = unfold(own.length ? own : templateRules(address!), item).get('SCORE')
    return score ? scoreOf(score) : null
  } catch (error) {
    if (error instanceof Unfolded || error instanceof NotProven) return null
    throw error
  }
}

import { minutes } from '../../../core/rules/values'
import { childOf, childrenOf, type XmlElement } from '../../xml'
import { htmlOf } from '../content/read'
import type { Reading } from './reading'

export function rubricOf(node: XmlElement, { notes }: Reading): string {
  return childrenOf(node, 'rubricBlock')
    .filter((block) => {
      const toCandidates = /\bcandidate\b/.test(block.attributes.view ?? 'candidate')
      if (!toCandidates) notes.add('What the test says to others than candidates is left out.')
      return toCandidates
    })
    .map((block) => htmlOf(childOf(block, 'contentBody')?.children ?? block.children, { notes }))
    .join('')
}

/** Minutes go in halves here: nobody gets less time than in the file. */
export function minutesOf(node: XmlElement, { notes }: Reading): number | null {
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

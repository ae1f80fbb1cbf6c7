import { isBlank, type Stimulus } from '../../core/question'
import { languageCode } from '../../core/question/language'
import { UnreadableFile } from '../bundle'
import { childOf, element, type XmlElement } from '../xml'
import { blocksOf } from './content/read'
import { contentNodes } from './content/write'
import type { QtiVersion } from './names'
import { inVersion } from './write'

/** What questions share, as an assessment stimulus (QTI 2.2 and 3.0). */
export const writeStimulus = (stimulus: Stimulus, identifier: string, version: QtiVersion): XmlElement =>
  inVersion(
    element(
      'assessmentStimulus',
      { identifier, title: stimulus.name, 'xml:lang': stimulus.language },
      element('stimulusBody', {}, contentNodes(stimulus.html)),
    ),
    version,
  )

/** Reads an assessment stimulus in the names of 2.x. @throws UnreadableFile when there is nothing in it */
export function readStimulusTree(tree: XmlElement): { identifier: string; stimulus: Stimulus } {
  const html = blocksOf(childOf(tree, 'stimulusBody')?.children ?? [], { notes: new Set() })
  if (isBlank(html)) throw new UnreadableFile('A stimulus of this package is empty.')
  const language = tree.attributes.lang ?? 'en'
  return {
    identifier: tree.attributes.identifier ?? '',
    stimulus: {
      name: (tree.attributes.title ?? '').trim().slice(0, 160) || 'Stimulus',
      language: languageCode.test(language) ? language : 'en',
      html,
      source: '',
      translations: {},
    },
  }
}

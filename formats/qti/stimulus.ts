import { isBlank, type Stimulus } from '../../core/question'
import { languageCode } from '../../core/question/language'
import { UnreadableFile } from '../bundle'
import { withMaths } from '../plain-html'
import { childOf, element, type XmlElement } from '../xml'
import { parseHtml, toHtml } from './xhtml'
import { namespaces, toVersion3, type QtiVersion } from './names'

/** What questions share, as an assessment stimulus (QTI 2.2 and 3.0). */
export function writeStimulus(stimulus: Stimulus, identifier: string, version: QtiVersion): XmlElement {
  const tree = element(
    'assessmentStimulus',
    { identifier, title: stimulus.name, 'xml:lang': stimulus.language },
    element('stimulusBody', {}, parseHtml(stimulus.html)),
  )
  const named = version === '3.0' ? toVersion3(tree) : tree
  return { ...named, attributes: { xmlns: namespaces[version], ...named.attributes } }
}

/** Reads an assessment stimulus in the names of 2.x. @throws UnreadableFile when there is nothing in it */
export function readStimulusTree(tree: XmlElement): { identifier: string; stimulus: Stimulus } {
  const html = withMaths(toHtml(childOf(tree, 'stimulusBody')?.children ?? []))
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

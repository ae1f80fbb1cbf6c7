import { element, type XmlElement } from '../../xml'
import { NotProven } from './not-proven'

const variable = element('variable', { identifier: 'RESPONSE' })
const score = (of: XmlElement) => element('setOutcomeValue', { identifier: 'SCORE' }, of)
const points = (value: string) => element('baseValue', { baseType: 'float' }, value)

const mapped = (by: 'mapResponse' | 'mapResponsePoint') => [
  element(
    'responseCondition',
    {},
    element('responseIf', {}, element('isNull', {}, variable), score(points('0.0'))),
    element('responseElse', {}, score(element(by, { identifier: 'RESPONSE' }))),
  ),
]

/** The rules that the standard publishes under a name (QTI 2.1 §11.2, 3.0 rptemplates). */
const published = new Map<string, XmlElement[]>(
  Object.entries({
    match_correct: [
      element(
        'responseCondition',
        {},
        element(
          'responseIf',
          {},
          element('match', {}, variable, element('correct', { identifier: 'RESPONSE' })),
          score(points('1')),
        ),
        element('responseElse', {}, score(points('0'))),
      ),
    ],
    map_response: mapped('mapResponse'),
    map_response_point: mapped('mapResponsePoint'),
  }),
)

/** Whoever publishes the standard; a path without a host is a copy that lies beside the item. */
const publishers = /^(?:[a-z][a-z0-9+.-]*:\/\/(?:[a-z0-9-]+\.)*(?:imsglobal|1edtech)\.org\/|(?![a-z][a-z0-9+.-]*:))/i

/** The name of a published template, from any version's address of it; null for one that somebody else publishes. */
const templateName = (address: string): string | null =>
  publishers.test(address.trim()) ? (address.split(/[?#]/)[0]!.split('/').at(-1) ?? '').replace(/\.xml$/i, '') : null

/** The rules that a template stands for. @throws NotProven for one that is not published by the standard */
export function templateRules(address: string): XmlElement[] {
  const found = published.get(templateName(address.trim()) ?? '')
  if (!found) throw new NotProven(`Its processing is in a template of its own: “${address.slice(0, 120)}”.`)
  return found
}

import { exact } from '../../../../core/kit/exact'
import type { Question } from '../../../../core/question'
import { element } from '../../../xml'
import { parseHtml } from '../../xhtml'
import { type Parts, decimal, declaration, mapping, prompt } from '../writing'

export function pairs(question: Extract<Question, { kind: 'matching' | 'sorting' }>): Parts {
  const { items, targets, wrongCost } = question.body
  const belonging = items.filter((item) => item.target !== null)
  const worth = decimal(`1/${Math.max(1, belonging.length)}`)
  const choices = (entries: { id: string; html: string }[], mark: string, matchMax: number) =>
    element(
      'simpleMatchSet',
      {},
      entries.map((entry) =>
        element('simpleAssociableChoice', { identifier: mark + entry.id, matchMax }, parseHtml(entry.html)),
      ),
    )
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'multiple',
        'directedPair',
        belonging.map((item) => `i_${item.id} t_${item.target!}`),
        mapping(
          belonging.map((item) => [`i_${item.id} t_${item.target!}`, worth]),
          { lower: 0, wrong: decimal(exact(worth).mul(exact(wrongCost)).neg()) },
        ),
      ),
    ],
    body: [
      element(
        'matchInteraction',
        { responseIdentifier: 'RESPONSE', shuffle: true, maxAssociations: items.length },
        prompt(question),
        choices(items, 'i_', 1),
        choices(targets, 't_', question.kind === 'matching' ? 1 : 0),
      ),
    ],
    processing: element('responseProcessing', { template: 'map_response' }),
  }
}

import type { Question } from '../../../../core/question'
import { element } from '../../../xml'
import { parseHtml } from '../../xhtml'
import { type Parts, declaration, prompt } from '../writing'

export function ordering(question: Extract<Question, { kind: 'ordering' }>): Parts {
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'ordered',
        'identifier',
        question.body.items.map((item) => item.id),
      ),
    ],
    body: [
      element(
        'orderInteraction',
        {
          responseIdentifier: 'RESPONSE',
          shuffle: true,
          orientation: question.body.layout === 'row' ? 'horizontal' : 'vertical',
        },
        prompt(question),
        question.body.items.map((item) => element('simpleChoice', { identifier: item.id }, parseHtml(item.html))),
      ),
    ],
    processing: element('responseProcessing', { template: 'match_correct' }),
  }
}

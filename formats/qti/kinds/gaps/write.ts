import { exact } from '../../../../core/kit/exact'
import type { Question } from '../../../../core/question'
import { element, type XmlElement } from '../../../xml'
import { mapElements, parseHtml } from '../../xhtml'
import { type Parts, decimal, declaration, mapping, variable, base, outcome, stem } from '../writing'
import { isNumber } from '../entry/write'

export function gaps(question: Extract<Question, { kind: 'gaps' }>): Parts {
  const { gaps: all } = question.body
  const weights = all.reduce((sum, gap) => sum + gap.weight, 0)
  const byId = new Map(all.map((gap) => [gap.id, gap]))
  const body = mapElements(parseHtml(question.body.text), (node) => {
    const gap = byId.get(node.attributes['data-gap'] ?? '')
    if (!gap) return node
    return gap.as === 'list'
      ? element(
          'inlineChoiceInteraction',
          { responseIdentifier: gap.id, shuffle: !gap.body.inOrder },
          gap.body.options.map((option) =>
            element('inlineChoice', { identifier: option.id }, option.html.replace(/<[^>]+>/g, '')),
          ),
        )
      : element('textEntryInteraction', { responseIdentifier: gap.id, expectedLength: 12 })
  })
  const declarations = all.map((gap) =>
    gap.as === 'list'
      ? declaration(
          gap.id,
          'single',
          'identifier',
          gap.body.options
            .filter((option) => option.credit === 1)
            .map((option) => option.id)
            .slice(0, 1),
          mapping(gap.body.options.map((option) => [option.id, option.credit])),
        )
      : gap.as === 'text'
        ? declaration(
            gap.id,
            'single',
            'string',
            gap.body.answers.slice(0, 1).map((answer) => answer.text),
            mapping(
              gap.body.answers.map((answer) => [answer.text, answer.credit]),
              { caseSensitive: gap.body.caseMatters },
            ),
          )
        : declaration(
            gap.id,
            'single',
            'float',
            gap.body.answers.slice(0, 1).map((answer) => answer.value),
          ),
  )
  // Each gap adds its part, by its weight among all.
  const add = (gap: (typeof all)[number]) => {
    const part = (expression: XmlElement) =>
      outcome(
        element(
          'sum',
          {},
          variable('SCORE'),
          element('product', {}, expression, base('float', decimal(exact(gap.weight).div(exact(weights))))),
        ),
      )
    return gap.as === 'number'
      ? element(
          'responseCondition',
          {},
          element('responseIf', {}, isNumber(gap.body.answers[0]!, gap.id), part(base('float', 1))),
        )
      : part(element('mapResponse', { identifier: gap.id }))
  }
  return {
    declarations,
    body: [...stem(question), element('div', {}, body)],
    processing: element('responseProcessing', {}, all.map(add)),
  }
}

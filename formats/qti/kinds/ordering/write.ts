import { exact } from '../../../../core/kit/exact'
import type { Question } from '../../../../core/question'
import { element } from '../../../xml'
import { contentNodes } from '../../content/write'
import { adding, asked, base, declaration, firstOf, legal, matched, variable, worth, type Parts } from '../writing'

export function ordering(question: Extract<Question, { kind: 'ordering' }>): Parts {
  const { items, rule, layout } = question.body
  const names = items.map(({ id }) => legal(id))
  const { above, prompt } = asked(question)
  const name = (id: string) => base('identifier', id)
  // How much of an order is right by its longest part is nothing that the standard can say: there it is the whole order.
  const conditions =
    rule === 'places'
      ? names.map((id, i) => element('match', {}, element('index', { n: i + 1 }, variable('RESPONSE')), name(id)))
      : rule === 'neighbours'
        ? names
            .slice(1)
            .map((id, i) =>
              element('contains', {}, variable('RESPONSE'), element('ordered', {}, name(names[i]!), name(id))),
            )
        : []
  return {
    declarations: [declaration('RESPONSE', 'ordered', 'identifier', names)],
    body: [
      ...above,
      element(
        'orderInteraction',
        { responseIdentifier: 'RESPONSE', shuffle: true, orientation: layout === 'row' ? 'horizontal' : 'vertical' },
        prompt,
        items.map((item) => element('simpleChoice', { identifier: legal(item.id) }, contentNodes(item.html))),
      ),
    ],
    ...(rule === 'neighbours' || rule === 'places' ? {} : { template: 'match_correct' as const }),
    rules: conditions.length
      ? conditions.map((condition) =>
          firstOf([{ condition, then: adding(base('float', worth(question, exact(1).div(conditions.length)))) }]),
        )
      : matched(question),
    comments: [],
    responses: ({ order }: { order: string[] }) => ({ RESPONSE: order.map(legal) }),
  }
}

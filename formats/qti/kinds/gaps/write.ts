import { exact } from '../../../../core/kit/exact'
import { plainText, type Question } from '../../../../core/question'
import type { Gap } from '../../../../core/question/kinds/gaps'
import { element, type XmlElement } from '../../../xml'
import { contentNodes } from '../../content/write'
import { mapElements } from '../../../html'
import { acceptedNumbers, acceptedTexts, commentsOn, type Accepted } from '../entry/write'
import { plainNumber } from '../entry/typed'
import { adding, base, declaration, firstOf, legal, outcome, stem, variable, worth, type Parts } from '../writing'

/** What a gap accepts, the best first. */
function acceptedIn(gap: Gap): Accepted[] {
  const name = legal(gap.id)
  if (gap.as === 'number') return acceptedNumbers(gap.body, name)
  if (gap.as === 'text') return acceptedTexts(gap.body, name)
  return [...gap.body.options]
    .filter(({ credit, comment }) => credit !== 0 || comment)
    .sort((a, b) => b.credit - a.credit)
    .map(({ id, credit, comment }) => ({
      condition: element('match', {}, variable(name), base('identifier', legal(id))),
      credit,
      comment,
    }))
}

function declared(gap: Gap): XmlElement {
  const name = legal(gap.id)
  if (gap.as === 'list')
    return declaration(
      name,
      'single',
      'identifier',
      gap.body.options
        .filter((option) => option.credit === 1)
        .map((option) => legal(option.id))
        .slice(0, 1),
    )
  const best = gap.body.answers.find((answer) => answer.credit === 1) ?? gap.body.answers[0]
  const key = best && ('value' in best ? best.value : best.how === 'matches' ? null : best.text)
  return declaration(name, 'single', gap.as === 'number' ? 'float' : 'string', key ? [key] : [])
}

/** A text, with each place to fill as the interaction that it is. */
export function gaps(question: Extract<Question, { kind: 'gaps' }>): Parts {
  const { gaps: all, rule } = question.body
  const weights = all.reduce((sum, gap) => sum + gap.weight, 0)
  const byId = new Map(all.map((gap) => [gap.id, gap]))
  const body = mapElements(contentNodes(question.body.text), (node) => {
    const gap = byId.get(node.attributes['data-gap'] ?? '')
    if (!gap) return node
    if (gap.as !== 'list')
      return element('textEntryInteraction', {
        responseIdentifier: legal(gap.id),
        expectedLength: gap.as === 'text' ? gap.body.longest : 12,
      })
    return element(
      'inlineChoiceInteraction',
      { responseIdentifier: legal(gap.id), shuffle: !gap.body.inOrder },
      gap.body.options.map((option) =>
        element(
          'inlineChoice',
          { identifier: legal(option.id), fixed: option.fixed || gap.body.inOrder || null },
          plainText(option.html),
        ),
      ),
    )
  })
  const accepted = all.map((gap) => ({ gap, accepted: acceptedIn(gap) }))
  const adds = accepted.map(({ gap, accepted: each }) =>
    firstOf(
      each
        .filter(({ credit }) => credit !== 0)
        .map(({ condition, credit }) => ({
          condition,
          then: adding(
            base(
              'float',
              worth(
                question,
                exact(credit)
                  .mul(exact(gap.weight))
                  .div(exact(weights || 1)),
              ),
            ),
          ),
        })),
    ),
  )
  // What wrong words take away takes it from other gaps, and never more than there is.
  const mayFall = accepted.some(({ accepted: each }) => each.some(({ credit }) => credit < 0))
  const floor = firstOf([
    { condition: element('lt', {}, variable('SCORE'), base('float', 0)), then: outcome(base('float', 0)) },
  ])
  const whole = firstOf([
    {
      condition: element(
        'and',
        {},
        accepted.map(({ accepted: each }) => {
          const full = each.filter(({ credit }) => credit === 1).map(({ condition }) => condition)
          return full.length === 1 ? full[0]! : element('or', {}, full)
        }),
      ),
      then: outcome(base('float', worth(question, 1))),
    },
  ])
  return {
    declarations: all.map(declared),
    body: [...stem(question), element('div', {}, body)],
    rules: rule === 'all' ? [whole] : mayFall ? [...adds, floor] : adds,
    comments: accepted.flatMap(({ accepted: each }) => commentsOn(each)),
    responses: ({ gaps: given }: { gaps: Record<string, string> }) =>
      Object.fromEntries(
        all.map((gap) => {
          const text = (given[gap.id] ?? '').trim()
          return [
            legal(gap.id),
            text === '' ? [] : gap.as === 'number' ? plainNumber(text) : [gap.as === 'list' ? legal(text) : text],
          ]
        }),
      ),
  }
}

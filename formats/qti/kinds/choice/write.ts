import type { Question } from '../../../../core/question'
import { element } from '../../../xml'
import { type Parts, decimal, declaration, mapping, options, simpleChoices, prompt } from '../writing'

export function choice(question: Extract<Question, { kind: 'choice' | 'trueFalse' | 'yesNo' }>): Parts {
  const right = options(question)
    .filter((option) => option.credit === 1)
    .slice(0, 1)
    .map((option) => option.id)
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'single',
        'identifier',
        right,
        mapping(options(question).map((option) => [option.id, option.credit])),
      ),
    ],
    body: [
      element(
        'choiceInteraction',
        { responseIdentifier: 'RESPONSE', shuffle: !question.body.inOrder, maxChoices: 1 },
        prompt(question),
        simpleChoices(question),
      ),
    ],
    processing: element('responseProcessing', { template: 'map_response' }),
  }
}

export function choices(question: Extract<Question, { kind: 'choices' }>): Parts {
  const right = question.body.options.filter((option) => option.right)
  const wrong = question.body.options.length - right.length
  const share = (option: { right: boolean }) =>
    option.right ? decimal(`1/${right.length}`) : decimal(`-1/${Math.max(1, wrong)}`)
  const entries = question.body.options.map((option): [string, number | string] => [
    option.id,
    question.body.rule === 'credits' ? option.credit : share(option),
  ])
  const bounds =
    question.body.rule === 'credits'
      ? { lower: question.body.lower, upper: question.body.upper }
      : { lower: 0, upper: 1 }
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'multiple',
        'identifier',
        right.map((option) => option.id),
        question.body.rule === 'all' ? null : mapping(entries, bounds),
      ),
    ],
    body: [
      element(
        'choiceInteraction',
        {
          responseIdentifier: 'RESPONSE',
          shuffle: !question.body.inOrder,
          maxChoices: question.body.tellHowMany ? right.length : 0,
        },
        prompt(question),
        simpleChoices(question),
      ),
    ],
    processing: element('responseProcessing', {
      template: question.body.rule === 'all' ? 'match_correct' : 'map_response',
    }),
  }
}

import { exact } from '../../../../core/kit/exact'
import type { Question } from '../../../../core/question'
import { allCredits } from '../../../../core/question/kinds/choices'
import { element } from '../../../xml'
import {
  asked,
  creditMapping,
  declaration,
  legal,
  mappedBy,
  mapping,
  matched,
  options,
  simpleChoices,
  worth,
  type Parts,
} from '../writing'

const chosen = ({ chosen: ids }: { chosen: string[] }) => ({ RESPONSE: ids.map(legal) })

export function choice(question: Extract<Question, { kind: 'choice' | 'trueFalse' | 'yesNo' }>): Parts {
  const right = options(question).filter((option) => option.credit === 1)
  const { above, prompt } = asked(question)
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'single',
        'identifier',
        right.slice(0, 1).map((option) => legal(option.id)),
        mapping(options(question).map(({ id, credit }) => ({ key: legal(id), worth: worth(question, credit) }))),
      ),
    ],
    body: [
      ...above,
      element(
        'choiceInteraction',
        { responseIdentifier: 'RESPONSE', shuffle: !question.body.inOrder, maxChoices: 1 },
        prompt,
        simpleChoices(question),
      ),
    ],
    template: 'map_response',
    rules: mappedBy('mapResponse'),
    comments: [],
    responses: chosen,
  }
}

export function choices(question: Extract<Question, { kind: 'choices' }>): Parts {
  const { rule } = question.body
  const right = question.body.options.filter((option) => option.right)
  const wrong = question.body.options.length - right.length
  const named = question.body.options.map((option) => ({ key: legal(option.id), option }))
  const share = (isRight: boolean) => exact(isRight ? `1/${Math.max(1, right.length)}` : `-1/${Math.max(1, wrong)}`)
  const mapped = () =>
    rule === 'credits'
      ? creditMapping(
          question,
          allCredits(question.body),
          named.map(({ key, option }) => ({ key, credit: option.credit })),
        )
      : mapping(
          named.map(({ key, option }) => ({ key, worth: worth(question, share(option.right)) })),
          { lower: 0, upper: worth(question, 1) },
        )
  const { above, prompt } = asked(question)
  const all = rule === 'all'
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'multiple',
        'identifier',
        right.map((option) => legal(option.id)),
        all ? null : mapped(),
      ),
    ],
    body: [
      ...above,
      element(
        'choiceInteraction',
        {
          responseIdentifier: 'RESPONSE',
          shuffle: !question.body.inOrder,
          maxChoices: question.body.tellHowMany ? right.length : 0,
        },
        prompt,
        simpleChoices(question),
      ),
    ],
    template: all ? 'match_correct' : 'map_response',
    rules: all ? matched(question) : mappedBy('mapResponse'),
    comments: [],
    responses: chosen,
  }
}

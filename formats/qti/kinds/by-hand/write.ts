import type { Question } from '../../../../core/question'
import { element } from '../../../xml'
import { asked, declaration, stem, type Parts } from '../writing'

/** What people mark: nothing in it is scored by a machine; what markers are to know is said to them. */
export function byHand(question: Extract<Question, { kind: 'written' | 'short' | 'recording' }>): Parts {
  const rubric = [
    ...question.body.rubric.map((line) =>
      element('p', {}, `${line.title} (${line.share} %)${line.words ? `: ${line.words}` : ''}`),
    ),
    ...(question.body.model ? [element('p', {}, question.body.model)] : []),
  ]
  const { above, prompt } = asked(question)
  const interaction =
    question.kind === 'written'
      ? [
          ...above,
          element(
            'extendedTextInteraction',
            {
              responseIdentifier: 'RESPONSE',
              expectedLength: question.body.longest,
              expectedLines: question.body.lines,
            },
            prompt,
          ),
        ]
      : question.kind === 'recording'
        ? [...above, element('uploadInteraction', { responseIdentifier: 'RESPONSE', type: 'audio/webm' }, prompt)]
        : [
            ...stem(question),
            element(
              'p',
              {},
              question.body.label ? `${question.body.label} ` : null,
              element('textEntryInteraction', {
                responseIdentifier: 'RESPONSE',
                expectedLength: question.body.longest,
              }),
            ),
          ]
  return {
    declarations: [declaration('RESPONSE', 'single', question.kind === 'recording' ? 'file' : 'string', [])],
    body: [...interaction, ...(rubric.length ? [element('rubricBlock', { view: 'scorer' }, rubric)] : [])],
    rules: null,
    comments: [],
    responses: () => ({}),
  }
}

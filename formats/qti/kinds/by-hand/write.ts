import type { Question } from '../../../../core/question'
import { element } from '../../../xml'
import { type Parts, declaration, prompt, stem } from '../writing'

export function byHand(question: Extract<Question, { kind: 'written' | 'short' | 'recording' }>): Parts {
  const rubric = [
    ...question.body.rubric.map((line) =>
      element('p', {}, `${line.title} (${line.share} %)${line.words ? `: ${line.words}` : ''}`),
    ),
    ...(question.body.model ? [element('p', {}, question.body.model)] : []),
  ]
  const interaction =
    question.kind === 'written'
      ? element(
          'extendedTextInteraction',
          { responseIdentifier: 'RESPONSE', expectedLength: question.body.longest, expectedLines: question.body.lines },
          prompt(question),
        )
      : question.kind === 'recording'
        ? element('uploadInteraction', { responseIdentifier: 'RESPONSE', type: 'audio/webm' }, prompt(question))
        : element(
            'p',
            {},
            question.body.label ? `${question.body.label} ` : null,
            element('textEntryInteraction', { responseIdentifier: 'RESPONSE', expectedLength: question.body.longest }),
          )
  return {
    declarations: [declaration('RESPONSE', 'single', question.kind === 'recording' ? 'file' : 'string', [])],
    body: [
      ...(question.kind === 'short' ? stem(question) : []),
      interaction,
      rubric.length ? element('rubricBlock', { view: 'scorer' }, rubric) : '',
    ].filter((part) => part !== ''),
    processing: null,
  }
}

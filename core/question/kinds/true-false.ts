import { choice, type ChoiceAnswer, type ChoiceBody } from './choice'
import type { Kind } from './kind'
import { kindLabels } from './labels'

/** A preset of choice (semantics §2): two options that keep their places. */
export const trueFalse: Kind<ChoiceBody, ChoiceAnswer> = {
  ...choice,
  name: 'trueFalse',
  label: kindLabels.trueFalse,
  blank: () => ({
    options: [
      { id: 'true', html: 'True', comment: '', fixed: true, credit: 1 },
      { id: 'false', html: 'False', comment: '', fixed: true, credit: 0 },
    ],
    inOrder: true,
  }),
  faults(body) {
    const faults = choice.faults(body)
    if (body.options.length !== 2) faults.push('A true/false question has two options.')
    return faults
  },
}

import { choice, type ChoiceAnswer, type ChoiceBody } from './choice'
import type { Kind } from './kind'

/** A preset of choice (semantics §2): two options that keep their places, the first of them right to begin with. */
function preset(
  name: 'trueFalse' | 'yesNo',
  label: string,
  ids: [string, string],
  words: [string, string],
): Kind<ChoiceBody, ChoiceAnswer> {
  return {
    ...choice,
    name,
    label,
    blank: () => ({
      options: ids.map((id, i) => ({ id, html: words[i]!, comment: '', fixed: true, credit: i === 0 ? 1 : 0 })),
      inOrder: true,
      layout: 'list',
    }),
    faults(body) {
      const faults = choice.faults(body)
      if (body.options.length !== 2) faults.push(`A ${label.toLowerCase()} question has two options.`)
      return faults
    },
  }
}

export const trueFalse = preset('trueFalse', 'True/false', ['true', 'false'], ['True', 'False'])
export const yesNo = preset('yesNo', 'Yes/no', ['yes', 'no'], ['Yes', 'No'])

import { choice, type ChoiceAnswer, type ChoiceBody } from './choice'
import type { Kind } from './kind'
import { kindLabels } from './labels'

/** A preset of choice (semantics §2): two options that keep their places, the first of them right to begin with. */
function preset(
  name: 'trueFalse' | 'yesNo',
  ids: [string, string],
  words: [string, string],
): Kind<ChoiceBody, ChoiceAnswer> {
  return {
    ...choice,
    name,
    label: kindLabels[name],
    blank: () => ({
      options: ids.map((id, i) => ({ id, html: words[i]!, comment: '', fixed: true, credit: i === 0 ? 1 : 0 })),
      inOrder: true,
      layout: 'list',
    }),
    faults(body) {
      const faults = choice.faults(body)
      if (body.options.length !== 2) faults.push(`A ${kindLabels[name].toLowerCase()} question has two options.`)
      return faults
    },
  }
}

export const trueFalse = preset('trueFalse', ['true', 'false'], ['True', 'False'])
export const yesNo = preset('yesNo', ['yes', 'no'], ['Yes', 'No'])

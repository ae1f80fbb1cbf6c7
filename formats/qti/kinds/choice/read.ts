import type { KindName } from '../../../../core/question'
import { childrenOf, type XmlElement } from '../../../xml'
import {
  type Declaration,
  hundredths,
  refuse,
  inlineHtml,
  feedbackOf,
  type Context,
  type Found,
  declared,
  idOf,
} from '../reading'

export function choiceOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const right = new Set(response.correct)
  const inOrder = node.attributes.shuffle !== 'true'
  const choices = childrenOf(node, 'simpleChoice').map((each, i) => ({
    id: idOf(each, i),
    written: each.attributes.identifier ?? '',
    html: inlineHtml(each),
    comment: feedbackOf(each),
    fixed: each.attributes.fixed === 'true',
  }))
  if (choices.length < 2) return refuse('A choice has fewer than two options.')
  const mapped = (id: string) =>
    response.mapping?.entries.find((entry) => entry.key === id)?.value ?? response.mapping?.wrong ?? 0
  if (response.cardinality === 'multiple') {
    const positive = response.mapping?.entries.filter((entry) => entry.value > 0) ?? []
    const isRight = (id: string) => (right.size ? right.has(id) : mapped(id) > 0)
    const rule = !response.mapping
      ? ('all' as const)
      : isShare(
            response,
            choices.map((each) => each.written),
          )
        ? ('share' as const)
        : ('credits' as const)
    const { lower, upper } = response.mapping ?? { lower: 0, upper: null }
    if (response.mapping && !positive.length) context.notes.push('No option adds to the score.')
    return {
      kind: 'choices',
      body: {
        rule,
        inOrder,
        layout: 'list',
        lower: rule === 'credits' ? Math.min(0, lower ?? -100) : 0,
        upper: rule === 'credits' ? upper : null,
        tellHowMany: Number(node.attributes.maxChoices ?? 0) > 0 && Number(node.attributes.maxChoices) === right.size,
        options: choices.map(({ written, ...each }) => ({
          ...each,
          fixed: each.fixed && !inOrder,
          right: isRight(written),
          credit: rule === 'credits' ? hundredths(mapped(written)) : isRight(written) ? 1 : -1,
        })),
      },
    } as Found
  }
  const most = Math.max(0, ...(response.mapping?.entries.map((entry) => entry.value) ?? []))
  const credit = (id: string) =>
    response.mapping && most > 0 ? Math.max(-1, hundredths(mapped(id) / most)) : right.has(id) ? 1 : 0
  return {
    kind: presetOf(choices),
    body: {
      inOrder,
      layout: 'list',
      options: choices.map(({ written, ...each }) => ({
        ...each,
        fixed: each.fixed && !inOrder,
        credit: credit(written),
      })),
    },
  } as Found
}

/** True/false and yes/no are choices between just these. */
function presetOf(choices: { html: string }[]): KindName {
  const words = choices
    .map((each) =>
      each.html
        .toLowerCase()
        .replace(/<[^>]+>/g, '')
        .trim(),
    )
    .join(' ')
  return words === 'true false' ? 'trueFalse' : words === 'yes no' ? 'yesNo' : 'choice'
}

/** A mapping that is "right less wrong share" written out: 1/R for each right, −1/W for each wrong, from 0 to 1. */
function isShare({ mapping, correct }: Declaration, ids: string[]): boolean {
  if (!mapping || mapping.lower !== 0 || mapping.upper !== 1 || !correct.length) return false
  const wrong = ids.length - correct.length
  return ids.every((id) => {
    const value = mapping.entries.find((entry) => entry.key === id)?.value ?? mapping.wrong
    return Math.abs(value - (correct.includes(id) ? 1 / correct.length : -1 / Math.max(1, wrong))) < 1e-4
  })
}

import type { KindName } from '../../../../core/question'
import { plainText } from '../../../../core/question/allowed-html'
import { childrenOf, textOf, within, type XmlElement } from '../../../xml'
import { optionHtml } from '../../content/read'
import { noBounds } from '../../../../core/question/kinds/credits'
import { boundsOf, creditScale, scaledBounds } from '../credits'
import {
  creditOf,
  declared,
  found,
  hundredths,
  idsFor,
  wholeKey,
  namesBack,
  numeric,
  refuse,
  worthBy,
  type Context,
  type Declaration,
  type Found,
} from '../reading'

interface Chosen {
  chosen: string[]
}

const toName = (ids: ReadonlyMap<string, string>, response: Declaration) => {
  const names = namesBack(ids)
  return ({ chosen }: Chosen) => ({ [response.identifier]: chosen.flatMap(names) })
}

/** Something to choose from, as it stands in the file. */
interface Option {
  name: string
  html: string
  fixed: boolean
}

/** One or several of these. */
export function choosing(context: Context, node: XmlElement, options: readonly Option[]): Found {
  const response = declared(context, node)
  if (options.length < 2) return refuse('A choice has fewer than two options.')
  const ids = idsFor(options.map(({ name }) => name))
  const inOrder = node.attributes.shuffle !== 'true'
  const most = numeric(node.attributes.maxChoices, 1)
  const placed = options.map(({ name, html, fixed }) => ({
    id: ids.get(name)!,
    html,
    comment: '',
    fixed: fixed && !inOrder,
    name,
  }))
  const worth = worthBy(context, response)
  const one = response.cardinality === 'single' || most === 1
  const asked = { context, response, worth, placed, inOrder, most, toResponses: toName(ids, response) }
  return one ? single(asked) : several(asked)
}

interface Asked {
  context: Context
  response: Declaration
  worth: (names: readonly string[]) => number
  placed: { id: string; html: string; comment: string; fixed: boolean; name: string }[]
  inOrder: boolean
  most: number
  toResponses: (answer: Chosen) => Record<string, string[]>
}

function single({ context, response, worth, placed, inOrder, toResponses }: Asked): Found {
  const { lower, upper } = boundsOf(context, response)
  const worths = placed.map(({ name }) => Math.min(upper ?? Infinity, Math.max(lower ?? -Infinity, worth([name]))))
  const most = Math.max(...worths)
  if (most <= 0) context.notes.add('No option adds to the score.')
  return found(
    presetOf(placed),
    {
      inOrder,
      layout: 'list',
      options: placed.map(({ name: _name, ...option }, i) => ({ ...option, credit: creditOf(worths[i]!, most) })),
    },
    most,
    toResponses,
  )
}

function several(asked: Asked): Found {
  const { context, response, worth, placed, inOrder, most, toResponses } = asked
  const names = placed.map(({ name }) => name)
  const key = wholeKey(context, response)
  const whole = key !== null
  const worths = names.map((name) => worth([name]))
  const isRight = (i: number) => (whole ? key.includes(names[i]!) : worths[i]! > 0)
  const right = names.filter((_, i) => isRight(i))
  const rule = whole ? 'all' : isShare(asked, right, worths) ? 'share' : 'credits'
  const bounds = boundsOf(context, response)
  const all = worth(right)
  if (most > 1 && most < names.length && most !== right.length)
    context.notes.add(`At most ${most} may be chosen in the file; here any number of them.`)
  const scale = creditScale(worths, bounds)
  return found(
    'choices',
    {
      rule,
      inOrder,
      layout: 'list',
      ...(rule === 'credits' ? scaledBounds(bounds, scale, all) : noBounds),
      tellHowMany: most > 1 && most === right.length,
      options: placed.map(({ name: _name, ...option }, i) => ({
        ...option,
        right: isRight(i),
        credit: rule === 'credits' ? hundredths(worths[i]! / scale) : isRight(i) ? 1 : -1,
      })),
    },
    bounds.upper === null ? all : Math.min(all, bounds.upper),
    toResponses,
  )
}

/** A score that is "right less wrong share" written out: 1/R for each right, −1/W for each wrong, not below 0, up to all of it. */
function isShare(asked: Asked, right: readonly string[], worths: readonly number[]): boolean {
  const { lower, upper } = boundsOf(asked.context, asked.response)
  const wrong = worths.length - right.length
  const [gain] = worths.filter((each) => each > 0)
  if (lower !== 0 || !right.length || gain === undefined) return false
  const all = gain * right.length
  if (upper !== null && upper < all - 1e-6) return false
  return asked.placed.every(({ name }, i) => {
    const share = right.includes(name) ? 1 / right.length : -1 / Math.max(1, wrong)
    return Math.abs(worths[i]! / all - share) < 1e-4
  })
}

/** True/false and yes/no are choices between just these. */
function presetOf(choices: { html: string }[]): KindName {
  const words = choices.map(({ html }) => plainText(html).toLowerCase()).join(' ')
  return words === 'true false' ? 'trueFalse' : words === 'yes no' ? 'yesNo' : 'choice'
}

const optionsOf = (context: Context, node: XmlElement, name: string): Option[] =>
  childrenOf(node, name).map((each) => ({
    name: each.attributes.identifier ?? '',
    html: optionHtml(each.children, context),
    fixed: each.attributes.fixed === 'true',
  }))

export const choiceOf = (context: Context, node: XmlElement): Found =>
  choosing(context, node, optionsOf(context, node, 'simpleChoice'))

/** A list within a text. */
export const inlineChoiceOf = (context: Context, node: XmlElement): Found =>
  choosing(context, node, optionsOf(context, node, 'inlineChoice'))

/** Words of a running text that are chosen: the text is the stem, its words the options in their order. */
export function hottextOf(context: Context, node: XmlElement): Found {
  context.notes.add('Words that are pressed within the text are options below it here.')
  const words = within(node, 'hottext').map((each) => ({
    name: each.attributes.identifier ?? '',
    html: optionHtml(each.children, context) || textOf(each),
    fixed: true,
  }))
  return choosing(context, { ...node, attributes: { ...node.attributes, shuffle: 'false' } }, words)
}

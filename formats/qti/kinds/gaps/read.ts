import { childrenOf, isElement, type XmlElement } from '../../../xml'
import { htmlOf } from '../../content/read'
import { mapElements } from '../../../html'
import { inlineChoiceOf } from '../choice/read'
import { isNumeric, numberBody, textBody } from '../entry/read'
import { plainNumber } from '../entry/typed'
import { declared, found, hundredths, type Context, type Found } from '../reading'
import type { Gap } from '../../../../core/question/kinds/gaps'

interface Read {
  gap: Gap
  most: number
  /** How what is filled in is written in the file. */
  response: (given: string) => Record<string, readonly string[]>
}

const inText = new Set(['textEntryInteraction', 'inlineChoiceInteraction'])

/** Gaps whose whole text is one condition: everything, or nothing. */
function wholeCondition(context: Context): Map<string, XmlElement> | null {
  const [term, second] = context.score?.terms ?? []
  if (!term || second || term.responses.length < 2 || term.node.name !== 'choose') return null
  const [condition] = childrenOf(term.node)
  if (condition?.name !== 'and') return null
  const byResponse = new Map<string, XmlElement>()
  for (const part of childrenOf(condition)) {
    const own = context.declarations
    const looked = [...own.keys()].filter((name) => looksAt(part, name))
    if (looked.length !== 1 || byResponse.has(looked[0]!)) return null
    byResponse.set(looked[0]!, part)
  }
  return byResponse
}

const looksAt = (node: XmlElement, response: string): boolean =>
  (node.name === 'variable' && node.attributes.identifier === response) ||
  node.children.some((child) => isElement(child) && looksAt(child, response))

/** A gap's own part of a condition on all of them, as if it were the whole score. */
const withOnly = (context: Context, response: string, condition: XmlElement): Context => ({
  ...context,
  score: {
    terms: [
      {
        factor: 1,
        node: {
          name: 'choose',
          attributes: {},
          children: [
            condition,
            { name: 'baseValue', attributes: { baseType: 'float' }, children: ['1'] },
            { name: 'baseValue', attributes: { baseType: 'float' }, children: ['0'] },
          ],
        },
        responses: [response],
      },
    ],
    constant: 0,
    lower: null,
    upper: null,
  },
})

function gapOf(context: Context, node: XmlElement, id: string): Read {
  const response = declared(context, node)
  const { identifier } = response
  const weight = (most: number) => Math.min(100, Math.max(0.01, hundredths(most)))
  if (node.name === 'inlineChoiceInteraction') {
    const { body, most, responses } = inlineChoiceOf(context, node)
    const list = body as Extract<Gap, { as: 'list' }>['body']
    return {
      gap: { id, weight: weight(most), as: 'list', body: list },
      most,
      response: (given) => responses({ chosen: given ? [given] : [] } as never),
    }
  }
  if (isNumeric(response)) {
    const { body, most } = numberBody(context, response)
    return {
      gap: { id, weight: weight(most), as: 'number', body },
      most,
      response: (given) => ({ [identifier]: plainNumber(given) }),
    }
  }
  const { body, most } = textBody(context, response)
  return {
    gap: { id, weight: weight(most), as: 'text', body },
    most,
    response: (given) => ({ [identifier]: given ? [given] : [] }),
  }
}

/** A text with places to fill: words, numbers and lists, in any mixture. */
export function gapsOf(context: Context): Found {
  const whole = wholeCondition(context)
  const read: Read[] = []
  const nodes = mapElements(context.body.children, (node) => {
    if (!inText.has(node.name)) return node
    const id = `g${read.length + 1}`
    const { identifier } = declared(context, node)
    const condition = whole?.get(identifier)
    read.push(gapOf(condition ? withOnly(context, identifier, condition) : context, node, id))
    return { name: 'span', attributes: { 'data-gap': id }, children: [] }
  })
  const most = whole
    ? context.score!.terms[0]!.factor * wholeWorth(context)
    : read.reduce((sum, each) => sum + each.most, 0)
  const upper = context.score?.upper ?? null
  return found(
    'gaps',
    { text: htmlOf(nodes, context), gaps: read.map(({ gap }) => gap), rule: whole ? 'all' : 'share' },
    upper === null ? most : Math.min(most, upper),
    ({ gaps }: { gaps: Record<string, string> }) =>
      Object.assign({}, ...read.map(({ gap, response }) => response(gaps[gap.id] ?? ''))) as Record<string, string[]>,
  )
}

function wholeWorth({ score }: Context): number {
  const value = childrenOf(score!.terms[0]!.node)[1]
  const text = value?.children.find((child): child is string => typeof child === 'string') ?? '1'
  return Number.isFinite(Number(text)) ? Number(text) : 1
}

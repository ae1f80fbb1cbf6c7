import { blankQuestion, isBlank, kindOf, type Question } from '../../core/question'
import type { Vary } from '../../core/question/vary/schema'
import { languageCode } from '../../core/question/language'
import { childOf, childrenOf, isElement, within, type XmlElement } from '../xml'
import { blocksOf } from './content/read'
import { withComments } from './feedback'
import { readers } from './kinds'
import { besideIn, tellDeclared, tellLimits } from './limits'
import { declarationOf, refuse, type Context, type Found } from './kinds/reading'
import { scoreFor } from './scoring'
import type { Score } from './scoring/terms'
import { withoutTemplate } from './template-read'
import { unitNamed } from '../../core/kit/units'
import type { Responses } from './processing'
import type { Tried } from './proof/try'

/** One question of an item, and how an answer to it stands in the file. */
export interface ReadPart {
  question: Question
  responses: (answer: unknown) => Responses
  /** Of an item that asks several things: the response of this one. */
  name: string | null
  /** Answers that have been scored both ways already, to place its feedback. */
  tried?: readonly Tried[]
}

/** What was read of an item, and what of it has no place in Thistle. */
export interface ReadItem {
  identifier: string
  notes: string[]
  /** One, or one for each thing that the item asks. */
  parts: ReadPart[]
  /** What its parts have in common, as HTML. */
  common: string | null
  /** The first of its parts. */
  question: Question
}

/** Interactions of the standard that are not read: one of them is told by its name. */
const strangeInteractions = [
  'graphicOrderInteraction',
  'graphicAssociateInteraction',
  'graphicGapMatchInteraction',
  'positionObjectInteraction',
  'drawingInteraction',
  'customInteraction',
  'portableCustomInteraction',
  'endAttemptInteraction',
]

const isInText = (node: XmlElement) => node.name === 'textEntryInteraction' || node.name === 'inlineChoiceInteraction'

/**
 * Reads an assessment item in the names of 2.x.
 * @param older of QTI 1.2 the item as it stands in its file
 * @throws UnreadableFile with the reason why this item cannot be had
 */
export function readItemTree(tree: XmlElement, older: XmlElement | null = null): ReadItem {
  const notes = new Set<string>()
  const template = tree.name === 'assessmentItem' ? withoutTemplate(tree, notes) : null
  return readWhole({ written: tree, older }, template?.item ?? tree, template?.vary ?? null, notes)
}

function interactionsIn(node: XmlElement): XmlElement[] {
  return childrenOf(node).flatMap((child) =>
    Object.hasOwn(readers, child.name) || strangeInteractions.includes(child.name) ? [child] : interactionsIn(child),
  )
}

/** An item as it stands in its file, before its template's computations were put in their places. */
export interface Written {
  written: XmlElement
  older: XmlElement | null
}

function readWhole(written: Written, item: XmlElement, vary: Vary | null, notes: Set<string>): ReadItem {
  if (item.name !== 'assessmentItem') return refuse('This is not an assessment item.')
  const body = childOf(item, 'itemBody') ?? refuse('The item has no body.')
  if (item.attributes.adaptive === 'true')
    return refuse('Adaptive items, which take several answers in turn, have no like here.')
  const nodes = interactionsIn(body)
  if (!nodes.length) return refuse('The item asks nothing.')
  const strange = nodes.find((node) => !Object.hasOwn(readers, node.name))
  if (strange) return refuse(`The interaction “${strange.name}” has no like here.`)
  tellRubrics(item, notes)
  tellLimits(nodes, notes)
  const { calculator } = besideIn(item, notes)
  const context: Context = {
    item,
    body,
    declarations: new Map(
      childrenOf(item, 'responseDeclaration')
        .map(declarationOf)
        .map((each) => [each.identifier, each]),
    ),
    score: scoreFor(item),
    notes,
  }
  const inText = nodes.filter(isInText)
  const blocks = nodes.filter((node) => !isInText(node))
  const asked = (inText.length ? 1 : 0) + blocks.length
  const read = asked > 1 ? readParts(context, inText, blocks) : [readOnly(context, nodes)]
  tellDeclared(
    item,
    read.every(({ found }) => kindOf(found.kind).byHand),
    notes,
  )
  const parts = read.map(({ found, stem, name }): ReadPart => ({
    question: { ...questionOf(item, found, stem, vary), tools: calculator ? ['calculator'] : [] },
    responses: found.responses as (answer: unknown) => Responses,
    name,
  }))
  const common = asked > 1 && !inText.length ? blocksOf(withoutInteractions(body.children), context) : ''
  const commented = withComments(written, item, parts, context)
  return {
    identifier: item.attributes.identifier ?? '',
    notes: [...notes],
    parts: commented,
    common: isBlank(common) ? null : common,
    question: commented[0]!.question,
  }
}

interface Asked {
  found: Found
  stem: string
  name: string | null
}

const withoutInteractions = (nodes: readonly (XmlElement | string)[]): (XmlElement | string)[] =>
  nodes.flatMap((node): (XmlElement | string)[] =>
    !isElement(node)
      ? [node]
      : Object.hasOwn(readers, node.name)
        ? []
        : [{ ...node, children: withoutInteractions(node.children) }],
  )

/** The text around an interaction, with its prompt in its place, and other words there where the interaction is a text itself. */
function stemWith(context: Context, only: XmlElement, instead: (XmlElement | string)[]): string {
  const put = (nodes: readonly (XmlElement | string)[]): (XmlElement | string)[] =>
    nodes.flatMap((node): (XmlElement | string)[] =>
      !isElement(node) ? [node] : node === only ? instead : [{ ...node, children: put(node.children) }],
    )
  return blocksOf(put(context.body.children), context)
}

/** What stands in a prompt, and whatever else stands in an interaction beside what is chosen (the text of a hottext). */
function promptOf(node: XmlElement): (XmlElement | string)[] {
  const prompt = childOf(node, 'prompt')
  const text = node.name === 'hottextInteraction' ? node.children.filter((child) => child !== prompt).map(marked) : []
  return [...(prompt?.children ?? []), ...text]
}
const marked = (node: XmlElement | string): XmlElement | string =>
  !isElement(node)
    ? node
    : node.name === 'hottext'
      ? { name: 'strong', attributes: {}, children: node.children }
      : { ...node, children: node.children.map(marked) }

function readOnly(context: Context, nodes: XmlElement[]): Asked {
  const [first] = nodes as [XmlElement]
  const alone = nodes.length === 1 && first.name === 'textEntryInteraction'
  const behind = alone ? wordsBehind(context.body, first) : ''
  const unit = unitNamed(behind.trim()) ? behind.trim() : null
  if (isInText(first) && (!alone || (/[\p{L}\p{N}]/u.test(behind) && unit === null)))
    return { found: readers.inlineChoiceInteraction!(context, first), stem: '', name: null }
  const found = readers[first.name]!(context, first)
  const around = alone ? fieldAround(context, first, found, unit) : null
  return around ?? { found, stem: stemWith(context, first, promptOf(first)), name: null }
}

/** A line of its own: a few words, the field, and perhaps a unit, are the field's own label and unit. */
function fieldAround(context: Context, only: XmlElement, found: Found, unit: string | null): Asked | null {
  const holder = holderOf(context.body, only)
  if (!holder || holder === context.body || holder.children.some((child) => isElement(child) && child !== only))
    return null
  const label = words({ ...holder, children: holder.children.slice(0, holder.children.indexOf(only)) })
    .replace(/\s+/g, ' ')
    .trim()
  const behind = wordsBehind(context.body, only).trim()
  if (label.length > 60 || (behind !== '' && (behind !== unit || found.kind !== 'number'))) return null
  const rest = blocksOf(without(context.body.children, [holder]), context)
  const body = { ...found.body, ...(unit === null ? {} : { unit }) }
  return isBlank(rest)
    ? { found: { ...found, body } as Found, stem: blocksOf([label], context), name: null }
    : { found: { ...found, body: { ...body, label } } as Found, stem: rest, name: null }
}

/** What follows an interaction in its own paragraph. */
function wordsBehind(body: XmlElement, only: XmlElement): string {
  const holder = holderOf(body, only)
  const at = holder?.children.indexOf(only) ?? -1
  return (holder?.children.slice(at + 1) ?? []).map((node) => (isElement(node) ? words(node) : node)).join('')
}
const words = (node: XmlElement): string =>
  node.children.map((child) => (isElement(child) ? words(child) : child)).join('')
function holderOf(node: XmlElement, only: XmlElement): XmlElement | null {
  if (node.children.includes(only)) return node
  for (const child of childrenOf(node)) {
    const found = holderOf(child, only)
    if (found) return found
  }
  return null
}

/** Several things at once: each a question of its own, as long as each is scored by itself. */
function readParts(context: Context, inText: XmlElement[], blocks: XmlElement[]): Asked[] {
  const { score } = context
  const order = interactionsIn(context.body)
  const inOrder = [...(inText.length ? [inText] : []), ...blocks.map((each) => [each])].sort(
    (a, b) => order.indexOf(a[0]!) - order.indexOf(b[0]!),
  )
  const groups = inOrder.map((nodes) => ({
    nodes,
    responses: new Set(nodes.map((each) => each.attributes.responseIdentifier ?? '')),
  }))
  if (
    score &&
    (score.upper !== null ||
      score.terms.some(
        ({ responses }) => !groups.some((group) => responses.every((each) => group.responses.has(each))),
      ))
  )
    return refuse('It asks several things that are scored together, which questions here are not.')
  return groups.map(({ nodes, responses }) => {
    const own: Score | null = score && {
      ...score,
      terms: score.terms.filter((term) => term.responses.some((each) => responses.has(each))),
    }
    const [first] = nodes as [XmlElement]
    const part: Context = {
      ...context,
      score: own,
      body: isInText(first) ? { ...context.body, children: without(context.body.children, blocks) } : context.body,
    }
    const name = first.attributes.responseIdentifier ?? null
    if (isInText(first)) return { found: readers.inlineChoiceInteraction!(part, first), stem: '', name }
    const prompt = blocksOf(promptOf(first), context)
    return {
      found: readers[first.name]!(part, first),
      stem: prompt || (inText.length ? '' : `Part ${groups.findIndex((each) => each.nodes === nodes) + 1}`),
      name,
    }
  })
}

const without = (nodes: readonly (XmlElement | string)[], out: readonly XmlElement[]): (XmlElement | string)[] =>
  nodes.flatMap((node): (XmlElement | string)[] =>
    !isElement(node) ? [node] : out.includes(node) ? [] : [{ ...node, children: without(node.children, out) }],
  )

/** What is said to candidates in a rubric stands in the text; to scorers, in the model answer; to others, nowhere. */
function tellRubrics(item: XmlElement, notes: Set<string>): void {
  const others = within(item, 'rubricBlock').filter(
    ({ attributes }) => !/\b(candidate|scorer)\b/.test(attributes.view ?? 'candidate'),
  )
  if (others.length) notes.add('What the item says to authors, tutors or invigilators is left out.')
}

function questionOf(item: XmlElement, { kind, body, most }: Found, stem: string, vary: Vary | null): Question {
  const language = item.attributes.lang ?? 'en'
  return {
    ...blankQuestion(kind),
    vary,
    stem,
    body,
    points: Math.min(1000, Math.max(0.01, Math.round(most * 100) / 100)),
    language: languageCode.test(language) ? language : 'en',
    internalName: (item.attributes.title ?? '').trim().slice(0, 160),
  } as Question
}

import { blankQuestion, type KindName, type Question } from '../../core/question'
import type { Vary } from '../../core/question/vary/schema'
import { languageCode } from '../../core/question/language'
import { childOf, childrenOf, isElement, within, type XmlElement } from '../xml'
import { toHtml } from './xhtml'
import { readers } from './kinds'
import { withoutTemplate } from './template-read'
import {
  declarationOf,
  htmlOf,
  refuse,
  strangeInteractions,
  type Context,
  type Found,
  type ReadItem,
} from './kinds/reading'

/** Kinds that are read by their key or mapping alone. */
const byKey = new Set<KindName>(['choice', 'choices', 'trueFalse', 'yesNo', 'matching', 'sorting', 'ordering', 'spot'])

/** Whether an item says in conditions of its own how it is scored, beside what the standard's templates say. */
function ownProcessing(item: XmlElement): boolean {
  const processing = childOf(item, 'responseProcessing')
  return (
    processing !== undefined &&
    processing.attributes.template === undefined &&
    within(processing, 'responseCondition').length > 0
  )
}

function found(context: Context, nodes: XmlElement[]): Found {
  const [first] = nodes as [XmlElement]
  const inline = nodes.every((node) => node.name === 'textEntryInteraction' || node.name === 'inlineChoiceInteraction')
  if (nodes.length > 1 && !inline)
    return refuse(`The item asks ${nodes.length} things at once, which one question here does not.`)
  const name = nodes.length > 1 ? 'inlineChoiceInteraction' : first.name
  return readers[name]!(context, first)
}

/** Reads an assessment item in the names of 2.x. @throws UnreadableFile with the reason why this item cannot be had */
export function readItemTree(tree: XmlElement): ReadItem {
  const notes: string[] = []
  const template = tree.name === 'assessmentItem' ? withoutTemplate(tree, notes) : null
  return readWhole(template?.item ?? tree, template?.vary ?? null, notes)
}

function readWhole(item: XmlElement, vary: Vary | null, notes: string[]): ReadItem {
  if (item.name !== 'assessmentItem') return refuse('This is not an assessment item.')
  const body = childOf(item, 'itemBody') ?? refuse('The item has no body.')
  if (item.attributes.adaptive === 'true')
    return refuse('Adaptive items, which take several answers in turn, have no like here.')
  const nodes = [...Object.keys(readers), ...strangeInteractions].flatMap((name) => within(body, name))
  if (!nodes.length) return refuse('The item asks nothing.')
  const strange = nodes.find((node) => !(node.name in readers))
  if (strange) return refuse(`The interaction “${strange.name}” has no like here.`)
  const context: Context = {
    item,
    body,
    declarations: new Map(
      childrenOf(item, 'responseDeclaration')
        .map(declarationOf)
        .map((each) => [each.identifier, each]),
    ),
    notes,
  }
  const { kind, body: questionBody } = found(context, nodes)
  if (byKey.has(kind) && ownProcessing(item))
    context.notes.push('Its own processing of the response is left out: it is scored by its key.')
  const prompt = within(body, 'prompt')[0]
  const said = (name: string) =>
    childrenOf(item, 'modalFeedback')
      .filter((each) => each.attributes.identifier === name)
      .map((each) =>
        toHtml(
          each.children
            .filter((child) => !isElement(child) || child.name !== 'contentBody')
            .concat(childrenOf(each, 'contentBody').flatMap((each_) => each_.children)),
        ),
      )
      .join('')
  const others = childrenOf(item, 'modalFeedback').filter(
    (each) => !['right', 'wrong', 'general'].includes(each.attributes.identifier ?? ''),
  )
  if (others.length) context.notes.push('Feedback on single outcomes is kept as a comment in any case.')
  // A text with gaps is the body itself; only where words are drawn into it there is something around it.
  const stem =
    kind === 'gaps' && nodes[0]!.name !== 'gapMatchInteraction'
      ? ''
      : [htmlOf(body.children), prompt ? htmlOf(prompt.children) : ''].filter(Boolean).join('')
  const blank = blankQuestion(kind)
  const language = item.attributes.lang ?? 'en'
  const title = item.attributes.title ?? ''
  return {
    identifier: item.attributes.identifier ?? '',
    notes: context.notes,
    question: {
      ...blank,
      vary,
      stem,
      body: questionBody,
      language: languageCode.test(language) ? language : 'en',
      internalName: title.slice(0, 160),
      comments: {
        right: said('right'),
        wrong: said('wrong'),
        general: said('general') + others.map((each) => toHtml(each.children)).join(''),
      },
    } as Question,
  }
}

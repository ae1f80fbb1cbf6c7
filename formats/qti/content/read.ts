import { allowedAttributes, allowedTags } from '../../../core/question/allowed-html'
import { childOf, childrenOf, element, isElement, textOf, type XmlElement } from '../../xml'
import { toHtml, wrapInline } from '../../html'
import { drawnAs } from './drawn-as'
import { texOf, withDollars, mathsSpan } from './maths'

/** What the contents of an item become: the markup that people here may write. Nothing that is read gets lost without a note. */
export interface ReadingContent {
  notes: Set<string>
}

type Nodes = (XmlElement | string)[]
const inline = new Set(['a', 'strong', 'em', 'u', 's', 'sub', 'sup', 'code', 'span', 'img', 'br', 'audio', 'video'])
const allowed = new Set<string>(allowedTags)

/** Names that stand for one of ours. */
const alike = new Map(
  Object.entries({
    b: 'strong',
    i: 'em',
    cite: 'em',
    dfn: 'em',
    var: 'em',
    ins: 'u',
    del: 's',
    strike: 's',
    tt: 'code',
    kbd: 'code',
    samp: 'code',
    h1: 'h3',
    h2: 'h3',
    h5: 'h4',
    h6: 'h4',
    tfoot: 'tbody',
  }),
)

/** Within a line, of no meaning that is kept here: the words stay in their line. */
const plainWords = new Set(['acronym', 'bdi', 'bdo', 'big', 'data', 'font', 'label', 'mark', 'nobr', 'small', 'time'])

/** What is no text of the question: asked for by name elsewhere, or told. */
const apart = new Set(['feedbackInline', 'feedbackBlock', 'modalFeedback', 'prompt'])
/** Kept out without a word: nobody reads it. */
const silent = new Set(['style', 'stylesheet', 'qti-stylesheet', 'companionMaterialsInfo', 'catalogInfo', 'annotation'])

const isInline = (node: XmlElement | string) => !isElement(node) || inline.has(node.name)
const isEmpty = (node: XmlElement | string): boolean => !isElement(node) && node.trim() === ''

/** Runs of words among blocks become paragraphs of their own. */
const asBlocks = (nodes: Nodes): Nodes => wrapInline(nodes, isInline, isEmpty)

/** A block of no meaning of its own: its blocks, or a paragraph of its words. */
const unwrapped = (children: Nodes): Nodes => asBlocks(children)

function media(node: XmlElement, children: Nodes): Nodes {
  const { data, src, type = '', width, height } = node.attributes
  const address = data ?? src ?? ''
  const words = textOf(node).trim()
  const kind = type.split('/')[0]
  if (
    kind === 'image' ||
    (type === '' && /\.(png|jpe?g|gif|webp|svg)$/i.test(address)) ||
    mediaKind(address) === 'image'
  )
    return [element('img', { src: address, alt: node.attributes.alt ?? words, width, height })]
  if (kind === 'audio' || kind === 'video')
    return [element(kind, { src: address, controls: '', 'aria-label': node.attributes.title ?? (words || null) })]
  return children
}
/** Addresses of media say nothing of what they are; an object that has no type is a picture where it has a size. */
const mediaKind = (address: string) => (address.startsWith('/api/media/') ? 'image' : '')

function sound(node: XmlElement): XmlElement {
  const source = childOf(node, 'source')?.attributes.src
  const label = node.attributes['aria-label'] ?? node.attributes.title ?? (textOf(node).trim() || null)
  return element(node.name, {
    src: node.attributes.src ?? source,
    controls: '',
    'data-plays': node.attributes['data-plays'],
    width: node.name === 'video' ? node.attributes.width : null,
    'aria-label': label,
  })
}

/** A sound or film that may be played so often: what is asked is asked elsewhere. */
function played(node: XmlElement, reading: ReadingContent): Nodes {
  const { maxPlays, minPlays, autostart } = node.attributes
  if (Number(minPlays) > 0) reading.notes.add('That a sound or film has to be played is not kept.')
  if (autostart === 'true') reading.notes.add('Sounds and films that start by themselves wait for a press here.')
  const plays = Number(maxPlays) > 0 ? String(Math.round(Number(maxPlays))) : null
  const shown = converted(
    childrenOf(node).filter(({ name }) => name !== 'prompt'),
    reading,
  ).map((each) =>
    isElement(each) && (each.name === 'audio' || each.name === 'video')
      ? { ...each, attributes: { ...each.attributes, ...(plays ? { 'data-plays': plays } : {}) } }
      : each,
  )
  return [...unwrapped(converted(childOf(node, 'prompt')?.children ?? [], reading)), ...unwrapped(shown)]
}

/** What is defined, in bold, and what it is. */
const definitions = (node: XmlElement, reading: ReadingContent): Nodes =>
  childrenOf(node).map((each) =>
    element(
      'p',
      {},
      each.name === 'dt' ? element('strong', {}, converted(each.children, reading)) : converted(each.children, reading),
    ),
  )

const special = new Map<string, (node: XmlElement, reading: ReadingContent) => Nodes>(
  Object.entries({
    math(node: XmlElement, { notes }: ReadingContent): Nodes {
      const tex = texOf(node)
      if (tex !== null) return [mathsSpan(tex)]
      notes.add(`Maths that has no like in TeX is kept as its signs: “${textOf(node).trim().slice(0, 60)}”.`)
      return [textOf(node).replace(/\s+/g, ' ')]
    },
    object: (node: XmlElement, reading: ReadingContent) => media(node, converted(node.children, reading)),
    audio: (node: XmlElement) => [sound(node)],
    video: (node: XmlElement) => [sound(node)],
    mediaInteraction: played,
    dl: definitions,
    abbr(node: XmlElement, reading: ReadingContent): Nodes {
      const { title } = node.attributes
      if (title) reading.notes.add(`What an abbreviation stands for is not kept: “${textOf(node)}: ${title}”.`)
      return converted(node.children, reading)
    },
    q: (node: XmlElement, reading: ReadingContent): Nodes => ['“', ...converted(node.children, reading), '”'],
    caption: (): Nodes => [],
    table(node: XmlElement, reading: ReadingContent): Nodes {
      const caption = childOf(node, 'caption')
      const rest = converted(node.children, reading)
      const rows = rest.filter((each) => isElement(each) && each.name === 'tr')
      const table = element(
        'table',
        {},
        rows.length ? element('tbody', {}, rows) : rest.filter((each) => !isEmpty(each)),
      )
      return [
        ...(caption ? [element('p', {}, element('strong', {}, converted(caption.children, reading)))] : []),
        table,
      ]
    },
    script: left('A program that stands in it is left out.'),
    iframe: left('A page that is shown within it is left out.'),
    embed: left('A page that is shown within it is left out.'),
    svg: left('A drawing that stands in it (SVG) is left out.'),
    canvas: left('A drawing that stands in it is left out.'),
    ruby: (node: XmlElement, reading: ReadingContent): Nodes =>
      childrenOf(node).flatMap((each) =>
        each.name === 'rt' ? [` (${textOf(each)})`] : each.name === 'rp' ? [] : converted(each.children, reading),
      ),
    infoControl(node: XmlElement, reading: ReadingContent): Nodes {
      reading.notes.add('What opens at a press in the file stands in the text here.')
      return unwrapped(converted(node.children, reading))
    },
    rubricBlock: (node: XmlElement, reading: ReadingContent): Nodes =>
      /\bcandidate\b/.test(node.attributes.view ?? 'candidate') ? unwrapped(converted(node.children, reading)) : [],
    templateInline: hidden,
    templateBlock: hidden,
  }),
)

function left(words: string) {
  return (_node: XmlElement, { notes }: ReadingContent): Nodes => {
    notes.add(words)
    return []
  }
}

function hidden(node: XmlElement, reading: ReadingContent): Nodes {
  reading.notes.add('Text that only some papers show is shown on all here.')
  return converted(node.children, reading)
}

/** What a span's class draws; 3.0 writes its classes with a mark of its own before them. */
function drawn({ name, attributes }: XmlElement): string | undefined {
  if (name !== 'span') return undefined
  const classes = (attributes.class ?? '').split(/\s+/).map((each) => each.replace(/^qti-/, ''))
  return Object.keys(drawnAs).find((each) => classes.includes(drawnAs[each]!))
}

function one(node: XmlElement, reading: ReadingContent): Nodes {
  if (apart.has(node.name) || silent.has(node.name)) return []
  const own = special.get(node.name)
  if (own) return own(node, reading)
  const children = converted(node.children, reading)
  const name = alike.get(node.name) ?? drawn(node) ?? node.name
  if (!allowed.has(name)) return plainWords.has(node.name) ? children : unwrapped(children)
  if (name === 'p' && children.some((child) => !isInline(child))) return unwrapped(children)
  const attributes = Object.fromEntries(
    Object.entries(node.attributes).filter(
      ([key]) => Object.hasOwn(allowedAttributes, name) && allowedAttributes[name]!.includes(key),
    ),
  )
  if (name === 'span' && !Object.keys(attributes).length) return children
  return [element(name, attributes, children)]
}

function converted(nodes: readonly (XmlElement | string)[], reading: ReadingContent): Nodes {
  return nodes.flatMap((node) => (isElement(node) ? one(node, reading) : withDollars(node)))
}

/** What is nothing to a reader falls away at the ends and between blocks. */
function tidied(nodes: Nodes): Nodes {
  const blocks = nodes.some((node) => !isInline(node))
  const whole = blocks ? asBlocks(nodes) : nodes
  return whole.filter(
    (node) => !isElement(node) || !['p', 'span', 'em', 'strong'].includes(node.name) || hasContent(node),
  )
}
const hasContent = (node: XmlElement): boolean =>
  node.children.some((child) =>
    isElement(child)
      ? child.name === 'img' || Object.keys(child.attributes).length > 0 || hasContent(child)
      : child.trim() !== '',
  ) ||
  'data-latex' in node.attributes ||
  'data-gap' in node.attributes

/** Contents as the HTML that a question holds. */
export const htmlOf = (nodes: readonly (XmlElement | string)[], reading: ReadingContent): string =>
  toHtml(tidied(converted(nodes, reading)))

/** As htmlOf, always in blocks: what is asked, and what is said of it. */
export const blocksOf = (nodes: readonly (XmlElement | string)[], reading: ReadingContent): string =>
  toHtml(asBlocks(tidied(converted(nodes, reading))))

/** Of an option: a paragraph that is all there is stands without its marks. */
export function optionHtml(nodes: readonly (XmlElement | string)[], reading: ReadingContent): string {
  const read = tidied(converted(nodes, reading)).filter((node) => !isEmpty(node) || nodes.length === 1)
  const [only] = read
  return read.length === 1 && only && isElement(only) && only.name === 'p' ? toHtml(only.children) : toHtml(read)
}

import { blankQuestion, plainText, type Question } from '../../core/question'
import { brokenItem, readItem, type BundleItem } from '../bundle'
import { openFolder } from '../folders'
import { toHtml } from '../html'
import { element, isElement, type XmlElement } from '../xml'
import { asksForOrder, asksForPairs } from './asked-for'
import {
  AskedBack,
  inThesePairs,
  inThisOrder,
  isKeyTitle,
  keyLineOf,
  keyOfAllIn,
  optionsNamed,
  pairsIn,
} from './key-lines'
import {
  elements,
  isBlank,
  isInline,
  isList,
  linesOf,
  paragraphOf,
  words,
  wordsOf,
  type Line,
  type Node,
} from './nodes'
import {
  asList,
  entryOf,
  isPairs,
  letteredEntry,
  letterOf,
  listAnswer,
  tableAnswer,
  type Answer,
  type Entry,
} from './options'
import { typedAnswer } from './typed'

/** A block of a text, in markup. */
export type Block =
  | { is: 'node'; node: Node; /** In a text with lines. */ line?: number; notes?: string[] }
  /** A heading: a folder. */
  | { is: 'heading'; depth: number; words: string }
  /** What parts questions. */
  | { is: 'end' }
  /** What cannot be read at all. */
  | { is: 'broken'; problem: string; line?: number }

export interface Reading {
  /** A plain text: the ends of its lines mean something, and a list without a key may belong to what is asked. */
  plainText: boolean
  /** Options of which none is right are a choice without a key yet: for whoever goes on writing. */
  mayBeOpen: boolean
}

interface List {
  is: 'list'
  entries: Entry[]
  numbered: boolean
  start: number
  node: XmlElement
}
type Part = List | { is: 'table'; node: XmlElement } | { is: 'words'; node: Node } | { is: 'quote'; node: XmlElement }

/** A question as far as it has been put together. */
interface Draft {
  parts: Part[]
  number: number | null
  key: string | null
  /** The key began with "=". */
  sign: boolean
  /** How many parts stood before the key. */
  keyAt: number
  problem: string | null
  notes: Set<string>
  folder: string[]
  line: number | null
  /** Of its own part of the text: what follows an answer there may belong to it. */
  group: number
}

const marked = (list: List) => list.entries.some(({ mark }) => mark !== null)
const stemOf = (parts: readonly Part[]): Node[] => parts.map(({ node }) => node)
const isAnswered = ({ key, parts }: Draft) => key !== null || parts.some((part) => part.is === 'list' && marked(part))
const asksFor = (parts: readonly Part[], asks: (words: string) => boolean) =>
  asks(parts.flatMap((part) => (part.is === 'words' ? [words(part.node)] : [])).join('\n'))

const numberOfQuestion = /^\s*(?:(Q(?:uestion)?|Frage|Pregunta)\.?\s*)?(\d{1,3})\s*[.):]\s+(?=\S)/iu

const secondAnswer = (line: number | null): string =>
  `${line === null ? 'A' : `Line ${line}: a`} second answer to the same question is left out. Put --- between two questions.`

/** Puts the blocks of a text together to questions, and a key of all at its end to what it names. */
class Drafts {
  readonly all: Draft[] = []
  readonly keyOfAll = new Map<number, string>()
  private open: Draft | null = null
  private group = 0
  private keyAhead = false
  /** Of the last question that has a number of its own. */
  private lastNumber = 0
  /** Of the block that is being read. */
  private line: number | null = null
  /** The block after it. */
  private next: Node | null = null
  readonly folder: string[] = []

  constructor(private readonly reading: Reading) {}

  private get draft(): Draft {
    if (!this.open) {
      this.open = {
        parts: [],
        number: null,
        key: null,
        sign: false,
        keyAt: 0,
        problem: null,
        notes: new Set(),
        folder: this.folder.filter(Boolean),
        line: null,
        group: this.group,
      }
      this.all.push(this.open)
    }
    return this.open
  }
  close(): void {
    this.open = null
  }
  end(): void {
    this.close()
    this.group++
  }
  heading(depth: number, title: string): void {
    this.end()
    this.keyAhead = isKeyTitle(title)
    if (!this.keyAhead) openFolder(this.folder, depth, title)
  }
  broken(problem: string, line: number | null): void {
    this.end()
    this.draft.problem = problem
    this.draft.line = line
    this.end()
  }

  /** What is left out is told of the question that it stood in. */
  note(notes: readonly string[]): void {
    for (const note of notes) this.draft.notes.add(note)
  }
  block(node: Node, line: number | null, notes: readonly string[], next: Node | null): void {
    this.line = line
    this.next = next
    const add = (draft: Draft) => {
      draft.line ??= line
      for (const note of notes) draft.notes.add(note)
    }
    if (isList(node)) this.list(node, add)
    else if (isPairs(node))
      add(this.part({ is: 'table', node }, (open) => !this.reading.plainText && this.isFull(open)))
    else if (isElement(node) && node.name === 'blockquote') this.quote(node, add)
    else if (isElement(node) && node.name === 'p') this.paragraph(node.children, add)
    else if (isInline(node)) this.paragraph([node], add)
    else add(this.part({ is: 'words', node }, (open) => this.isFull(open)))
  }

  /** Nothing of the question can follow here. */
  private isFull(open: Draft): boolean {
    if (isAnswered(open)) return true
    if (this.reading.plainText) return false
    return open.parts.some((part) => part.is === 'list' || (part.is === 'table' && asksFor(open.parts, asksForPairs)))
  }
  private part(part: Part, closes: (open: Draft) => boolean): Draft {
    if (this.open && closes(this.open)) this.close()
    this.draft.parts.push(part)
    return this.draft
  }

  private quote(node: XmlElement, add: (draft: Draft) => void): void {
    this.draft.parts.push({ is: 'quote', node })
    add(this.draft)
  }

  private list(node: XmlElement, add: (draft: Draft) => void): void {
    const items = elements(node).filter((each) => each.name === 'li')
    const numbered = node.name === 'ol'
    const start = Number(node.attributes.start ?? 1) || 1
    if (this.keyAhead && numbered && items.every((item) => pairsIn(`1 ${words(item)}`))) {
      items.forEach((item, i) => this.keyOfAll.set(start + i, words(item).trim()))
      return
    }
    if (areQuestions(items, numbered, this.reading)) {
      const { next } = this
      items.forEach((item, i) => {
        this.close()
        if (numbered) this.lastNumber = this.draft.number = start + i
        const inner = blocksIn(item.children)
        inner.forEach((each, at) => this.block(each, this.line, [], inner[at + 1] ?? next))
        if (this.open) add(this.open)
      })
      return
    }
    // "3. flood", and the key in the line below it: the key is of the whole list.
    const last = items.at(-1)
    const own = last && withoutKey(last, this.reading)
    const kept = own ? [...items.slice(0, -1), own.item] : items
    const entries = kept.map((item) => entryOf(item.children))
    this.options({ is: 'list', entries, numbered, start, node: { ...node, children: kept } }, add)
    if (own) this.key(own.key, add)
  }
  private options(list: List, add: (draft: Draft) => void): void {
    if (list.entries.length === 0) return
    // In a plain text what is unmarked may belong to the question that a later line answers.
    add(
      this.part(
        list,
        (open) => isAnswered(open) || (!this.reading.plainText && open.parts.some(({ is }) => is === 'list')),
      ),
    )
  }

  private paragraph(children: readonly Node[], add: (draft: Draft) => void): void {
    const lines = linesOf(children, this.reading.plainText).flatMap(apart)
    let said: Line[] = []
    let lettered: Line[] = []
    const sayLettered = () => {
      if (!lettered.length) return
      const entries = lettered.map(({ nodes }) => letteredEntry(nodes))
      lettered = []
      const last = this.open?.parts.at(-1)
      // Options on paragraphs of their own are one list.
      if (last?.is === 'list' && last.node.attributes.lettered && letterOfNext === last.entries.length) {
        last.entries.push(...entries)
        Object.assign(last.node, { ...asList(last.entries), attributes: { lettered: 'yes' } })
        if (this.open) add(this.open)
        return
      }
      const node = { ...asList(entries), attributes: { lettered: 'yes' } }
      this.options({ is: 'list', entries, numbered: false, start: 1, node }, add)
    }
    let letterOfNext = 0
    const say = () => {
      const kept = said.filter(({ nodes }, i) => nodes.some((node) => !isBlank(node)) || (i > 0 && i < said.length - 1))
      said = []
      if (kept.length) this.words(kept, add)
    }
    const expected = () => {
      if (lettered.length) return letterOfNext + lettered.length
      const last = this.open?.parts.at(-1)
      return last?.is === 'list' && last.node.attributes.lettered && this.open?.key === null ? last.entries.length : 0
    }
    lines.forEach((line, i) => {
      const text = wordsOf(line.nodes).trim()
      const letter = letterOf(text)
      const at = expected()
      const begins = at === 0 ? letter === 0 && followsB(lines, i, this.next) : letter === at
      if (letter !== null && begins) {
        if (!lettered.length) {
          say()
          letterOfNext = at
        }
        lettered.push(line)
        return
      }
      sayLettered()
      const key = keyLineOf(text)
      if (this.keyAhead && this.ofAll(pairsIn(text))) return
      if (this.ofAll(keyOfAllIn(text))) {
        say()
        this.close()
        return
      }
      if (key && (!key.sign || i === lines.length - 1)) {
        say()
        this.key(key, add)
        return
      }
      if (!key && isKeyTitle(text)) {
        say()
        this.end()
        this.keyAhead = true
        return
      }
      if (numberOfQuestion.test(text) && said.length && this.isNext(text)) say()
      said.push(line)
    })
    sayLettered()
    say()
  }
  private ofAll(pairs: Map<number, string> | null): boolean {
    for (const [number, says] of pairs ?? []) this.keyOfAll.set(number, says)
    return pairs !== null
  }
  /** Whether a line begins the question with the next number. In a plain text "2." alone is one only after a whole question. */
  private isNext(text: string): boolean {
    const found = numberOfQuestion.exec(text)
    if (!found) return false
    if (found[1] !== undefined) return true
    const isWhole = this.open !== null && (this.isFull(this.open) || this.hasList())
    return Number(found[2]) === this.lastNumber + 1 && (isWhole || !this.reading.plainText)
  }

  private words(lines: readonly Line[], add: (draft: Draft) => void): void {
    const text = wordsOf(lines[0]!.nodes)
    const numbered = this.isNext(text)
    if (numbered && this.open && (this.open.number !== null || this.isFull(this.open) || this.hasList())) this.close()
    const node = paragraphOf(lines)
    const draft = this.part(
      { is: 'words', node: numbered ? { ...node, children: withoutNumber(node.children) } : node },
      (open) => this.isFull(open),
    )
    if (numbered) this.lastNumber = draft.number = Number(numberOfQuestion.exec(text)![2])
    add(draft)
  }
  private hasList = (): boolean => this.open?.parts.some(({ is }) => is === 'list') ?? false

  private key({ says, sign }: { says: string; sign: boolean }, add: (draft: Draft) => void): void {
    const { draft } = this
    add(draft)
    if (draft.key !== null) {
      draft.notes.add(secondAnswer(this.line))
      return
    }
    Object.assign(draft, { key: says, sign, keyAt: draft.parts.length })
  }
}

const withoutNumber = (nodes: readonly Node[]): Node[] => {
  const [first, ...rest] = nodes
  if (first === undefined) return []
  return isElement(first)
    ? [{ ...first, children: withoutNumber(first.children) }, ...rest]
    : [first.replace(numberOfQuestion, ''), ...rest]
}

/** A line that holds several options, "A) ebb  B) flood", as one for each. */
function apart(line: Line): Line[] {
  const [only, ...others] = line.nodes
  if (others.length || typeof only !== 'string' || letterOf(only) !== 0) return [line]
  const parts: string[] = []
  let rest = only
  for (let at = 1; ; at++) {
    const sign = String.fromCharCode(97 + at)
    const next = new RegExp(`\\s(?=\\(?${sign}[.)]\\)?\\s+\\S)`, 'i').exec(rest)
    if (!next) break
    parts.push(rest.slice(0, next.index))
    rest = rest.slice(next.index + 1)
  }
  return [...parts, rest].map((text, i) => ({ nodes: [text], between: i ? '\n' : line.between }))
}

/** A line that begins with A is an option where one with B follows, also in the block after it. */
const followsB = (lines: readonly Line[], i: number, next: Node | null): boolean => {
  const text = lines[i + 1] ? wordsOf(lines[i + 1]!.nodes) : next ? words(next) : ''
  return letterOf(text.trim()) === 1
}

/** Whether the entries of a list are questions: options or a key stand in one of them, or it is the only one with a number. */
function areQuestions(items: readonly XmlElement[], numbered: boolean, reading: Reading): boolean {
  const { plainText } = reading
  const holds = (item: XmlElement) =>
    elements(item).some(isList) ||
    blocksIn(item.children).some(
      (block) =>
        isElement(block) &&
        block.name === 'p' &&
        linesOf(block.children, plainText)
          .slice(1)
          .some(({ nodes }) => letterOf(wordsOf(nodes).trim()) === 0 || isWordKey(wordsOf(nodes))),
    )
  if (items.slice(0, -1).some(holds)) return true
  const last = items.at(-1)
  if (!last || !holds(last)) return numbered && items.length === 1
  // "2. flood", and the key in the line below: the key is of the list, unless its last entry is a question with options.
  return items.length === 1 || elements(last).some(isList) || !withoutKey(last, reading)
}
const isWordKey = (text: string): boolean => {
  const key = keyLineOf(text)
  return key !== null && !key.sign
}
/** The last entry of a list without the key in the line below it, which belongs to the list. */
function withoutKey(item: XmlElement, { plainText }: Reading) {
  const blocks = blocksIn(item.children)
  const [only] = blocks
  if (blocks.length !== 1 || !only || !isElement(only) || only.name !== 'p') return null
  const lines = linesOf(only.children, plainText)
  const key = lines.length === 2 ? keyLineOf(wordsOf(lines[1]!.nodes)) : null
  return key && { item: { ...item, children: lines[0]!.nodes }, key }
}

/** Words that stand without a paragraph of their own, as one. */
function blocksIn(nodes: readonly Node[]): Node[] {
  const found: Node[] = []
  let inline: Node[] = []
  const close = () => {
    if (inline.some((node) => !isBlank(node))) found.push(element('p', {}, inline))
    inline = []
  }
  for (const node of nodes) {
    if (isInline(node)) inline.push(node)
    else {
      close()
      found.push(node)
    }
  }
  close()
  return found
}

const noAnswer =
  'There is no answer: tick an option or put it in bold, add a line such as “Answer: B”, or a line that begins with "=".'

/** The answer of a draft, and which of its parts is what is asked. @throws AskedBack */
function answerOf(draft: Draft, reading: Reading): { answer: Answer; at: number | null } {
  const { parts, key, sign, keyAt } = draft
  const tell = (note: string) => draft.notes.add(note)
  const order = asksFor(parts, asksForOrder)
  const choose = (at: number): { answer: Answer; at: number } => {
    const list = parts[at] as List
    const about = { key, order, numbered: list.numbered, mayBeOpen: reading.mayBeOpen }
    return { answer: listAnswer(list.entries, about, tell), at }
  }
  const lastOf = (is: (part: Part) => boolean, before = parts.length) => parts.slice(0, before).findLastIndex(is)
  if (key !== null) {
    const table = lastOf((part) => part.is === 'table', keyAt)
    if (inThesePairs.test(key) && table >= 0)
      return { answer: tableAnswer((parts[table] as { node: XmlElement }).node, tell), at: table }
    const list = lastOf((part) => part.is === 'list', keyAt)
    // After "=" a list may be part of what is asked, and the answer a text: unless it names an option by its letter.
    const isOwn =
      list >= 0 &&
      (!sign ||
        inThisOrder.test(key) ||
        marked(parts[list] as List) ||
        (/^\(?[a-z]\)?$/i.test(key) && namesOne(key, parts[list] as List)))
    if (isOwn) return choose(list)
    if (!sign && /^\(?[a-z]\)?[.)]?$/i.test(key))
      throw new AskedBack(
        `The key says “${key}”, but no options stand above it. Write each on a line of its own: A) …, B) …`,
      )
    return { answer: typedAnswer(key, tell), at: null }
  }
  const ticked = lastOf((part) => part.is === 'list' && marked(part))
  if (ticked >= 0) return choose(ticked)
  const list = lastOf((part) => part.is === 'list')
  const table = lastOf((part) => part.is === 'table')
  if (table >= 0 && asksFor(parts, asksForPairs))
    return { answer: tableAnswer((parts[table] as { node: XmlElement }).node, tell), at: table }
  if (list >= 0) return choose(list)
  throw new AskedBack(
    table >= 0
      ? `${noAnswer} If the table is a matching, say so: “Match …”, or a line “Answer: in these pairs”.`
      : noAnswer,
  )
}
const namesOne = (key: string, { entries, numbered }: List): boolean => {
  try {
    return (
      optionsNamed(
        key,
        entries.map((each) => each.words),
        numbered,
      ) !== null
    )
  } catch {
    return true
  }
}

/** What stands after an answer as a comment is the question's own; before it, it belongs to what is asked. */
function itemOf(draft: Draft, place: string, reading: Reading): BundleItem {
  const more = { folder: draft.folder, notes: [] as string[] }
  const broken = (problem: string) => brokenItem(place, problem, { ...more, notes: [...draft.notes] })
  if (draft.problem !== null) return broken(draft.problem)
  try {
    const { answer, at } = answerOf(draft, reading)
    const from = at ?? draft.keyAt
    const isComment = (part: Part, i: number) => part.is === 'quote' && i >= from
    const stem = draft.parts.filter((part, i) => i !== at && !isComment(part, i))
    const general = draft.parts.flatMap((part, i) =>
      isComment(part, i) && isElement(part.node) ? part.node.children : [],
    )
    const question = {
      ...blankQuestion(answer.kind),
      stem: toHtml(stemOf(stem).map(withoutLetters)),
      body: answer.body,
      comments: { right: '', wrong: '', general: toHtml(general) },
    } as Question
    return readItem(place, question, { ...more, notes: [...draft.notes] })
  } catch (error) {
    if (error instanceof AskedBack) return broken(error.message)
    throw error
  }
}
const withoutLetters = (node: Node): Node =>
  isElement(node) && node.attributes.lettered ? { ...node, attributes: {} } : node

/** What follows the last answer of its part of the text, and has none of its own, belongs to the question before it. */
function joined(drafts: readonly Draft[]): Draft[] {
  const found: Draft[] = []
  for (const draft of drafts) {
    const before = found.at(-1)
    const isEmpty = draft.parts.length === 0 && draft.problem === null
    if (isEmpty && draft.key === null) continue
    const asksNothing = draft.parts.every(({ is }) => is !== 'words')
    if (before?.group === draft.group && asksNothing && before.problem === null && isAnswered(before)) {
      before.notes.add(secondAnswer(draft.line))
      continue
    }
    const isRest = draft.key === null && draft.parts.every(({ is }) => is === 'words' || is === 'quote')
    if (before?.group === draft.group && isRest && draft.number === null && before.problem === null) {
      before.parts.push(...draft.parts)
      for (const note of draft.notes) before.notes.add(note)
      continue
    }
    found.push(draft)
  }
  return found
}

/** A key at the end is given to the questions that it names: by their own numbers, or by their places. */
function withKeyOfAll(drafts: readonly Draft[], keyOfAll: ReadonlyMap<number, string>): void {
  if (!keyOfAll.size || !drafts.length) return
  const own = drafts.map(({ number }) => number)
  const byNumber = own.every((number) => number !== null) && new Set(own).size === own.length
  for (const [number, says] of keyOfAll) {
    const draft = byNumber ? drafts.find((each) => each.number === number) : drafts[number - 1]
    if (!draft) drafts.at(-1)!.notes.add(`The key at the end names question ${number}, which is not here.`)
    else if (draft.key === null) Object.assign(draft, { key: says, keyAt: draft.parts.length })
    else if (draft.key.toLowerCase() !== says.toLowerCase())
      draft.problem = `Its own line says “${draft.key}”, and the key at the end “${says}”. Leave one of them.`
  }
}

/**
 * A text as questions. A list with what is right in bold or ticked is a choice, with several choices; so is one that a key line
 * names the right options of; numbered lines that the question asks to put in order an ordering; a table of two columns that it
 * asks to match a matching; a line "= …" or "Answer: …" a number or text. What follows an answer begins the next question.
 * @param placeOf where a question stands, in words: by its number from 1, the line of its first block, and its first words
 */
export function questionsIn(
  blocks: readonly Block[],
  reading: Reading,
  placeOf: (number: number, line: number | null, stem: string) => string,
): BundleItem[] {
  const drafts = new Drafts(reading)
  blocks.forEach((block, i) => {
    if (block.is === 'end') drafts.end()
    else if (block.is === 'heading') drafts.heading(block.depth, block.words)
    else if (block.is === 'broken') drafts.broken(block.problem, block.line ?? null)
    else if (isBlank(block.node)) drafts.note(block.notes ?? [])
    else {
      const next = blocks[i + 1]
      drafts.block(block.node, block.line ?? null, block.notes ?? [], next?.is === 'node' ? next.node : null)
    }
  })
  const found = reading.plainText
    ? joined(drafts.all)
    : drafts.all.filter((draft) => draft.parts.length || draft.problem)
  withKeyOfAll(found, drafts.keyOfAll)
  return found.map((draft, i) =>
    itemOf(draft, placeOf(i + 1, draft.line, plainText(toHtml(stemOf(draft.parts))).slice(0, 40)), reading),
  )
}

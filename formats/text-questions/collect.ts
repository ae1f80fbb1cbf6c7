import { openFolder } from '../folders'
import { element, isElement, type XmlElement } from '../xml'
import { asksForPairs } from './asked-for'
import type { Block, Reading } from './blocks'
import { asksFor, emptyDraft, hasList, isAnswered, secondAnswer, type Draft, type ListPart, type Part } from './draft'
import { addToFinalKey, type FinalKey } from './final-key'
import { explanationIn, isKeyTitle, keyLineOf, keyOfAllIn, pairsIn, type KeyLine } from './key-lines'
import { linesOf, paragraphOf, separateOptions, type Line } from './lines'
import { elements, isBlank, isInline, isList, words, wordsOf, type Node } from './nodes'
import { asList, entryOf, isPairs, letteredEntry, letterOf } from './options'
import { areQuestions, blocksIn, separateKey } from './question-list'

const questionNumber = /^\s*(?:(Q(?:uestion)?|Frage|Pregunta)\.?\s*)?(\d{1,3})\s*[.):]\s+(?=\S)/iu

/** Collects the blocks of a text into questions. */
export class QuestionCollector {
  readonly drafts: Draft[] = []
  readonly finalKeys: FinalKey[] = []
  private current: Draft | null = null
  private group = 0
  private readonly folder: string[] = []
  /** A title above has announced the key to all questions. */
  private keyExpected = false
  private lastNumber = 0
  /** Of the block being read. */
  private line: number | null = null
  private notes: readonly string[] = []
  /** The block after it. */
  private next: Node | null = null

  constructor(private readonly reading: Reading) {}

  /** @param next the block that follows */
  add(block: Block, next: Block | undefined): void {
    switch (block.is) {
      case 'end':
        this.endGroup()
        break
      case 'heading':
        this.endGroup()
        this.keyExpected = isKeyTitle(block.words)
        if (!this.keyExpected) openFolder(this.folder, block.depth, block.words)
        break
      case 'broken':
        this.endGroup()
        Object.assign(this.draft, { problem: block.problem, line: block.line ?? null })
        this.endGroup()
        break
      case 'node':
        this.line = block.line ?? null
        this.notes = block.notes ?? []
        this.next = next?.is === 'node' ? next.node : null
        if (isBlank(block.node)) this.tell(this.draft)
        else this.addNode(block.node)
    }
  }

  private get draft(): Draft {
    if (!this.current) {
      this.current = emptyDraft(this.folder.filter(Boolean), this.group)
      this.drafts.push(this.current)
    }
    return this.current
  }
  private endQuestion(): void {
    this.current = null
  }
  private endGroup(): void {
    this.endQuestion()
    this.group++
  }
  /** Where a question begins, and what of the block was left out. */
  private tell(draft: Draft): void {
    draft.line ??= this.line
    for (const note of this.notes) draft.notes.add(note)
  }

  private addNode(node: Node): void {
    if (isList(node)) this.addList(node)
    else if (isPairs(node)) this.addPart({ is: 'table', node }, !this.reading.plainText && this.isComplete())
    else if (isElement(node) && node.name === 'blockquote') this.addPart({ is: 'quote', node }, false)
    else if (isElement(node) && node.name === 'p') this.addParagraph(node.children)
    else if (isInline(node)) this.addParagraph([node])
    else this.addPart({ is: 'words', node }, this.isComplete())
  }

  /** Whether whatever comes next belongs to another question. In a plain text a list may still be part of the question. */
  private isComplete(): boolean {
    if (!this.current) return false
    if (isAnswered(this.current)) return true
    const { parts } = this.current
    // Options that were typed with letters are options, and no list within a question.
    if (parts.some((part) => part.is === 'list' && part.lettered)) return true
    return (
      !this.reading.plainText &&
      (hasList(this.current) || (parts.some(({ is }) => is === 'table') && asksFor(parts, asksForPairs)))
    )
  }
  private addPart(part: Part, begins: boolean): void {
    if (begins) this.endQuestion()
    this.draft.parts.push(part)
    this.tell(this.draft)
  }

  private addList(node: XmlElement): void {
    const { plainText } = this.reading
    const items = elements(node).filter((each) => each.name === 'li')
    const numbered = node.name === 'ol'
    const start = Number(node.attributes.start ?? 1) || 1
    if (this.keyExpected && numbered && items.every((item) => pairsIn(`1 ${words(item)}`))) {
      this.addFinalKey(new Map(items.map((item, i) => [start + i, words(item).trim()])))
      return
    }
    if (areQuestions(items, numbered, plainText)) {
      this.addQuestions(items, numbered ? start : null)
      return
    }
    const last = items.at(-1)
    const keyed = last && separateKey(last, plainText)
    const kept = keyed ? [...items.slice(0, -1), keyed.item] : items
    const entries = kept.map((item) => entryOf(item.children))
    this.addOptions({ is: 'list', entries, numbered, node: { ...node, children: kept }, lettered: false })
    if (keyed) this.addKey(keyed.key)
  }
  private addQuestions(items: readonly XmlElement[], start: number | null): void {
    const { next } = this
    items.forEach((item, i) => {
      this.endQuestion()
      this.line = Number(item.attributes['data-line']) || this.line
      if (start !== null) this.lastNumber = this.draft.number = start + i
      const inner = blocksIn(item.children)
      inner.forEach((each, at) => {
        this.next = inner[at + 1] ?? next
        if (!isBlank(each)) this.addNode(each)
      })
    })
  }
  private addOptions(list: ListPart): void {
    if (!list.entries.length) return
    const { current } = this
    this.addPart(list, current !== null && (isAnswered(current) || (!this.reading.plainText && hasList(current))))
  }

  /** A paragraph line by line: options, keys, numbers of questions, and words. */
  private addParagraph(children: readonly Node[]): void {
    const lines = linesOf(children, this.reading.plainText).flatMap(separateOptions)
    let plain: Line[] = []
    let options: Line[] = []
    let explanation: Line[] | null = null
    const endLines = () => {
      this.addLettered(options)
      options = []
      if (explanation) this.addExplanation(explanation)
      explanation = null
      this.addWords(plain)
      plain = []
    }
    lines.forEach((line, i) => {
      const text = wordsOf(line.nodes).trim()
      if (this.isNextOption(text, options.length, lines[i + 1])) {
        if (!options.length) endLines()
        options.push(line)
        return
      }
      if (options.length) endLines()
      const key = keyLineOf(text)
      const ofAll = (this.keyExpected ? pairsIn(text) : null) ?? keyOfAllIn(text)
      if (ofAll) {
        endLines()
        this.endQuestion()
        this.addFinalKey(ofAll)
      } else if (key && (!key.sign || i === lines.length - 1)) {
        endLines()
        this.addKey(key)
      } else if (isKeyTitle(text)) {
        endLines()
        this.endGroup()
        this.keyExpected = true
      } else if (this.current && isAnswered(this.current) && !plain.length && explanationIn(text) !== null) {
        endLines()
        explanation = [line]
      } else if (explanation && !this.isNextNumber(text)) explanation.push(line)
      else {
        if (explanation || (plain.length && this.isNextNumber(text))) endLines()
        plain.push(line)
      }
    })
    endLines()
  }

  /** Options on paragraphs of their own are one list. */
  private get openOptions(): ListPart | null {
    const last = this.current?.parts.at(-1)
    return last?.is === 'list' && last.lettered && this.current?.key === null ? last : null
  }
  /** Whether a line is the next option. The first one has to be followed by B, in its own paragraph or in the next block. */
  private isNextOption(text: string, before: number, after: Line | undefined): boolean {
    const letter = letterOf(text)
    if (letter === null) return false
    const expected = before + (this.openOptions?.entries.length ?? 0)
    if (expected > 0) return letter === expected
    const following = after ? wordsOf(after.nodes) : this.next ? words(this.next) : ''
    return letter === 0 && letterOf(following.trim()) === 1
  }
  private addLettered(lines: readonly Line[]): void {
    if (!lines.length) return
    const { openOptions } = this
    const entries = [...(openOptions?.entries ?? []), ...lines.map(({ nodes }) => letteredEntry(nodes))]
    if (openOptions) {
      Object.assign(openOptions, { entries, node: asList(entries) })
      this.tell(this.draft)
    } else this.addOptions({ is: 'list', entries, numbered: false, node: asList(entries), lettered: true })
  }

  private addWords(lines: readonly Line[]): void {
    const hasWords = ({ nodes }: Line) => nodes.some((node) => !isBlank(node))
    const [first, last] = [lines.findIndex(hasWords), lines.findLastIndex(hasWords)]
    if (first < 0) return
    const kept = lines.slice(first, last + 1)
    const number = this.isNextNumber(wordsOf(kept[0]!.nodes))
      ? Number(questionNumber.exec(wordsOf(kept[0]!.nodes))![2])
      : null
    const { current } = this
    const begins =
      this.isComplete() || (number !== null && current !== null && (current.number !== null || hasList(current)))
    const paragraph = paragraphOf(kept)
    const node = number === null ? paragraph : { ...paragraph, children: withoutNumber(paragraph.children) }
    this.addPart({ is: 'words', node }, begins)
    if (number !== null) this.lastNumber = this.draft.number = number
  }
  /** Whether a line begins the question with the next number. In a plain text "2." is a number only after a whole question. */
  private isNextNumber(text: string): boolean {
    const found = questionNumber.exec(text)
    if (!found) return false
    if (found[1] !== undefined) return true
    const isAfterQuestion = this.isComplete() || (this.current !== null && hasList(this.current))
    return Number(found[2]) === this.lastNumber + 1 && (isAfterQuestion || !this.reading.plainText)
  }

  private addKey({ says, sign }: KeyLine): void {
    const { draft } = this
    this.tell(draft)
    if (draft.key === null) Object.assign(draft, { key: says, sign, keyAt: draft.parts.length })
    else draft.notes.add(secondAnswer(this.line))
  }
  private addExplanation([first, ...lines]: Line[]): void {
    const label = explanationIn(wordsOf(first!.nodes))!
    const nodes = withoutLabel(first!.nodes, label)
    this.draft.parts.push({
      is: 'quote',
      node: element('blockquote', {}, paragraphOf([{ ...first!, nodes }, ...lines])),
    })
  }
  private addFinalKey(answers: ReadonlyMap<number, string>): void {
    addToFinalKey(this.finalKeys, this.drafts.length, answers)
  }
}

/** The nodes without the first text that stands at their beginning. */
function withoutLabel(nodes: readonly Node[], label: string): Node[] {
  let left = label.length
  const cut = (node: Node): Node => {
    if (isElement(node)) return { ...node, children: node.children.map(cut) }
    const kept = node.slice(left)
    left = Math.max(0, left - node.length)
    return kept
  }
  return nodes.map(cut)
}
const withoutNumber = (nodes: readonly Node[]): Node[] =>
  withoutLabel(nodes, questionNumber.exec(wordsOf(nodes))?.[0] ?? '')

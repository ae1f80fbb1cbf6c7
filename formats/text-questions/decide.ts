import { blankQuestion, type Question } from '../../core/question'
import { brokenItem, readItem, type BundleItem } from '../bundle'
import { isElement } from '../xml'
import { asksForOrder, asksForPairs } from './asked-for'
import type { Reading } from './blocks'
import { asksFor, isMarked, type Draft, type ListPart, type Part } from './draft'
import { AskedBack, inThesePairs, inThisOrder, isOneLetter, optionsInKey } from './key-lines'
import { htmlOf } from './nodes'
import { listAnswer, tableAnswer, type Answer } from './options'
import { typedAnswer } from './typed'

const noAnswer =
  'There is no answer: tick an option or put it in bold, add a line such as “Answer: B”, or a line that begins with "=".'

interface Decided {
  answer: Answer
  /** The part that holds the answer; null for an answer that was typed after a key word. */
  at: number | null
}

/** Where the last part of a kind stands before a place; -1 where there is none. */
const lastOf = (parts: readonly Part[], is: (part: Part) => boolean, before = parts.length): number =>
  parts.slice(0, before).findLastIndex(is)
const isTable = (part: Part) => part.is === 'table'
const isListPart = (part: Part): part is ListPart => part.is === 'list'

/** What the question's answer is. @throws AskedBack where nothing says it, or it can be read in two ways */
function answerOf(draft: Draft, { mayBeOpen }: Reading): Decided {
  const { parts, key } = draft
  const tell = (note: string) => draft.notes.add(note)
  const fromList = (at: number): Decided => {
    const { entries, numbered } = parts[at] as ListPart
    const order = asksFor(parts, asksForOrder)
    return { answer: listAnswer(entries, { key, order, numbered, mayBeOpen }, tell), at }
  }
  const fromTable = (at: number): Decided => ({
    answer: tableAnswer((parts[at] as Extract<Part, { is: 'table' }>).node, tell),
    at,
  })
  if (key !== null) return keyed(draft, key, fromList, fromTable)
  const marked = lastOf(parts, (part) => isListPart(part) && isMarked(part))
  if (marked >= 0) return fromList(marked)
  const [list, table] = [lastOf(parts, isListPart), lastOf(parts, isTable)]
  if (table >= 0 && asksFor(parts, asksForPairs)) return fromTable(table)
  if (list >= 0) return fromList(list)
  throw new AskedBack(
    table < 0
      ? noAnswer
      : `${noAnswer} If the table is a matching, say so: “Match …”, or a line “Answer: in these pairs”.`,
  )
}

function keyed(
  draft: Draft,
  key: string,
  fromList: (at: number) => Decided,
  fromTable: (at: number) => Decided,
): Decided {
  const { parts, sign, keyAt } = draft
  const table = lastOf(parts, isTable, keyAt)
  if (inThesePairs.test(key) && table >= 0) return fromTable(table)
  const list = lastOf(parts, isListPart, keyAt)
  if (list >= 0 && (!sign || isKeyOf(parts[list] as ListPart, key))) return fromList(list)
  if (!sign && isOneLetter.test(key))
    throw new AskedBack(
      `The key says “${key}”, but no options stand above it. Write each on a line of its own: A) …, B) …`,
    )
  return { answer: typedAnswer(key, (note) => draft.notes.add(note)), at: null }
}

/** After "=" a list may be part of the question and the answer a text: unless the key speaks of the list. */
function isKeyOf(list: ListPart, key: string): boolean {
  if (inThisOrder.test(key) || isMarked(list)) return true
  if (!isOneLetter.test(key)) return false
  try {
    return (
      optionsInKey(
        key,
        list.entries.map((each) => each.words),
        list.numbered,
      ) !== null
    )
  } catch (error) {
    if (error instanceof AskedBack) return true
    throw error
  }
}

/** A collected question as an item. Quotations after the answer are the general comment. */
export function itemOf(draft: Draft, place: string, reading: Reading): BundleItem {
  const { folder } = draft
  const broken = (problem: string) => brokenItem(place, problem, { folder, notes: [...draft.notes] })
  if (draft.problem !== null) return broken(draft.problem)
  try {
    const { answer, at } = answerOf(draft, reading)
    const isComment = (part: Part, i: number) => part.is === 'quote' && i >= (at ?? draft.keyAt)
    const asked = draft.parts.filter((part, i) => i !== at && !isComment(part, i)).map(({ node }) => node)
    if (draft.parts.some((part, i) => part.is === 'list' && i !== at))
      draft.notes.add('A list of it is part of the question: nothing says which of its entries is right.')
    const comment = draft.parts.filter(isComment).flatMap(({ node }) => (isElement(node) ? node.children : []))
    const question = {
      ...blankQuestion(answer.kind),
      stem: htmlOf(asked),
      body: answer.body,
      comments: { right: '', wrong: '', general: htmlOf(comment) },
    } as Question
    return readItem(place, question, { folder, notes: [...draft.notes] })
  } catch (error) {
    if (error instanceof AskedBack) return broken(error.message)
    throw error
  }
}

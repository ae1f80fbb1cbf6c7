import { blankQuestion, type KindName, type Question } from '../../core/question'
import { kindLabels } from '../../core/question/kinds'
import { exact } from '../../core/kit/exact'
import { nearestNumberText } from '../../core/kit/number-text'
import type { Nearness } from '../../core/question/kinds/number'
import { blankAnswer } from '../../core/question/kinds/text'
import { brokenItem, onlyItems, readItem, UnreadableFile, type Bundle, type BundleItem } from '../bundle'
import { asHtml } from '../plain-html'
import { CellFault, decimalIn, numberIn, optionsNamed, truthIn, unguarded } from './cells'
import { columns, letters, optionColumns, type Column, type Decimals, type Row, type Table } from './columns'

type Body = Question['body']

const optionsOf = (row: Row) =>
  optionColumns.flatMap((column, i) =>
    row[column]?.trim() ? [{ id: letters[i]!, words: row[column], html: asHtml(row[column]) }] : [],
  )
const keyless = (row: Row) => Boolean(row.no_key?.trim()) && truthIn('no_key', row.no_key!)
const needed = (row: Row): string => {
  const text = (row.right ?? '').trim()
  if (text === '')
    throw new CellFault(
      'right',
      'It is empty: nothing says what is right. For a question without a key write yes under no_key.',
    )
  return text
}

/** "0.1", "2%", "3 figures" or "1 decimals". @throws CellFault */
function nearness(text: string, decimals: Decimals): Nearness {
  const tidy = text.trim()
  const digits = /^(\d{1,2}) ?(figures|decimals)$/i.exec(tidy)
  if (digits) return { by: digits[2]!.toLowerCase() as 'figures', digits: Number(digits[1]) }
  if (tidy.endsWith('%')) {
    const percent = decimalIn('tolerance', tidy.slice(0, -1), decimals)
    return { by: 'relative', tolerance: nearestNumberText(exact(percent).div(100)) }
  }
  return { by: 'absolute', tolerance: tidy === '' ? '0' : decimalIn('tolerance', tidy, decimals) }
}

/** "left = right"; the sign that parts them stands between spaces where the words have one of their own. @throws CellFault */
function pairOf(column: Column, text: string): [left: string, right: string] {
  const spaced = ` ${text} `.indexOf(' = ')
  const at = spaced >= 0 ? spaced : text.indexOf('=')
  if (at < 0)
    throw new CellFault(
      column,
      `“${text.trim().slice(0, 60)}” has no partner: write “left = right”, or “left =” for one without.`,
    )
  return [text.slice(0, at).trim(), text.slice(at + 1).trim()]
}

function choice(row: Row): Body {
  const options = optionsOf(row)
  const right = keyless(row) ? [] : optionsNamed('right', needed(row), options)
  if (right.length > 1)
    throw new CellFault(
      'right',
      `“${row.right!.trim()}” names ${right.length} options, and a choice has one. Name one, or write choices as the kind.`,
    )
  return {
    ...blankQuestion('choice').body,
    options: options.map(({ id, html }) => ({ id, html, comment: '', fixed: false, credit: id === right[0] ? 1 : 0 })),
  } as Body
}

function choices(row: Row): Body {
  const options = optionsOf(row)
  const right = keyless(row) ? [] : optionsNamed('right', needed(row), options)
  return {
    ...blankQuestion('choices').body,
    options: options.map(({ id, html }) => ({
      id,
      html,
      comment: '',
      fixed: false,
      right: right.includes(id),
      credit: right.includes(id) ? 1 : -1,
    })),
  } as Body
}

function preset(kind: 'trueFalse' | 'yesNo', row: Row): Body {
  const body = blankQuestion(kind).body as Extract<Question, { kind: 'choice' }>['body']
  const first = keyless(row) || truthIn('right', needed(row))
  return { ...body, options: body.options.map((option, i) => ({ ...option, credit: (i === 0) === first ? 1 : 0 })) }
}

function number(row: Row, decimals: Decimals): Body {
  const near = nearness(row.tolerance ?? '', decimals)
  const values = keyless(row) ? [] : needed(row).split('|')
  return {
    ...blankQuestion('number').body,
    unit: (row.unit ?? '').trim(),
    style: decimals,
    answers: values.map((value) => ({ value: decimalIn('right', value, decimals), near, credit: 1, comment: '' })),
  } as Body
}

function text(row: Row): Body {
  const answers = keyless(row)
    ? []
    : needed(row)
        .split('|')
        .map((each) => each.trim())
  if (answers.some((each) => each === ''))
    throw new CellFault('right', 'Between two | stands nothing. Write an answer, or take one | out.')
  return { ...blankQuestion('text').body, answers: answers.map((each) => blankAnswer(each)) } as Body
}

function matching(row: Row): Body {
  const pairs = optionColumns.flatMap((column, i) =>
    row[column]?.trim() ? [{ id: letters[i]!, parts: pairOf(column, row[column]) }] : [],
  )
  return {
    ...blankQuestion('matching').body,
    items: pairs
      .filter(({ parts }) => parts[0])
      .map(({ id, parts }) => ({ id, html: asHtml(parts[0]), comment: '', target: parts[1] ? id : null })),
    targets: pairs.filter(({ parts }) => parts[1]).map(({ id, parts }) => ({ id, html: asHtml(parts[1]) })),
  } as Body
}

const ordering = (row: Row): Body =>
  ({
    ...blankQuestion('ordering').body,
    items: optionsOf(row).map(({ id, html }) => ({ id, html, comment: '' })),
  }) as Body
const byHand = (kind: 'written' | 'short', row: Row): Body =>
  ({ ...blankQuestion(kind).body, model: row.right ?? '' }) as Body

/** Kinds that a line of a table can hold. */
export const readable: Partial<Record<KindName, (row: Row, decimals: Decimals) => Body>> = {
  choice,
  choices,
  trueFalse: (row) => preset('trueFalse', row),
  yesNo: (row) => preset('yesNo', row),
  number,
  text,
  ordering,
  matching,
  written: (row) => byHand('written', row),
  short: (row) => byHand('short', row),
}

/** "Choice", "choice" and "CHOICE" alike, and "true/false" as "trueFalse". */
const kindNamed = (written: string): KindName | undefined => {
  const small = written.trim().toLowerCase()
  return (Object.keys(kindLabels) as KindName[]).find(
    (kind) => kind.toLowerCase() === small || kindLabels[kind].toLowerCase() === small,
  )
}
const parts = (words: string | undefined) =>
  (words ?? '')
    .split(/[;,]/)
    .map((part) => part.trim())
    .filter(Boolean)

function questionOf(row: Row, decimals: Decimals): Question {
  const kind = kindNamed(row.kind ?? '')
  if (!kind)
    throw new CellFault(
      'kind',
      row.kind?.trim()
        ? `“${row.kind.trim()}” is not a kind of question. There are ${Object.keys(readable).join(', ')}.`
        : 'It is empty.',
    )
  const bodyOf = readable[kind]
  if (!bodyOf)
    throw new CellFault(
      'kind',
      `${kindLabels[kind]} cannot be written in a line of a table; use Thistle’s JSON or a QTI package.`,
    )
  return {
    ...blankQuestion(kind),
    stem: asHtml(row.question ?? ''),
    body: bodyOf(row, decimals),
    points: numberIn('points', row, decimals, 1),
    seconds: numberIn('seconds', row, decimals, 60),
    difficulty: numberIn('difficulty', row, decimals, 3),
    tags: parts(row.tags),
    source: row.source ?? '',
    internalName: row.internal_name ?? '',
    keyless: keyless(row),
    comments: {
      right: asHtml(row.comment_right ?? ''),
      wrong: asHtml(row.comment_wrong ?? ''),
      general: asHtml(row.comment ?? ''),
    },
  } as Question
}

function itemOf({ place, cells, problem, notes, named }: Table['rows'][number], decimals: Decimals): BundleItem {
  if (problem !== null) return brokenItem(place, problem, { notes })
  const row = Object.fromEntries(Object.entries(cells).map(([name, cell]) => [name, unguarded(cell ?? '')])) as Row
  try {
    return readItem(place, questionOf(row, decimals), {
      folder: (row.folder ?? '')
        .split('/')
        .map((name) => name.trim())
        .filter(Boolean),
      objectives: parts(row.objectives),
      notes,
    })
  } catch (error) {
    if (error instanceof CellFault) return brokenItem(place, `${named(error.column)}: ${error.message}`, { notes })
    throw error
  }
}

const most = 20_000

/** The questions of a table. @throws UnreadableFile for a table of something else */
export function questionsIn({ header, rows, decimals }: Table): Bundle {
  if (!header.includes('kind') || !header.includes('question'))
    throw new UnreadableFile(
      'The first line has to name the columns; “kind” and “question” are needed. Download the template to see them.',
    )
  const twice = header.filter((name, i) => name && header.indexOf(name) !== i)
  if (twice.length)
    throw new UnreadableFile(
      `Two columns are called “${twice[0]!}”. Rename or take out one, so that it is clear which is meant.`,
    )
  if (rows.length > most) throw new UnreadableFile('A file has at most 20,000 questions. Part it.')
  const items = rows.map((row) => itemOf(row, decimals))
  const unknown = header.filter((name) => name && !(columns as readonly string[]).includes(name))
  if (unknown.length && items[0]) items[0].notes.push(`Columns that are not known are left out: ${unknown.join(', ')}.`)
  return onlyItems(items)
}

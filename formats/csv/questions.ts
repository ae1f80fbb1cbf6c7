import Papa from 'papaparse'
import { kindLabels } from '../../core/question/kinds'
import { blankQuestion, kindOf, plainText, type KindName, type Question } from '../../core/question'
import type { Nearness } from '../../core/question/kinds/number'
import { asHtml, asPlain } from '../plain-html'
import { brokenItem, onlyItems, readItem, UnreadableFile, type Bundle, type BundleItem } from '../bundle'

const letters = 'abcdefghijklmnopqrstuvwxyz'
const optionColumns = [...letters].map((letter) => `option_${letter}` as const)
/** So many option columns stand in every file; more where a question has more. */
const usualOptions = 8

/** Columns of the file, with what stands in them (docs/files.md). Order does not matter; unknown columns are told. */
export const columns = [
  'kind',
  'question',
  'right',
  'tolerance',
  'unit',
  ...optionColumns,
  'points',
  'seconds',
  'difficulty',
  'objectives',
  'tags',
  'source',
  'internal_name',
  'comment_right',
  'comment_wrong',
  'comment',
  'folder',
] as const
type Column = (typeof columns)[number]
type Row = Partial<Record<Column, string>>

const taken: Partial<Record<KindName, (row: Row) => Question['body']>> = {
  choice: (row) =>
    ({
      ...blankQuestion('choice').body,
      options: optionsOf(row).map(({ id, html }) => ({
        id,
        html,
        comment: '',
        fixed: false,
        credit: rights(row).has(id) ? 1 : 0,
      })),
    }) as Question['body'],
  choices: (row) =>
    ({
      ...blankQuestion('choices').body,
      options: optionsOf(row).map(({ id, html }) => ({
        id,
        html,
        comment: '',
        fixed: false,
        right: rights(row).has(id),
        credit: rights(row).has(id) ? 1 : -1,
      })),
    }) as Question['body'],
  trueFalse: (row) => preset('trueFalse', /^(true|t|1|yes)$/i.test(row.right ?? '')),
  yesNo: (row) => preset('yesNo', /^(yes|y|1|true)$/i.test(row.right ?? '')),
  number: (row) =>
    ({
      ...blankQuestion('number').body,
      unit: row.unit ?? '',
      answers: (row.right ?? '')
        .split('|')
        .map((value) => ({ value: value.trim(), near: nearness(row.tolerance ?? ''), credit: 1, comment: '' })),
    }) as Question['body'],
  text: (row) =>
    ({
      ...blankQuestion('text').body,
      answers: (row.right ?? '').split('|').map((text) => ({ how: 'is', text: text.trim(), credit: 1, comment: '' })),
    }) as Question['body'],
  ordering: (row) =>
    ({
      ...blankQuestion('ordering').body,
      items: optionsOf(row).map(({ id, html }) => ({ id, html, comment: '' })),
    }) as Question['body'],
  matching: (row) => {
    const pairs = optionColumns.flatMap((column, i) =>
      row[column] ? [{ id: letters[i]!, parts: pairOf(row[column]) }] : [],
    )
    return {
      wrongCost: 0,
      items: pairs
        .filter(({ parts }) => parts[0])
        .map(({ id, parts }) => ({ id, html: asHtml(parts[0]!), comment: '', target: parts[1] ? id : null })),
      targets: pairs.filter(({ parts }) => parts[1]).map(({ id, parts }) => ({ id, html: asHtml(parts[1]!) })),
    }
  },
  written: (row) => ({ ...blankQuestion('written').body, model: row.right ?? '' }) as Question['body'],
  short: (row) => ({ ...blankQuestion('short').body, model: row.right ?? '' }) as Question['body'],
}

/** "left = right"; the sign that parts them stands between spaces where the words have one of their own. */
function pairOf(text: string): [left: string, right: string] {
  const spaced = ` ${text} `.indexOf(' = ')
  const at = spaced >= 0 ? spaced : text.indexOf('=')
  return at < 0 ? [text.trim(), ''] : [text.slice(0, at).trim(), text.slice(at + 1).trim()]
}

/** "0.1", "2%", "3 figures" or "1 decimals". */
function nearness(text: string): Nearness {
  const digits = /^(\d{1,2}) (figures|decimals)$/.exec(text.trim())
  if (digits) return { by: digits[2] as 'figures', digits: Number(digits[1]) }
  return text.trim().endsWith('%')
    ? { by: 'relative', tolerance: String(Number(text.replace('%', '')) / 100) }
    : { by: 'absolute', tolerance: text.trim() || '0' }
}

const optionsOf = (row: Row) =>
  optionColumns.flatMap((column, i) => (row[column] ? [{ id: letters[i]!, html: asHtml(row[column]!) }] : []))
const rights = (row: Row) =>
  new Set(
    (row.right ?? '')
      .toLowerCase()
      .split(/[\s,;|]+/)
      .filter(Boolean),
  )
const preset = (kind: 'trueFalse' | 'yesNo', first: boolean): Question['body'] => {
  const body = blankQuestion(kind).body as Extract<Question, { kind: 'choice' }>['body']
  return { ...body, options: body.options.map((option, i) => ({ ...option, credit: (i === 0) === first ? 1 : 0 })) }
}

/** "Choice", "choice" and "CHOICE" alike, and "true/false" as "trueFalse". */
const kindNamed = (written: string): KindName | undefined => {
  const small = written.trim().toLowerCase()
  return (Object.keys(kindLabels) as KindName[]).find(
    (kind) => kind.toLowerCase() === small || kindLabels[kind].toLowerCase() === small,
  )
}
const parts = (text: string | undefined) =>
  (text ?? '')
    .split(/[;,]/)
    .map((part) => part.trim())
    .filter(Boolean)
const numeric = (text: string | undefined, usual: number) =>
  text === undefined || text.trim() === '' ? usual : Number(text.replace(',', '.'))

function rowItem(row: Row, line: number): BundleItem {
  const place = `line ${line}`
  const kind = kindNamed(row.kind ?? '')
  if (!kind)
    return brokenItem(
      place,
      row.kind
        ? `“${row.kind}” is not a kind of question. There are ${Object.keys(taken).join(', ')}.`
        : 'The column “kind” is empty.',
    )
  const bodyOf = taken[kind]
  if (!bodyOf)
    return brokenItem(
      place,
      `${kindLabels[kind]} cannot be written in a line of CSV; use Thistle’s JSON or a QTI package.`,
    )
  return readItem(
    place,
    {
      ...blankQuestion(kind),
      stem: asHtml(row.question ?? ''),
      body: bodyOf(row),
      points: numeric(row.points, 1),
      seconds: numeric(row.seconds, 60),
      difficulty: numeric(row.difficulty, 3),
      tags: parts(row.tags),
      source: row.source ?? '',
      internalName: row.internal_name ?? '',
      comments: {
        right: asHtml(row.comment_right ?? ''),
        wrong: asHtml(row.comment_wrong ?? ''),
        general: asHtml(row.comment ?? ''),
      },
    } as Question,
    {
      folder: (row.folder ?? '')
        .split('/')
        .map((name) => name.trim())
        .filter(Boolean),
      objectives: parts(row.objectives),
    },
  )
}

const formula = /^(?=[=+@]|-[^\d])/
/** Cells as they were before they were kept from being formulas. What stands beyond the header comes as a list, and is told. */
function unguarded(row: Record<string, unknown>): Row {
  const cells = Object.entries(row).filter((cell): cell is [string, string] => typeof cell[1] === 'string')
  return Object.fromEntries(
    cells.map(([name, text]) => [name, text.startsWith("'") && formula.test(text.slice(1)) ? text.slice(1) : text]),
  )
}

/** Reads a file with a header line; commas, semicolons and tabs are told apart by themselves. */
export function readCsv(source: string): Bundle {
  const { data, meta, errors } = Papa.parse<Record<string, string>>(source.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
  })
  const header = meta.fields ?? []
  if (!header.includes('kind') || !header.includes('question'))
    throw new UnreadableFile(
      'The first line has to name the columns; “kind” and “question” are needed. Download the template to see them.',
    )
  if (data.length > 20_000) throw new UnreadableFile('A file has at most 20,000 questions. Part it.')
  const unknown = header.filter((name) => name && !(columns as readonly string[]).includes(name))
  const items = data.map((row, i) => {
    const place = i + 2
    const faults = errors.filter((error) => error.row === i)
    if (faults.some((fault) => fault.type === 'Quotes'))
      return brokenItem(`line ${place}`, 'The quotation marks of this line do not close.')
    const item = rowItem(unguarded(row), place)
    if (faults.some((fault) => fault.code === 'TooManyFields'))
      item.notes.push('This line has more cells than the header names; those beyond are left out.')
    return item
  })
  if (unknown.length && items[0]) items[0].notes.push(`Columns that are not known are left out: ${unknown.join(', ')}.`)
  return onlyItems(items)
}

/** A header with a line for each of the commonest kinds. */
export function csvTemplate(): string {
  const rows: Row[] = [
    {
      kind: 'choice',
      question: 'Which tide has the greatest range?',
      option_a: 'Springs',
      option_b: 'Neaps',
      right: 'a',
      points: '1',
      seconds: '40',
      difficulty: '2',
      tags: 'tides',
      folder: 'Tides/Levels',
      comment_wrong: 'Think of new and full moon.',
    },
    {
      kind: 'choices',
      question: 'Which are cardinal marks?',
      option_a: 'North',
      option_b: 'West',
      option_c: 'Port',
      right: 'a, b',
      points: '2',
    },
    { kind: 'number', question: 'How long is a nautical mile?', right: '1852', tolerance: '0', unit: 'm' },
    { kind: 'text', question: 'What is a falling tide called?', right: 'ebb | ebb tide' },
    { kind: 'true/false', question: 'A drying height lies above chart datum.', right: 'true' },
    {
      kind: 'ordering',
      question: 'From the weakest to the strongest',
      option_a: 'light breeze',
      option_b: 'gale',
      option_c: 'storm',
    },
    { kind: 'matching', question: 'What goes with what?', option_a: 'Port = red', option_b: 'Starboard = green' },
  ]
  const fields = columns.filter((column) => !optionColumns.slice(usualOptions).includes(column as never))
  return Papa.unparse({ fields, data: rows.map((row) => fields.map((column) => row[column] ?? '')) })
}

/** Questions as lines, for a spreadsheet: what every kind has, and its key in words. Not every kind can be read back. */
export function writeCsv(questions: readonly { question: Question; folder: string[]; objectives: string[] }[]): string {
  const lines = questions.map(({ question, folder, objectives }): Row => {
    const options =
      'options' in question.body ? question.body.options : question.kind === 'ordering' ? question.body.items : []
    return {
      kind: question.kind,
      question: asPlain(question.stem),
      points: String(question.points),
      seconds: String(question.seconds),
      difficulty: String(question.difficulty),
      objectives: objectives.join('; '),
      tags: question.tags.join('; '),
      source: question.source,
      internal_name: question.internalName,
      comment_right: asPlain(question.comments.right),
      comment_wrong: asPlain(question.comments.wrong),
      comment: asPlain(question.comments.general),
      folder: folder.join('/'),
      right: rightText(question),
      ...(question.kind === 'number' ? { unit: question.body.unit, tolerance: toleranceText(question) } : {}),
      ...(question.kind === 'matching'
        ? Object.fromEntries(pairTexts(question.body).map((pair, i) => [optionColumns[i], pair]))
        : Object.fromEntries(
            options.slice(0, letters.length).map((option, i) => [optionColumns[i], asPlain(option.html)]),
          )),
    }
  })
  const most = Math.max(usualOptions, ...lines.map((row) => optionColumns.filter((column) => row[column]).length))
  const fields = columns.filter((column) => !optionColumns.slice(most).includes(column as never))
  // A cell that begins like a formula would be run by a spreadsheet.
  const guarded = (row: Row) => fields.map((column) => (row[column] ?? '').replace(formula, "'"))
  return Papa.unparse({ fields, data: lines.map(guarded) })
}

/** Pairs as lines; a partner that is left over stands without its left side. */
function pairTexts({ items, targets }: Extract<Question, { kind: 'matching' }>['body']): string[] {
  const words = new Map(targets.map((target) => [target.id, plainText(target.html)]))
  const taken = new Set(items.map((item) => item.target))
  return [
    ...items.map((item) => `${plainText(item.html)} = ${words.get(item.target ?? '') ?? ''}`),
    ...targets.filter((target) => !taken.has(target.id)).map((target) => ` = ${words.get(target.id)}`),
  ].slice(0, letters.length)
}

function rightText(question: Question): string {
  switch (question.kind) {
    case 'choice':
      return question.body.options.flatMap((option, i) => (option.credit === 1 ? [letters[i]] : [])).join(', ')
    case 'choices':
      return question.body.options.flatMap((option, i) => (option.right ? [letters[i]] : [])).join(', ')
    case 'trueFalse':
    case 'yesNo':
      return question.body.options.find((option) => option.credit === 1)?.id ?? ''
    case 'number':
      return question.body.answers.map((answer) => answer.value).join(' | ')
    case 'text':
      return question.body.answers.map((answer) => answer.text).join(' | ')
    case 'ordering':
    case 'matching':
      return ''
    default:
      return kindOf(question.kind).keyText(question.body)
  }
}

function toleranceText(question: Extract<Question, { kind: 'number' }>): string {
  const near = question.body.answers[0]?.near
  return near?.by === 'absolute'
    ? near.tolerance
    : near?.by === 'relative'
      ? `${Number(near.tolerance) * 100}%`
      : near
        ? `${near.digits} ${near.by}`
        : ''
}

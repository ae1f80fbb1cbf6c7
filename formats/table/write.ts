import { exact } from '../../core/kit/exact'
import { nearestNumberText } from '../../core/kit/number-text'
import { kindOf, plainText, type Question } from '../../core/question'
import { kindLabels } from '../../core/question/kinds'
import { asPlain } from '../plain-html'
import { isReadBack } from '../read-back'
import { unseenIn, type Feature } from '../unseen'
import { columns, letters, optionColumns, usualOptions, type Column, type Row } from './columns'
import { questionsIn, readable } from './read'

/** A table to write: the names of its columns, and its cells, line by line. */
export interface Cells {
  fields: Column[]
  lines: string[][]
}

function cellsOf(rows: readonly Row[]): Cells {
  const used = Math.max(usualOptions, ...rows.map((row) => optionColumns.filter((column) => row[column]).length))
  const fields = columns.filter((column) => !optionColumns.slice(used).includes(column as never))
  return { fields, lines: rows.map((row) => fields.map((column) => row[column] ?? '')) }
}

/** A header with a line for each of the commonest kinds. */
export const templateCells = (): Cells =>
  cellsOf([
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
    {
      kind: 'choice',
      question: 'Which evening suits you?',
      option_a: 'Tuesday',
      option_b: 'Thursday',
      no_key: 'yes',
    },
  ])

interface Out {
  question: Question
  folder: string[]
  objectives: string[]
}

function rowOf({ question, folder, objectives }: Out): Row {
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
    right: question.keyless ? '' : rightText(question),
    no_key: question.keyless ? 'yes' : '',
    ...(question.kind === 'number' ? { unit: question.body.unit, tolerance: toleranceText(question) } : {}),
    ...(question.kind === 'matching'
      ? Object.fromEntries(pairTexts(question.body).map((pair, i) => [optionColumns[i], pair]))
      : Object.fromEntries(
          options.slice(0, letters.length).map((option, i) => [optionColumns[i], asPlain(option.html)]),
        )),
  }
}

/** Questions as lines of a table: what every kind has, and its key in words. Not every kind can be read back. */
export const questionCells = (questions: readonly Out[]): Cells => cellsOf(questions.map(rowOf))

/** Pairs as lines; a partner that is left over stands without its left side. */
function pairTexts({ items, targets }: Extract<Question, { kind: 'matching' }>['body']): string[] {
  const words = new Map(targets.map((target) => [target.id, plainText(target.html)]))
  const taken = new Set(items.map((item) => item.target))
  return [
    ...items.map((item) => `${plainText(item.html)} = ${words.get(item.target ?? '') ?? ''}`),
    ...targets.filter((target) => !taken.has(target.id)).map((target) => ` = ${words.get(target.id)}`),
  ].slice(0, letters.length)
}

/** Letters of the right options; a single one is marked as a letter where another option's text is that very letter. */
function lettersOf<O extends { html: string }>(options: readonly O[], isRight: (option: O) => boolean): string {
  const right = options.flatMap((option, i) => (isRight(option) ? [letters[i] ?? ''] : []))
  if (right.length !== 1) return right.join(', ')
  const texts = new Set(options.map(({ html }) => plainText(html).toLowerCase()))
  const [letter] = right as [string]
  return [letter, `${letter})`, `${letter}.`].find((each) => !texts.has(each)) ?? letter
}

function rightText(question: Question): string {
  switch (question.kind) {
    case 'choice':
      return lettersOf(question.body.options, ({ credit }) => credit === 1)
    case 'choices':
      return lettersOf(question.body.options, ({ right }) => right)
    case 'trueFalse':
    case 'yesNo':
      return question.body.options.find((option) => option.credit === 1)?.id ?? ''
    case 'number':
      return question.body.answers
        .filter(({ credit }) => credit === 1)
        .map(({ value }) => value)
        .join(' | ')
    case 'text':
      return question.body.answers
        .filter(({ credit }) => credit === 1)
        .map(({ text }) => text)
        .join(' | ')
    case 'ordering':
    case 'matching':
      return ''
    default:
      return kindOf(question.kind).keyText(question.body)
  }
}

function toleranceText(question: Extract<Question, { kind: 'number' }>): string {
  const near = question.body.answers[0]?.near
  if (near?.by === 'absolute') return near.tolerance
  if (near?.by === 'relative') return `${nearestNumberText(exact(near.tolerance).mul(100))}%`
  return near && 'digits' in near ? `${near.digits} ${near.by}` : ''
}

const carried = new Set<Feature>(['difficulty', 'source', 'comments', 'keyless'])

/** What a line has no place for; of a kind that no line can hold, that; and whether what is written reads back as it was. */
export function unseenInTable(question: Question): string[] {
  const told = [
    ...(readable[question.kind]
      ? []
      : [`how it is answered: ${kindLabels[question.kind]} cannot be read back from a line`]),
    ...('options' in question.body && question.body.options.length > letters.length ? ['options beyond the 26th'] : []),
    ...unseenIn(question, carried),
  ]
  if (told.some((words) => /^(how|what|credits) /.test(words))) return told
  const cells = rowOf({ question, folder: [], objectives: [] })
  const [back] = questionsIn({
    header: [...columns],
    rows: [{ place: '', cells, problem: null, notes: [], named: (column) => column }],
    decimals: 'point',
  }).items
  return back?.question && isReadBack(question, back.question)
    ? told
    : [...told, 'some of its words or marks: it does not read back as it is']
}

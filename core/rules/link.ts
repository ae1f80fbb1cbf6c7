import { z } from 'zod'
import { id } from '../question/schema'
import { list } from '../kit/phrases'
import { addTo, removeFrom, setAt } from '../quiz/edits/make'
import { look, stop, type Found } from '../quiz/check/check'
import type { Quiz } from '../quiz/schema'
import { choice, slot } from './pieces'
import type { Piece, Rule } from './rule'

export const entryTypes = ['name', 'text', 'number', 'date', 'group'] as const
export type EntryType = (typeof entryTypes)[number]
/** Something that people who come by the link write of themselves. */
export interface EntryField {
  id: string
  name: string
  sort: EntryType
  required: boolean
  /** Nobody comes in twice with the same. */
  unique: boolean
}
/** Everyone with the link: an audience of the quiz's own, which people join by its address. */
export interface LinkRule {
  /** Of the audience: the class in which whoever comes by the link stands. Windows name it as they name classes. */
  audience: string
  /** Whether they sign in, or write who they are. */
  by: 'signedIn' | 'fields'
  fields: EntryField[]
}

const typeWords: Record<EntryType, string> = {
  name: 'a name',
  text: 'a text',
  number: 'a number',
  date: 'a date',
  group: 'a group',
}
export const entryField = z.strictObject({
  id,
  name: z.string().trim().min(1, 'An entry needs a name.').max(80),
  sort: z.enum(entryTypes),
  required: z.boolean(),
  unique: z.boolean(),
})
const fields = ['rules', 'link', 'fields']

/** Whether the link of a quiz leads anywhere: a window is for those who come by it. */
export const linkLeads = ({
  link: rule,
  windows,
}: {
  link: LinkRule | null
  windows: readonly { classes: readonly string[] }[]
}): boolean => rule !== null && windows.some(({ classes }) => classes.includes(rule.audience))

/** What was written into a field, as it is kept and compared; or what is wrong with it, in a sentence. */
export function readEntry({ name, sort, required }: EntryField, typed: string): { value: string } | { fault: string } {
  const value = typed.normalize('NFC').replace(/\s+/g, ' ').trim()
  if (!value) return required ? { fault: `“${name}” is asked for.` } : { value: '' }
  if (value.length > 160) return { fault: `“${name}” has at most 160 characters.` }
  if (sort === 'number' && !/^\d{1,20}$/.test(value)) return { fault: `“${name}” is a number, of digits only.` }
  if (sort === 'date') {
    const real = /^\d{4}-\d{2}-\d{2}$/.test(value) && !Number.isNaN(Date.parse(`${value}T00:00:00Z`))
    if (!real || new Date(`${value}T00:00:00Z`).toISOString().slice(0, 10) !== value)
      return { fault: `“${name}” is a date that there is, as 2026-11-27.` }
  }
  return { value }
}

/** By what two entries of a unique field are the same. */
export const entryKey = (value: string): string => value.toLocaleLowerCase('en').normalize('NFKC')

function fieldPieces(quiz: Quiz, field: EntryField): Piece[] {
  const at = (part: keyof EntryField) => [...fields, field.id, part]
  return [
    slot(`Name of the entry ${field.name}`, at('name'), field.name, `“${field.name}”`, {
      sort: 'text',
      longest: 80,
    }),
    ' (',
    choice(
      `Sort of ${field.name}`,
      at('sort'),
      field.sort,
      entryTypes.map((sort) => ({ value: sort, label: typeWords[sort] })),
    ),
    ', ',
    choice(`Whether ${field.name} is asked for`, at('required'), field.required, [
      { value: true, label: 'asked for' },
      { value: false, label: 'may be left out' },
    ]),
    ', ',
    choice(`Whether ${field.name} may come twice`, at('unique'), field.unique, [
      { value: false, label: 'may come twice' },
      { value: true, label: 'nobody twice' },
    ]),
    ') ',
    { offer: `without “${field.name}”`, edit: removeFrom(quiz, fields, [field.id]) },
    ' ',
  ]
}

function checksOf(value: LinkRule | null, quiz: Quiz): Found {
  if (!value) return []
  return [
    ...(value.by === 'fields' && !value.fields.some(({ required }) => required)
      ? [
          look(
            'link-nameless',
            'rules',
            'Whoever comes by the link need not say who they are',
            'No entry is asked for: papers of people who come by the link cannot be told apart.',
            value.fields.length
              ? {
                  label: `Ask for “${value.fields[0]!.name}”`,
                  edit: setAt(quiz, [...fields, value.fields[0]!.id, 'required'], true),
                }
              : null,
          ),
        ]
      : []),
    ...(value.fields.length > 12
      ? [
          stop('link-fields', 'rules', 'Too many entries', 'People who come by the link write at most 12 entries.', {
            label: `Take “${value.fields.at(-1)!.name}” out`,
            edit: removeFrom(quiz, fields, [value.fields.at(-1)!.id]),
          }),
        ]
      : []),
    ...(linkLeads(quiz.rules)
      ? []
      : [
          look(
            'link-closed',
            'rules',
            'The link leads nowhere',
            'No window is for everyone with the link: whoever follows it reads that the quiz is not open to them.',
            { label: 'Take the link out', edit: setAt(quiz, ['rules', 'link'], null) },
          ),
        ]),
  ]
}

export const link: Rule<LinkRule | null> = {
  title: 'the link',
  chapter: 'who',
  schema: z
    .strictObject({
      audience: id,
      by: z.enum(['signedIn', 'fields']),
      fields: z.array(entryField).max(20, 'There are at most 20 entries.'),
    })
    .nullable(),
  usual: null,
  sentences(value, { quiz }) {
    if (!value) return []
    const last = value.fields.at(-1)
    // Ids of a quiz are one each: a new entry is numbered by how many there have been.
    const number = value.fields.reduce((most, each) => Math.max(most, Number(/\d+$/.exec(each.id)?.[0] ?? 0)), 0) + 1
    const next: EntryField = {
      id: `entry-${number}`,
      name: `Entry ${number}`,
      sort: 'text',
      required: true,
      unique: false,
    }
    return [
      {
        key: 'link',
        pieces: [
          'Whoever has the link ',
          choice('How they come in', ['rules', 'link', 'by'], value.by, [
            { value: 'signedIn', label: 'signs in as a student of the school' },
            { value: 'fields', label: 'writes who they are, without signing in' },
          ]),
          ...(value.fields.length
            ? ['; they write ', ...value.fields.flatMap((each) => fieldPieces(quiz, each))]
            : ['. ']),
          { offer: 'one entry more', edit: addTo(fields, last?.id ?? null, [next]) },
        ],
      },
    ]
  },
  checks: checksOf,
  words: (value) =>
    !value
      ? 'none'
      : value.by === 'signedIn'
        ? 'for those who sign in'
        : `with ${list(value.fields.map(({ name }) => `“${name}”`)) || 'no entries'}`,
}

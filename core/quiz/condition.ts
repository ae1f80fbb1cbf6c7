import { z } from 'zod'
import { instant } from '../kit/instant'
import { language } from '../question/language'
import { kindNames } from '../question/kinds'
import { id } from '../question/schema'
import type { Edit, Member } from './edits/edit'
import type { Content, Row } from './schema'

const word = z.string().trim().min(1).max(40)
const some = <T extends z.ZodType>(member: T) => z.array(member).max(40).default([])

/**
 * A condition over the bank by which a pool finds what it holds: each part narrows it, and each takes several values of
 * which one has to be met. Kept as it is until opening (semantics §3).
 */
export const condition = z.strictObject({
  /** One value, that is changed as a whole. */
  by: z.literal('search').default('search'),
  words: z.string().trim().max(200).default(''),
  kind: some(z.enum(kindNames)),
  /** With all that lie under them. */
  objective: some(id),
  difficulty: some(z.int().min(1).max(5)),
  tag: some(word),
  /** With all that lie in them. */
  folder: some(id),
  /** Thinking levels, as scheme:level. */
  level: some(z.string().regex(/^[a-zA-Z0-9_-]{1,40}:[a-zA-Z0-9_-]{1,40}$/)),
  grade: some(word),
  language: some(language),
  /** In one of these quizzes. */
  quizzes: some(id),
  /** Not opened in a quiz since then. */
  unusedSince: instant.nullable().default(null),
  /** But not these. */
  except: z.array(id).max(2000).default([]),
})
export type Condition = z.infer<typeof condition>

/** A pool holds so many at most; of a condition that finds more the first are taken. */
export const mostHeld = 2000

/** What pools with a condition hold, by the ids of their rows. */
export type Held = ReadonlyMap<string, readonly string[]>

const hasCondition = (row: Row) => row.type === 'pool' && row.condition !== null

/** Whether some pool finds what it holds by a condition. */
export const hasConditions = (content: Content): boolean =>
  content.sections.some((section) => section.rows.some(hasCondition))

/** A content with what its conditions find in the place of them, to be counted, checked and drawn from. */
export function withHeld(content: Content, held: Held): Content {
  if (!hasConditions(content)) return content
  return {
    ...content,
    sections: content.sections.map((section) => ({
      ...section,
      rows: section.rows.map((row) => (hasCondition(row) ? { ...row, questions: [...(held.get(row.id) ?? [])] } : row)),
    })),
  } as Content
}

/** The same with lists in the place of conditions: as a quiz is frozen. */
export function frozenLists(content: Content): Content {
  return {
    ...content,
    sections: content.sections.map((section) => ({
      ...section,
      rows: section.rows.map((row) => (row.type === 'pool' ? { ...row, condition: null } : row)),
    })),
  }
}

const asKeptMember = (member: Member): Member => {
  if (typeof member === 'string') return member
  if (Array.isArray(member.rows)) return { ...member, rows: (member.rows as Member[]).map(asKeptMember) }
  return member.condition ? { ...member, questions: [] } : member
}

/** An edit made on a content with its conditions met, as one on the content that is kept. */
export function asKept(edit: Edit): Edit {
  switch (edit.do) {
    case 'add':
      return { ...edit, members: edit.members.map(asKeptMember) }
    case 'remove':
      return { ...edit, was: edit.was.map(asKeptMember) }
    case 'all':
      return { ...edit, edits: edit.edits.map(asKept) }
    default:
      return edit
  }
}

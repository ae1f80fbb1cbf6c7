import { z } from 'zod'
import { id } from '../../question/schema'

/** A name or the id of a member of a list. What is not in the quiz is refused when it is walked. */
const step = z.string().min(1).max(60)

/**
 * Where a thing stands. Members of lists are named by their ids. Sections and rows have short paths that hold wherever
 * they are moved: `['sections', id, 'title']`, `['rows', id, 'points']`, `['rules', 'windows', id, 'due']`,
 * `['rows', id, 'questions']`, `['content', 'title']`.
 */
export const path = z.array(step).min(1).max(8).readonly()
export type Path = readonly string[]

/** Whatever is kept in a document: what it may be is decided by the quiz's schema once it is in its place. */
const anything = z.unknown()
const member = z.union([id, z.looseObject({ id })])
/** A member of a list: a thing with an id, or the id of something that stands elsewhere (a question, a class). */
export type Member = string | ({ id: string } & Record<string, unknown>)
const members = z.array(member).min(1).max(2000).readonly()

/**
 * The operations by which a quiz changes (architecture: an edit). The page sends them, the server replays them on the
 * newest revision, and undo sends their inverse. Each says what it expects to find: one that finds something else was
 * made beside a colleague's and is asked about, however many edits lie between. Ids are made by whoever makes the edit.
 */
export const edit = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('set'), path, was: anything, value: anything }),
  /** Puts members into a list after the one named; first when null. */
  z.strictObject({ do: z.literal('add'), to: path, after: id.nullable(), members }),
  /** Takes members out, as they are known. */
  z.strictObject({ do: z.literal('remove'), from: path, was: members }),
  z.strictObject({
    do: z.literal('move'),
    id,
    from: path,
    to: path,
    after: id.nullable(),
    /** Ids of the members that stood about it, itself among them, in their order. */
    was: z.array(id).min(1).max(40).readonly(),
  }),
  /** Several edits as one step: all of them are made or none, and undoing takes all of them back. */
  z.strictObject({
    do: z.literal('all'),
    get edits() {
      return z.array(edit).min(1).max(600).readonly()
    },
  }),
])
export type Edit =
  | { do: 'set'; path: Path; was: unknown; value: unknown }
  | { do: 'add'; to: Path; after: string | null; members: readonly Member[] }
  | { do: 'remove'; from: Path; was: readonly Member[] }
  | { do: 'move'; id: string; from: Path; to: Path; after: string | null; was: readonly string[] }
  | { do: 'all'; edits: readonly Edit[] }

/** An edit that cannot be made on this quiz; the sentence is for people. */
export class EditError extends Error {
  override name = 'EditError'
}

/** An edit that does not find what it expects. */
export class EditConflict extends EditError {
  override name = 'EditConflict'
  constructor(
    sentence: string,
    /** Which things are not as they were. */
    readonly paths: readonly Path[],
    /** The thing itself is gone. */
    readonly gone = false,
  ) {
    super(sentence)
  }
}

/** Edits in an edit, all of them. */
export const countEdits = (edit: Edit): number =>
  edit.do === 'all' ? edit.edits.reduce((sum, each) => sum + countEdits(each), 0) : 1
/** More than any page makes in one step. */
export const mostEdits = 2000

export const idOf = (each: Member): string => (typeof each === 'string' ? each : each.id)

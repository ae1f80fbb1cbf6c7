import type { Question, Stimulus } from '../core/question'
import type { Bundle, PortableTest } from './bundle'

/** A question as it leaves, with the names of what it lies in. */
export interface OutgoingQuestion {
  id: string
  /** Folder names from the top. */
  folder: string[]
  /** Codes of objectives. */
  objectives: string[]
  question: Question
}

/** What leaves beside the questions: what they share, the media that texts name, and the test that holds them. */
export interface Beside {
  media: ReadonlyMap<string, Uint8Array>
  stimuli: ReadonlyMap<string, Stimulus>
  test?: PortableTest
}

/** A file that came, looked at before it is read. */
export interface Arrived {
  bytes: Uint8Array
  /** Where its text begins, whatever its encoding, without a byte order mark and what is blank before it: to tell what it is. */
  head: string
  /** All of its text; made when it is asked for. */
  readonly text: string
  /** Its name, in small letters. */
  name: string
}

/** How sure a format is that a file is its own: not at all, perhaps (text could be it), surely. */
export type Sureness = 'no' | 'perhaps' | 'surely'

/** A format of files of questions. `index.ts` lists them; server and pages name none. */
export interface Format {
  /** For addresses and requests: small letters, digits, points and hyphens. */
  name: string
  label: string
  /** Endings of file names, the usual one first. */
  endings: readonly string[]
  recognise?(file: Arrived): Sureness
  /** @throws UnreadableFile */
  read?(file: Arrived): Bundle | Promise<Bundle>
  write?: {
    /** Media type. */
    type: string
    /** A test can be in it. */
    holdsTest?: true
    /** Needs nothing beside the questions. */
    alone?: true
    /** What of a question a reader who knows nothing of Thistle will not see, in words. */
    unseen(question: Question): string[]
    bytes(questions: readonly OutgoingQuestion[], beside: Beside): Uint8Array
  }
}

export const encode = (text: string): Uint8Array => new TextEncoder().encode(text)

import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex } from '@noble/hashes/utils.js'
import type { Question, Stimulus } from '../core/question'

/**
 * What came of scoring both ways, the file's and the question's, over the same answers: equal for all that were tried; or an
 * answer for which they differ, with what each gives; or open, because the file computes with something that is not known here.
 */
export type Proof =
  | { state: 'proven'; tried: number }
  | {
      state: 'differs'
      tried: number
      /** `answer` is null where nothing is answered. */ example: { answer: string | null; file: string; here: string }
    }
  | { state: 'open'; tried: number; reason: string }

/** One question of a file, or the reason why it could not be read. */
export interface BundleItem {
  /** Where it stands in the file, in words: "question 3", "line 12", "items/tide.xml". */
  place: string
  /** What the file calls it; with it a second import finds the first. */
  outsideId: string | null
  question: Question | null
  /** Why it could not be read, or what of it was left out, as sentences. */
  problem: string | null
  notes: string[]
  /** Folder names from the top. */
  folder: string[]
  /** Objectives by their code or title. */
  objectives: string[]
  /** What it shares with others, by its name in the file. */
  stimulus: string | null
  /** Of a file that says by rules of its own how it is scored; null where there is nothing to prove. */
  proof: Proof | null
  /** Words of the file that stand nowhere in it. */
  lost: string[]
}

/** A row of a test: items by their places in the file, and how many of them a paper gets; or words between them. */
export interface PortableRow {
  items: string[]
  draw: number
  /** Each; null is what the question itself is worth. */
  points: number | null
  fixed: boolean
  /** They stay together, in the order that is said. */
  together: boolean
  order: 'kept' | 'shuffled'
  /** None is handed in without an answer to it. */
  required: boolean
  /** HTML of a row that holds no items. */
  text?: string
}

/** Words between rows: they hold no items. @param html of the words */
export const textRow = (html: string): PortableRow => ({
  text: html,
  items: [],
  draw: 0,
  points: null,
  fixed: true,
  together: false,
  order: 'kept',
  required: false,
})

export interface PortableSection {
  title: string
  intro: string
  order: 'kept' | 'shuffled'
  /** Minutes of a clock of its own. */
  limit: number | null
  rows: PortableRow[]
}

/** A test as files describe it. */
export interface PortableTest {
  title: string
  intro: string
  sections: PortableSection[]
  /** Minutes. */
  limit: number | null
  mayOverrun: boolean
  movement: 'free' | 'forward'
  /** What of it has no like here. */
  notes: string[]
}

/** What a file holds: one shape for every format. Media stand under the digest that texts address them by (/api/media/…), until a school keeps them under its own. */
export interface Bundle {
  items: BundleItem[]
  media: Map<string, Uint8Array>
  stimuli: Map<string, Stimulus>
  tests: PortableTest[]
}

/** A file that cannot be read at all; the sentence is for people. */
export class UnreadableFile extends Error {
  override name = 'UnreadableFile'
}

export const readItem = (place: string, question: Question, more: Partial<BundleItem> = {}): BundleItem => ({
  place,
  outsideId: null,
  question,
  problem: null,
  notes: [],
  folder: [],
  objectives: [],
  stimulus: null,
  proof: null,
  lost: [],
  ...more,
})
export const brokenItem = (place: string, problem: string, more: Partial<BundleItem> = {}): BundleItem => ({
  place,
  outsideId: null,
  question: null,
  problem,
  notes: [],
  folder: [],
  objectives: [],
  stimulus: null,
  proof: null,
  lost: [],
  ...more,
})
/** A file that holds questions and nothing else. */
export const onlyItems = (items: BundleItem[]): Bundle => ({ items, media: new Map(), stimuli: new Map(), tests: [] })

/** Addresses of kept media in texts. */
export const mediaAddress = /\/api\/media\/([a-f0-9]{64})/g
/** What a file's own bytes are addressed by until a school keeps them. */
export const digestOf = (bytes: Uint8Array) => bytesToHex(sha256(bytes))

import type { Instant } from '../../../core/kit/time'

/** A bank that somebody else keeps, as its keeper lists it. */
export interface ListedBank {
  bank: string
  name: string
  keeper: string
  about: string
  questions: number
  /** Granted for so many days. */ days: number
}

/** What a school has with a keeper: asked, and granted until some time (or not yet). */
export interface Grant {
  until: Instant | null
}

export interface OutsideItem {
  item: string
  version: number
  publishedAt: Instant
  /** Schools that have chosen it. */ chosen: number
}
/** What a bank holds: a file in one of the open formats, and what is said of each of its items, in their order. */
export interface Delivery {
  file: Uint8Array
  fileName: string
  items: OutsideItem[]
}

/** What a keeper of banks does for schools. A real one answers over the network; the stand-in ships with Thistle. */
export interface Keeper {
  banks(): Promise<ListedBank[]>
  /** Asks for a bank; asking again while it is granted changes nothing. */
  ask(bank: string, school: string): Promise<Grant>
  grant(bank: string, school: string): Promise<Grant | null>
  /** @returns null without a grant */
  deliver(bank: string, school: string): Promise<Delivery | null>
  chose(bank: string, school: string, item: string): Promise<void>
  report(bank: string, school: string, item: string, version: number, words: string): Promise<void>
}

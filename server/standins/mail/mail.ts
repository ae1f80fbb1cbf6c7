/** A letter as it leaves Thistle: plain text. */
export interface Letter {
  to: string
  subject: string
  body: string
}

/** What takes letters on their way. @throws what the way says where it takes none at the moment */
export type Post = (letter: Letter) => Promise<void>

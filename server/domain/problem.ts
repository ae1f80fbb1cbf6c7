/** Something that a person can mend, as problem details (RFC 9457): a status and a sentence. */
export class Problem extends Error {
  override name = 'Problem'
  /**
   * @param status HTTP status, 400 to 499
   * @param code stable name for pages and tests
   * @param sentence what is wrong and what to do, for people
   * @param more members beside the standard ones
   */
  constructor(
    readonly status: number,
    readonly code: string,
    readonly sentence: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(sentence)
  }
}

export const notFound = (what: string) => new Problem(404, 'not-found', `${what} is not here, or is not yours to see.`)
export const forbidden = () => new Problem(403, 'forbidden', 'You do not have the right to do this.')

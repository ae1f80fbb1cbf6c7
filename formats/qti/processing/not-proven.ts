/** What this evaluator does not know, or cannot know: it never guesses. The sentence is for people. */
export class NotProven extends Error {
  override name = 'NotProven'
}

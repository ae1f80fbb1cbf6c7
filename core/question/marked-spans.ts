import { Parser } from 'htmlparser2'

/** A marked stretch of a text: a gap, a piece of maths. */
export interface MarkedSpan {
  /** What the mark says, its entities read. */
  mark: string
  from: number
  /** Behind its end. */
  to: number
  /** The tag that opens it, as it is written. */
  opening: string
  /** What is marked, as markup. */
  inside: string
}

/**
 * The stretches of a text whose tag has an attribute, in reading order. Found by parsing: what is marked may hold
 * maths, pictures and marks of its own. One within another belongs to the outer one; one that is not closed reaches to
 * the end of what holds it.
 */
export function markedSpans(source: string, attribute: string): MarkedSpan[] {
  const found: MarkedSpan[] = []
  let open: { mark: string; from: number; begins: number; depth: number } | null = null
  let depth = 0
  const parser = new Parser({
    onopentag(_name, attributes) {
      depth++
      const mark = attributes[attribute]
      if (mark !== undefined && !open) open = { mark, from: parser.startIndex, begins: parser.endIndex + 1, depth }
    },
    onclosetag(_name, implied) {
      if (open?.depth === depth) {
        const ends = implied ? (parser.startIndex > open.begins ? parser.startIndex : source.length) : parser.startIndex
        found.push({
          mark: open.mark,
          from: open.from,
          to: implied ? ends : parser.endIndex + 1,
          opening: source.slice(open.from, open.begins),
          inside: source.slice(open.begins, ends),
        })
        open = null
      }
      depth--
    },
  })
  parser.end(source)
  return found
}

/** The text with something else in the place of each marked stretch and of all that it holds. */
export function withSpans(source: string, attribute: string, instead: (span: MarkedSpan) => string): string {
  let result = ''
  let at = 0
  for (const span of markedSpans(source, attribute)) {
    result += source.slice(at, span.from) + instead(span)
    at = span.to
  }
  return result + source.slice(at)
}

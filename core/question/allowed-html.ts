/**
 * The markup that people may write in stems, options and comments. The server's cleaner and the page's cleaner
 * both ask this list, so that what is kept and what is shown agree. Plain data: a sitting loads it without the schemas.
 */
export const allowedTags = [
  'p',
  'br',
  'strong',
  'em',
  'u',
  's',
  'sub',
  'sup',
  'code',
  'pre',
  'blockquote',
  'ul',
  'ol',
  'li',
  'h3',
  'h4',
  'hr',
  'table',
  'thead',
  'tbody',
  'tr',
  'th',
  'td',
  'colgroup',
  'col',
  'img',
  'a',
  'span',
  'audio',
  'video',
] as const

export const allowedAttributes: Record<string, readonly string[]> = {
  img: ['src', 'alt', 'width', 'height'],
  // download: the name of a document that Thistle keeps.
  a: ['href', 'download'],
  th: ['colspan', 'rowspan', 'scope'],
  td: ['colspan', 'rowspan'],
  // Maths as the editor writes it; the server fills it with rendered KaTeX when a question is saved.
  // data-gap marks a gap in a text; lang tells a screen reader how to say it.
  span: ['data-type', 'data-latex', 'data-gap', 'lang'],
  // data-plays: how often it may be played; absent for as often as one likes.
  audio: ['src', 'controls', 'data-plays', 'aria-label'],
  video: ['src', 'controls', 'width', 'data-plays', 'aria-label'],
}

/** Pictures, sound, film and documents come from Thistle itself only. */
export const mediaSource = /^\/api\/media\/[a-f0-9]{64}$/

/** Rendered maths ends with this mark inside its span, so that its TeX can be found again. */
export const mathsEnd = '<!--maths-->'

/** The words a person reads in a piece of HTML; maths shows its TeX, a picture its alternative text. */
export function plainText(source: string): string {
  if (!source.includes('<') && !source.includes('&')) return source.replace(/\s+/g, ' ').trim()
  return (
    source
      .replace(/<span[^>]*data-latex="([^"]*)"[^>]*>(?:<\/span>|[\s\S]*?<!--maths--><\/span>)/g, ' $1 ')
      .replace(/<img[^>]*alt="([^"]*)"[^>]*>/g, ' $1 ')
      .replace(/<(?:audio|video)[^>]*aria-label="([^"]*)"[^>]*>/g, ' $1 ')
      // Lowered and raised digits are written as such: a sounding of 1₆ is not 16.
      .replace(/<(sub|sup)>(\d+)<\/\1>/g, (_whole, tag: string, digits: string) =>
        [...digits].map((digit) => (tag === 'sub' ? '₀₁₂₃₄₅₆₇₈₉' : '⁰¹²³⁴⁵⁶⁷⁸⁹')[Number(digit)]).join(''),
      )
      // Lowered and raised letters belong to the word they stand in; blocks part words.
      .replace(/<\/?(?:sub|sup|strong|em|u|s|a|code|span)\b[^>]*>/g, '')
      .replace(/<[^>]+>/g, ' ')
      .replace(/&nbsp;/g, ' ')
      .replace(/&lt;/g, '<')
      .replace(/&gt;/g, '>')
      .replace(/&quot;/g, '"')
      .replace(/&#39;/g, "'")
      .replace(/&amp;/g, '&')
      .replace(/\s+/g, ' ')
      .trim()
  )
}

/** True when a reader would see nothing at all. */
export function isBlank(source: string): boolean {
  return plainText(source) === '' && !/<(?:img|audio|video)/.test(source)
}

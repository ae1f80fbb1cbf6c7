import katex from 'katex'
import sanitize from 'sanitize-html'
import { allowedAttributes, allowedTags, mathsEnd, mediaSource } from '../../../../core/question/allowed-html'
import { withSpans } from '../../../../core/question/marked-spans'
import type { Sheet } from '../../../../core/paper'
import { eachText } from '../../../../core/kit/each-text'
import { Problem } from '../../problem'

const maths = 'data-latex'
/** What is drawn is hundreds of times as long as its TeX. */
const longestMaths = 2000
const mediaTags = new Set(['img', 'audio', 'video'])

/** Nothing but words and paragraphs without attributes: what cleaning would give back as it is. */
const wordsInParagraphs = /^(?:[^<>&]*|(?:<p>[^<>&]*<\/p>)*)$/

/** HTML from people, cleaned by core's allow-list. Rendered maths is dropped: it is made anew from its TeX. */
export function cleanHtml(source: string): string {
  // Words alone, and paragraphs of nothing else, hold nothing that could be cleaned.
  if (wordsInParagraphs.test(source)) return source
  const cleaned = sanitize(source, {
    allowedTags: [...allowedTags],
    allowedAttributes: Object.fromEntries(Object.entries(allowedAttributes).map(([tag, names]) => [tag, [...names]])),
    allowedSchemes: ['https', 'http', 'mailto'],
    allowedSchemesByTag: { img: [], audio: [], video: [] },
    allowProtocolRelative: false,
    exclusiveFilter: (frame) => mediaTags.has(frame.tag) && !mediaSource.test(frame.attribs.src ?? ''),
    transformTags: {
      a: (tag, { href, download }) => ({
        tagName: tag,
        attribs: { ...(href ? { href } : {}), ...(download && mediaSource.test(href ?? '') ? { download } : {}) },
      }),
    },
  })
  return withSpans(cleaned, maths, ({ opening }) => `${opening}</span>`)
}

/** Cleaned HTML where cleaning takes something out; else the very same text, so that who wrote it finds it again. */
export function safeHtml(source: string): string {
  const cleaned = cleanHtml(source)
  const asWritten = sanitize(source, { allowedTags: false, allowedAttributes: false, allowVulnerableTags: true })
  return cleaned === asWritten ? source : cleaned
}

/** Fills each piece of maths with KaTeX's HTML and MathML. @throws Problem when TeX cannot be read */
export function renderMaths(source: string): string {
  if (!source.includes(maths)) return source
  return withSpans(source, maths, ({ mark: tex, opening, inside }) => {
    if (inside !== '') return `${opening}${inside}</span>`
    // A computation is filled in on each paper; its maths is rendered then.
    if (tex.includes('{=')) return `${opening}</span>`
    if (tex.length > longestMaths)
      throw new Problem(422, 'maths', `The maths “${tex.slice(0, 60)}…” is longer than 2,000 characters. Part it.`)
    try {
      return `${opening}${katex.renderToString(tex, { output: 'htmlAndMathml', throwOnError: true, strict: 'ignore', trust: false, maxExpand: 200 })}${mathsEnd}</span>`
    } catch (error) {
      throw new Problem(
        422,
        'maths',
        `The maths “${tex.slice(0, 60)}” cannot be read: ${(error as Error).message.replace(/^KaTeX parse error: /, '')}`,
      )
    }
  })
}

/** Whether maths is left in a sheet that is not drawn yet: that of varying questions, which has the paper's own values. */
export function hasMathsToDraw(sheet: Sheet): boolean {
  let found = false
  eachText(sheet, (text) => {
    if (!found && text.includes(maths))
      withSpans(text, maths, ({ mark, opening, inside }) => {
        found ||= inside === '' && !mark.includes('{=')
        return `${opening}${inside}</span>`
      })
    return text
  })
  return found
}

/** Draws what is not drawn yet, in every text of a sheet. */
export function sheetWithMaths(sheet: Sheet): Sheet {
  return eachText(sheet, (text) => (text.includes(maths) ? renderMaths(text) : text))
}

import { escapeHtml } from '../core/kit/escape'

export { escapeHtml }

/** Plain lines as paragraphs; what holds markup already stays as it is (it is cleaned when it is kept). */
export function asHtml(text: string): string {
  const trimmed = text.trim()
  if (trimmed === '' || hasMarkup(trimmed)) return trimmed
  return trimmed
    .split(/\n{2,}/)
    .map((paragraph) => `<p>${escapeHtml(paragraph).replace(/\n/g, '<br>')}</p>`)
    .join('')
}

/** HTML as text: what `escapeHtml` wrote, and spaces that do not break. */
export const unescapeHtml = (html: string) =>
  html
    .replace(/&nbsp;/g, '\u00a0')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&quot;/g, '"')
    .replace(/&#39;/g, "'")
    .replace(/&amp;/g, '&')

const hasMarkup = (text: string) => /<[a-z][^>]*>/i.test(text)

/** HTML as `asHtml` reads it back: plain where it is plain, else with a tag, so that it is not taken for text. */
export function asPlain(html: string): string {
  const inner = html.replace(/^<p>((?:(?!<\/?p>)[\s\S])*)<\/p>$/, '$1')
  const text = unescapeHtml(inner)
  if (!hasMarkup(inner) && !hasMarkup(text) && text === text.trim() && !text.includes('\n')) return text
  return hasMarkup(html) ? html : `<p>${html}</p>`
}

/** Maths between dollar signs that stand close to it, as the editor keeps it: prices are none. */
export function withMaths(html: string): string {
  return html.replace(
    /(?<![\\$])\$(?=\S)([^$\n]{1,300}?)(?<=\S)\$(?!\d)/g,
    (_whole, tex: string) => `<span data-type="inline-math" data-latex="${tex}"></span>`,
  )
}

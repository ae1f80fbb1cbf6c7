/** Text as HTML. */
export const escapeHtml = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')

/** Plain lines as paragraphs; what holds markup already stays as it is (it is cleaned when it is kept). */
export function asHtml(text: string): string {
  const trimmed = text.trim()
  if (trimmed === '' || /<[a-z][^>]*>/i.test(trimmed)) return trimmed
  return trimmed
    .split(/\n{2,}/)
    .map((paragraph) => `<p>${escapeHtml(paragraph).replace(/\n/g, '<br>')}</p>`)
    .join('')
}

/** Maths between dollar signs, as the editor keeps it. */
export function withMaths(html: string): string {
  return html.replace(
    /(?<![\\$])\$([^$\n]{1,300}?)\$(?!\d)/g,
    (_whole, tex: string) => `<span data-type="inline-math" data-latex="${tex}"></span>`,
  )
}

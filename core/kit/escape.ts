const signs: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }

/** Text as HTML, also between quotation marks. */
export const escapeHtml = (text: string): string => text.replace(/[&<>"]/g, (sign) => signs[sign]!)

/** Elements that XHTML in items does not have, as classes of a span. */
export const drawnAs: Readonly<Record<string, string>> = { u: 'underline', s: 'line-through' }

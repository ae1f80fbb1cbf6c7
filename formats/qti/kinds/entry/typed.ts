/** A number as it is typed here, as a file writes it: a point, no spaces, no unit. Nothing for what is no number. */
export function plainNumber(text: string): string[] {
  const found = /^\s*([+\-−]?[\d\s.,]+(?:e[+-]?\d+)?)/i.exec(text)?.[1]
  if (found === undefined) return []
  const tidy = found.replace(/\s/g, '').replace('−', '-').replace(',', '.')
  return tidy !== '' && Number.isFinite(Number(tidy)) ? [tidy] : []
}

/**
 * Whether what stands between two dollar signs is maths: a sign of TeX in it, or letters and digits without words. "$5, not
 * 6$" is a price.
 * @param source without the signs
 */
export function looksLikeMaths(source: string): boolean {
  if (source !== source.trim()) return false
  if (/[\\^_{}]/.test(source)) return true
  if (/\p{L}{3,}|(?:^|\s)\p{L}{2,}(?:\s|$)/u.test(source)) return false
  return /\p{L}|[=<>+≤≥×÷±√]/u.test(source) && !/^[\d.,\s]+\p{L}{2}$/u.test(source)
}

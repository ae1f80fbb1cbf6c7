const order = [
  /\b(?:in|into)\s+(?:the\s+|their\s+|an?\s+)?(?:(?:right|correct|proper|chronological|logical|ascending|descending|increasing|decreasing|alphabetical|numerical|time)\s+)*(?:order|sequence)\b/i,
  /\b(?:order|rank|sort|sequence|arrange|reorder|put|place|list)\b[^.?!]{0,80}\b(?:from\s.{1,40}\sto|earliest|latest|oldest|newest|smallest|largest|lowest|highest|first\s+to\s+last)\b/i,
  /^\s*(?:order|rank|sort|sequence|arrange|reorder)\s+(?:the|these|those|them|all|each)\b/i,
  /^\s*(?:order|rank|sort|arrange|reorder)\s*[:.]?\s*$/i,
  /\b(?:reihenfolge|volgorde|rekkefølge)\b|\bdans\s+(?:le\s+bon\s+)?l?['’]?ordre\b|\ben\s+(?:el\s+)?orden\b|\bin\s+ordine\b/i,
]
const pairs =
  /\b(?:match|pair|connect|join|link)\b|\bbelongs?\s+(?:to|with|together)\b|\bgo(?:es)?\s+(?:with|together)\b|\bassign\b|\bzuordnen\b|\bordnen?\b[^.?!]{0,60}\bzu\b|\bassocie[rz]?\b|\brelacion[ae]r?\b|\babbina\b/i

/** Whether a question asks for its lines to be put in order; "in which order" asks for one of several. */
export const asksForOrder = (words: string): boolean =>
  !/\b(?:in\s+)?(?:which|what)\s+order\b/i.test(words) && order.some((each) => each.test(words))

/** Whether a question asks for things to be paired. */
export const asksForPairs = (words: string): boolean => pairs.test(words)

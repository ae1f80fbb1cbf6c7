/** Signs that mean something in a pattern of XML Schema stand for themselves. */
const literal = (text: string) => text.replace(/[\\^$.|?*+()[\]{}-]/g, '\\$&')

const plain = (letter: string) => letter.normalize('NFD').replace(/\p{Mn}/gu, '')

/** Accented forms of Latin letters that keyboards give, by the letter (Unicode, Latin-1 Supplement and Latin Extended-A). */
const accented = new Map<string, string>()
for (let code = 0xc0; code < 0x180; code++) {
  const letter = String.fromCharCode(code)
  const base = plain(letter)
  if (base !== letter && base.length === 1 && letter === letter.toLowerCase())
    accented.set(base, (accented.get(base) ?? '') + letter)
}

/** A letter in all forms in which it counts. */
function forms(letter: string, caseMatters: boolean, accentsMatter: boolean): string {
  const base = accentsMatter ? letter : plain(letter)
  const [small, large] = [base.toLowerCase(), base.toUpperCase()]
  const bases = caseMatters || large.length > 1 ? [base] : [small, large]
  const withAccents = bases.flatMap((each) => {
    const marks = accentsMatter ? '' : (accented.get(each.toLowerCase()) ?? '')
    return [each, ...(each === each.toLowerCase() ? marks : marks.toUpperCase())]
  })
  const all = [...new Set(withAccents)].filter((each) => [...each].length === 1)
  return all.length > 1 ? `[${all.join('')}]` : literal(base)
}

/** A text as a pattern in which capitals and accents make no difference unless they matter: patterns know no flag for it. */
export const patternFor = (text: string, caseMatters: boolean, accentsMatter: boolean): string =>
  [...text.normalize('NFC')]
    .map((sign) => (/\p{L}/u.test(sign) ? forms(sign, caseMatters, accentsMatter) : literal(sign)))
    .join('')

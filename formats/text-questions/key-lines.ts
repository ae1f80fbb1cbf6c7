/** Lines that say what is right, in the forms in which people write them. */

/** A key that can be read in two ways, or not at all: the sentence asks back. */
export class AskedBack extends Error {
  override name = 'AskedBack'
}

const subject = [
  '(?:the\\s+)?(?:(?:correct|right|best)\\s+)?(?:answers?|ans|key|solutions?|option|choice)',
  'correct|right',
  '(?:richtige\\s+)?antwort(?:en)?|lösung(?:en)?|richtig',
  '(?:bonnes?\\s+)?réponses?(?:\\s+correctes?)?|respuestas?(?:\\s+correctas?)?|risposta|risposte|respostas?',
  '(?:juiste\\s+)?antwoord(?:en)?|(?:rätt\\s+)?svar|odpowiedź',
].join('|')

/** "Answer: B", "Correct answer is B", "Ans. (c)", "ANSWER – flood". */
const withSign = new RegExp(`^(?:${subject})(?:\\s+(?:is|are))?\\s*(?:[:=：]|\\s[-–—])\\s*(\\S.*)$`, 'isu')
/** Without a sign between them only a single letter, or letters, is a key: "Answer B", "Ans. (c)". */
const letterAfter = new RegExp(`^(?:${subject})\\.?(?:\\s+(?:is|are))?\\s+(\\(?[a-z]\\)?)\\.?$`, 'isu')
const abbreviated = /^ans\.\s*(\S.*)$/isu

export interface KeyLine {
  says: string
  /** It begins with "=", Thistle's own sign. */
  sign: boolean
}

/** What a line says is right; null for a line that is no key. */
export function keyLineOf(text: string): KeyLine | null {
  const tidy = text.trim()
  const typed = /^=\s*(?=\S)(?!=)(.*)$/s.exec(tidy)
  if (typed) return { says: typed[1]!.trim(), sign: true }
  const found = withSign.exec(tidy) ?? letterAfter.exec(tidy) ?? abbreviated.exec(tidy)
  return found ? { says: found[1]!.trim(), sign: false } : null
}

const pair =
  /^\s*(?:Q(?:uestion)?\s*)?(\d{1,3})\s*[.):=–-]?\s*(\(?(?:[A-Za-z]|true|false)\)?(?:\s*(?:[,&+/]|and|or)\s*\(?[A-Za-z]\)?(?![A-Za-z]))*)(?![A-Za-z])[.;,]?/i

/** "1 B 2 D 3 A, C": what is right for which question; null where a text holds anything else. */
export function pairsIn(text: string): Map<number, string> | null {
  const found = new Map<number, string>()
  let rest = text.trim()
  while (rest !== '') {
    const next = pair.exec(rest)
    if (!next || found.has(Number(next[1]))) return null
    found.set(Number(next[1]), next[2]!.trim())
    rest = rest.slice(next[0].length).trim()
  }
  return found.size ? found : null
}

/** The key of several questions in one line: "Key: 1 B 2 D". Of one question alone it is a line like any other ("Answer: 5 m"). */
export function keyOfAllIn(text: string): Map<number, string> | null {
  const line = keyLineOf(text)
  const found = line && !line.sign ? pairsIn(line.says) : null
  return found && found.size > 1 ? found : null
}

const title = new RegExp(`^(?:${subject}|answer\\s+key|key\\s+to\\s+.{1,40}|lösungsschlüssel)\\s*[:.]?$`, 'iu')
/** A title above the key of all: "Answer key", "Answers:". */
export const isKeyTitle = (text: string): boolean => title.test(text.trim())

const explanation =
  /^\s*(?:explanation|rationale|feedback|reason|erklärung|begründung|explication|explicación|spiegazione|uitleg|förklaring)\s*[:–—]\s*(?=\S)/iu
/** The word that begins an explanation of the answer, "Explanation: "; null for a line that is none. */
export const explanationIn = (text: string): string | null => explanation.exec(text)?.[0] ?? null

/** A single letter, "B" or "(b)". */
export const isOneLetter = /^\(?[a-z]\)?[.)]?$/i

const letter = '\\(?[a-z]\\)?[.)]?'
const letters = new RegExp(`^${letter}(?:(?:\\s*[,;&+/]\\s*|\\s+(?:and|or)\\s+|\\s+)${letter})*$`, 'i')
const numbers = /^\(?\d{1,2}\)?[.)]?(?:(?:\s*[,;&+/]\s*|\s+(?:and|or)\s+|\s+)\(?\d{1,2}\)?[.)]?)*$/
const withWords = /^\(?([a-z])\)?\s*(?:[.):]|\s[-–])\s*(\S.*)$/is

export const inThisOrder = /^in (?:this|the given) (?:order|sequence)\.?$/i
export const inThesePairs = /^in these pairs\.?$/i

/** Options that a key names, in its order; `either` where each of them alone is right ("B or C"). */
export interface Named {
  at: number[]
  either: boolean
}

const plain = (text: string) => text.trim().replace(/\s+/g, ' ').replace(/[.;]$/, '').toLowerCase()

/**
 * The options that a key names: by letters, by numbers where they are numbered, or in their own words.
 * @returns null for a key that names none of them
 * @throws AskedBack for one that names what is not there, or can be read in two ways
 */
export function optionsInKey(says: string, options: readonly string[], numbered: boolean): Named | null {
  const whole = says.trim().replace(/[.;]$/, '')
  const inWords = options.flatMap((each, i) => (plain(each) === plain(says) ? [i] : []))
  const named = byLetters(whole, options, numbered)
  if (inWords.length === 1) {
    if (named && named.at.join() !== String(inWords[0]))
      throw new AskedBack(`“${whole}” is the letter of one option and the text of another. Change one of them.`)
    return { at: inWords, either: false }
  }
  if (inWords.length > 1) throw new AskedBack(`Two options read “${whole}”. Change one of them.`)
  if (named) return named
  const both = withWords.exec(whole)
  if (both) {
    const at = both[1]!.toLowerCase().charCodeAt(0) - 97
    if (options[at] !== undefined && plain(options[at]) === plain(both[2]!)) return { at: [at], either: false }
    if (options[at] !== undefined)
      throw new AskedBack(
        `The key says “${whole.slice(0, 60)}”, but option ${both[1]!.toUpperCase()} reads “${options[at].slice(0, 60)}”.`,
      )
  }
  const parts = whole.split(/\s*[|;]\s*/)
  const each = parts.map((part) => options.findIndex((option) => plain(option) === plain(part)))
  return parts.length > 1 && each.every((at) => at >= 0) ? { at: each, either: false } : null
}

function byLetters(whole: string, options: readonly string[], numbered: boolean): Named | null {
  const either = /\bor\b|\//i.test(whole)
  const together = /^[A-Z]{2,8}$/.test(whole) && [...whole].every((sign, i) => i === 0 || sign > whole[i - 1]!)
  const signs = together
    ? [...whole]
    : letters.test(whole)
      ? (whole.replace(/\b(?:and|or)\b/gi, ' ').match(/[a-z]/gi) ?? [])
      : null
  const at =
    signs?.map((sign) => sign.toLowerCase().charCodeAt(0) - 97) ??
    (numbered && numbers.test(whole) ? (whole.match(/\d+/g) ?? []).map((digits) => Number(digits) - 1) : null)
  if (!at) return null
  if (together && at.some((each) => each >= options.length)) return null
  const missing = at.find((each) => each < 0 || each >= options.length)
  if (missing !== undefined)
    throw new AskedBack(
      `The key says “${whole}”, but there are only ${options.length} options (${numbered ? '1' : 'A'} to ${numbered ? options.length : String.fromCharCode(64 + options.length)}).`,
    )
  if (new Set(at).size < at.length) throw new AskedBack(`The key “${whole}” names an option twice.`)
  return { at, either: either && at.length > 1 }
}

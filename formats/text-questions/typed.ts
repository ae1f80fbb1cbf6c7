import { blankQuestion } from '../../core/question'
import { blankAnswer } from '../../core/question/kinds/text'
import { exact, type Fraction } from '../../core/kit/exact'
import { nearestNumberText, numberText } from '../../core/kit/number-text'
import { readNumber, timesTenPattern } from '../../core/kit/numbers-read'
import { unitNamed } from '../../core/kit/units'
import { AskedBack } from './key-lines'
import { answer, type Answer } from './options'

type Near = { by: 'relative' | 'absolute'; tolerance: string } | Between
interface Between {
  by: 'between'
  below: string | null
  above: string | null
  open: 'none' | 'below' | 'above'
}
interface Accepted {
  value: string
  near: Near
  unit: string
  /** Numbers as they were typed, to see which mark they have. */
  typed: string[]
}

/** A power of ten: "× 10^8", "x 10⁸", "e8". Groups are not kept. */
const power = `(?:${timesTenPattern.replace(/\((?=\[)/g, '(?:')}|e[+-]?\\d{1,3})`
const number = String.raw`[-−+]?(?:\d[\d.,]*|[.,]\d+)(?:[ \u00a0\u2009\u202f]\d{3})*${power}?`
const unit = String.raw`(?:\s+([^\d\s±+=<>≤≥|].{0,19})|\s*([°%]))?`
const one = new RegExp(`^(${number})(?:\\s*(?:±|\\+-|\\+/-)\\s*(${number})\\s*(%)?)?${unit}$`, 'iu')
const range = new RegExp(`^(?:between\\s+|from\\s+)?(${number})\\s+(?:to|and)\\s+(${number})${unit}$`, 'iu')
const bound = new RegExp(`^(>=|≥|>|<=|≤|<|at least|at most|more than|less than)\\s*(${number})${unit}$`, 'iu')

/** A number as it is typed in a key; what can be read in two ways is asked back. @throws AskedBack */
function numberIn(text: string): Fraction {
  const tidy = text.trim().replace('−', '-')
  // Nobody parts thousands off a nought.
  if (/^-?[1-9]\d{0,2},\d{3}$/.test(tidy) || /^-?\d{1,3}([ \u00a0\u2009\u202f]\d{3})+([.,]\d+)?$/.test(tidy))
    throw new AskedBack(
      `“${text.trim()}” can be read in two ways. Write thousands without a mark, and decimals that are not three digits long, or with a point.`,
    )
  if ((tidy.match(/[.,]/g) ?? []).length > 1) throw new AskedBack(`“${text.trim()}” is not a plain number.`)
  const read = readNumber(tidy.replace(',', '.'), 'point')
  if (!read.ok || read.rest !== '') throw new AskedBack(`“${text.trim()}” is not a plain number.`)
  return read.value
}

/** As a question writes it. @throws AskedBack for more digits than it holds */
function textOf(value: Fraction, typed: string): string {
  const found = numberText(value)
  if (found === null) throw new AskedBack(`“${typed}” has more digits, or a higher power of ten, than numbers here.`)
  return found
}

const within = (low: Fraction, high: Fraction, typed: string): Pick<Accepted, 'value' | 'near'> => {
  if (low.compare(high) >= 0) throw new AskedBack(`“${typed}” is a range that ends before it begins.`)
  const middle = low.add(high).div(2)
  return {
    value: textOf(middle, typed),
    near: {
      by: 'between',
      below: textOf(middle.sub(low), typed),
      above: textOf(high.sub(middle), typed),
      open: 'none',
    },
  }
}

const atLeast = /^(?:>=|≥|at least)$/i
const above = /^(?:>|more than)$/i
const below = /^(?:<|less than)$/i

/** Numbers beyond a bound: shown as right is the bound itself where it counts, else one further. */
function beyond(sign: string, at: Fraction, typed: string): Pick<Accepted, 'value' | 'near'> {
  const isLow = atLeast.test(sign) || above.test(sign)
  const isOpen = above.test(sign) || below.test(sign)
  const off = exact(isOpen ? 1 : 0)
  return {
    value: textOf(isLow ? at.add(off) : at.sub(off), typed),
    near: {
      by: 'between',
      below: isLow ? textOf(off, typed) : null,
      above: isLow ? null : textOf(off, typed),
      open: isOpen ? (isLow ? 'below' : 'above') : 'none',
    },
  }
}

function acceptedIn(text: string): Accepted | null {
  const bounded = bound.exec(text)
  if (bounded) {
    const [, sign, typed, words, mark] = bounded as unknown as [string, string, string, string?, string?]
    return { ...beyond(sign, numberIn(typed), text), unit: (words ?? mark ?? '').trim(), typed: [typed] }
  }
  const ranged = range.exec(text)
  if (ranged) {
    const [, from, to, words, mark] = ranged as unknown as [string, string, string, string?, string?]
    if (/\sand\s/i.test(text) && !/^between/i.test(text))
      throw new AskedBack(`Does “${text}” mean both, or either? Write ${from} | ${to} where either is right.`)
    return { ...within(numberIn(from), numberIn(to), text), unit: (words ?? mark ?? '').trim(), typed: [from, to] }
  }
  const single = one.exec(text)
  if (!single) return null
  const [, typed, by, percent, words, mark] = single as unknown as [string, string, string?, string?, string?, string?]
  const value = textOf(numberIn(typed), typed)
  const off = by === undefined ? exact(0) : numberIn(by)
  return {
    value,
    near: percent
      ? { by: 'relative', tolerance: nearestNumberText(off.div(100)) }
      : { by: 'absolute', tolerance: textOf(off, by ?? '0') },
    unit: (words ?? mark ?? '').trim(),
    typed: [typed, by ?? ''],
  }
}

function numbers(answers: readonly string[], tell: (note: string) => void): Answer | null {
  const found = answers.map(acceptedIn)
  if (!found.every((each) => each !== null)) return null
  const units = [...new Set(found.map((each) => each.unit))]
  if (units.length > 1) throw new AskedBack('Its numbers have different units. Write all of them in one.')
  const typed = found.flatMap((each) => each.typed)
  const isComma = typed.some((each) => each.includes(','))
  const either = typed.find((each) => /^[-−+]?[1-9]\d{0,2}\.\d{3}$/.test(each))
  if (isComma && either !== undefined)
    throw new AskedBack(`“${either}” can be read in two ways beside decimal commas. Write thousands without a mark.`)
  const [own] = units as [string]
  if (own !== '' && !unitNamed(own))
    tell(
      `“${own}” is not a unit that is known here: it stands behind the field. If the answer is a text, put it in quotation marks.`,
    )
  return answer('number', {
    answers: found.map(({ value, near }) => ({ value, near, credit: 1, comment: '' })),
    label: '',
    unit: own,
    unitAsked: false,
    style: isComma ? 'comma' : 'point',
  })
}

const presets = [
  { kind: 'trueFalse', first: /^true$/i, second: /^false$/i },
  { kind: 'yesNo', first: /^yes$/i, second: /^no$/i },
] as const
/** Of a question that asks nothing but whether something is so. */
function preset(text: string): Answer | null {
  const found = presets.find(({ first, second }) => first.test(text) || second.test(text))
  if (!found) return null
  const right = found.first.test(text) ? 0 : 1
  const body = blankQuestion(found.kind).body as { options: { credit: number }[] }
  return answer(found.kind, {
    ...body,
    options: body.options.map((each, i) => ({ ...each, credit: i === right ? 1 : 0 })),
  })
}

const quoted = /^(?:"([^"]+)"|“([^”]+)”|„([^“”]+)[“”])$/
const plainNumber = new RegExp(`^${number}$`, 'iu')
const computation = new RegExp(`^${number}\\s*(?:[-−+*/×÷x·^]\\s*${number}\\s*)+$`, 'iu')
const dateOrFraction = /^\d{1,4}([-/])\d{1,2}(?:\1\d{1,4})?$/
const isComputation = (text: string) => computation.test(text) && !plainNumber.test(text) && !dateOrFraction.test(text)

/** A text that is accepted, without the marks that say that it is one. @param tell what may be meant otherwise @throws AskedBack */
function acceptedText(typed: string, tell: (note: string) => void): string {
  const marked = quoted.exec(typed)
  const text = marked ? (marked[1] ?? marked[2] ?? marked[3])! : typed
  if (text.length > 200) throw new AskedBack('An accepted answer is longer than 200 characters.')
  if (marked) return text
  if (/^[-−+]?\d[\d.,]*\s*(?:±|\+-|\+\/-)/.test(typed))
    throw new AskedBack(
      `“${typed}” is not understood. Write a number, ± and how far it may be off, and the unit: = 3.9 ± 0.1 m`,
    )
  if (/^[<>≤≥]/.test(typed)) throw new AskedBack(`“${typed}” is not understood. Write a sign and a number: = > 5`)
  if (/^[-−+]?\d/.test(typed)) tell(`“${typed}” is taken for a text, which has to be typed as it stands.`)
  return text
}

/**
 * What is typed as an answer: numbers with their tolerance and unit, ranges, true or false, or texts that are accepted.
 * @param says parts between "|" are accepted one as well as the other
 * @param tell what may be meant otherwise
 * @throws AskedBack for what can be read in two ways
 */
export function typedAnswer(says: string, tell: (note: string) => void): Answer {
  const answers = says
    .split('|')
    .map((part) => part.trim())
    .filter(Boolean)
  const computed = answers.find(isComputation)
  if (computed !== undefined)
    throw new AskedBack(
      `Is “${computed}” a computation, or a text? Write its value, or put it in quotation marks to have it typed as it stands.`,
    )
  const found = numbers(answers, tell) ?? (answers.length === 1 ? preset(answers[0]!) : null)
  if (found) return found
  return answer('text', {
    ...blankQuestion('text').body,
    answers: answers.map((each) => blankAnswer(acceptedText(each, tell))),
  })
}

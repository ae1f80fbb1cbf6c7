import { numberTextOf } from '../../core/kit/number-text'
import { letters, type Column, type Decimals, type Row } from './columns'

/** What is wrong with a cell, and what to do. */
export class CellFault extends Error {
  override name = 'CellFault'
  constructor(
    readonly column: Column,
    sentence: string,
  ) {
    super(sentence)
  }
}

const fault = (column: Column, sentence: string): never => {
  throw new CellFault(column, sentence)
}

/**
 * A plain decimal. What can be read in two ways is asked back: marks of thousands, spaces, a comma where the table writes points.
 * @throws CellFault
 */
export function decimalIn(column: Column, text: string, decimals: Decimals): string {
  const tidy = text.trim().replace(/^[−–]/, '-').replace(/^\+/, '')
  const marks = decimals === 'comma' ? /^-?\d{1,15}(?:,\d{1,15})?$/ : /^-?\d{1,15}(?:\.\d{1,15})?$/
  // Nobody parts thousands off a nought.
  const both = /^-?[1-9]\d{0,2}[.,]\d{3}$/.test(tidy) && !(decimals === 'point' && tidy.includes('.'))
  if (both)
    return fault(
      column,
      `“${text.trim()}” can be read in two ways. Leave out the mark for thousands, or write one more digit.`,
    )
  if (marks.test(tidy)) return tidy.replace(',', '.')
  if (decimals === 'comma' && /^-?\d{1,15}\.\d{1,15}$/.test(tidy)) return tidy
  const withPower = /^-?[\d.,]+e[+-]?\d+$/i.test(tidy)
    ? numberTextOf(decimals === 'comma' ? tidy.replace(',', '.') : tidy)
    : null
  if (withPower !== null) return withPower
  return fault(
    column,
    /^-?\d+,\d+$/.test(tidy)
      ? `Is “${text.trim()}” a decimal? In this file numbers are written with a point: ${tidy.replace(',', '.')}.`
      : `“${text.trim().slice(0, 40)}” is not a plain number.`,
  )
}

/** A number of a description, or what is usual where the cell is empty. @throws CellFault */
export const numberIn = (column: Column, row: Row, decimals: Decimals, usual: number): number =>
  (row[column] ?? '').trim() === '' ? usual : Number(decimalIn(column, row[column]!, decimals))

/** Words that mean true or yes, and false or no, in languages of schools; anything else is asked back. */
const truths = new Map<string, boolean>([
  ...['true', 't', '1', 'yes', 'y', 'right', 'correct'].map((word) => [word, true] as const),
  ...['wahr', 'richtig', 'ja', 'vrai', 'oui', 'verdadero', 'sí', 'si', 'vero', 'waar', 'juist'].map(
    (word) => [word, true] as const,
  ),
  ...['verdadeiro', 'sim', 'sant', 'sann', 'rätt', 'prawda', 'tak'].map((word) => [word, true] as const),
  ...['false', 'f', '0', 'no', 'n', 'wrong', 'incorrect'].map((word) => [word, false] as const),
  ...['falsch', 'nein', 'faux', 'non', 'falso', 'onwaar', 'onjuist', 'nee', 'não'].map(
    (word) => [word, false] as const,
  ),
  ...['falskt', 'fel', 'nej', 'fałsz', 'nie'].map((word) => [word, false] as const),
])

/** @throws CellFault for words that are not known */
export function truthIn(column: Column, text: string): boolean {
  const found = truths.get(text.trim().toLowerCase())
  if (found !== undefined) return found
  return fault(column, `“${text.trim().slice(0, 40)}” is neither true nor false. Write true or false.`)
}

/** Letters of options that a key names, or their words where they are no letters. @throws CellFault for what is no option */
export function optionsNamed(
  column: Column,
  text: string,
  options: readonly { id: string; words: string }[],
): string[] {
  const whole = text.trim()
  const byWords = (words: string) =>
    options.filter((option) => option.words.trim().toLowerCase() === words.trim().toLowerCase())
  const named = whole.split(/[\s,;|]+/).filter(Boolean)
  const asLetters = named.map((each) => each.toLowerCase().replace(/[.)]$/, ''))
  if (named.length && asLetters.every((each) => each.length === 1 && letters.includes(each))) {
    const missing = asLetters.filter((each) => !options.some(({ id }) => id === each))
    if (missing.length && byWords(whole).length === 1) return [byWords(whole)[0]!.id]
    if (missing.length) return fault(column, `There is no option ${missing.join(', ')}: its cell is empty.`)
    // "a", where another option reads "a": which one is meant is not known. Nor is "a b" where an option reads so.
    const other = byWords(whole).filter(({ id }) => named.length > 1 || id !== asLetters[0])
    if (other.length)
      return fault(
        column,
        `“${whole}” names options by their letters and is the text of option ${other[0]!.id}. Write the other’s letter, or change the text.`,
      )
    return [...new Set(asLetters)]
  }
  const parts = byWords(whole).length ? [whole] : whole.split('|')
  return parts.map((part) => {
    const found = byWords(part)
    if (found.length === 1) return found[0]!.id
    return fault(column, `“${part.trim().slice(0, 60)}” is none of the options. Name it by its letter.`)
  })
}

/** A text that a spreadsheet would run: a sign of a formula at its beginning, whatever blanks stand before it. */
const runs = /^[\s']*(?:[=+@]|-(?!\d+(?:[.,]\d+)?$)|\t|\r|\n)|^[\t\r\n]/

/** A cell kept from being run as a formula; `unguarded` takes the mark away again. */
export const guarded = (text: string): string => (runs.test(text) ? `'${text}` : text)
export const unguarded = (text: string): string =>
  text.startsWith("'") && runs.test(text.slice(1)) ? text.slice(1) : text

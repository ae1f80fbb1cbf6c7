import { blankQuestion, type Question } from '../../../../core/question'
import { mostNumbers } from '../../../../core/question/kinds/number'
import { blankAnswer, mostTexts } from '../../../../core/question/kinds/text'
import type { XmlElement } from '../../../xml'
import { acceptedTexts, type AcceptedText } from '../../scoring/accepted-texts'
import { NotRead } from '../../scoring/chosen'
import { acceptedNumbers, decimalOf, type Accepted } from '../../scoring/ranges'
import { casesOf, type Term } from '../../scoring/terms'
import { byHandOf, isScoredByPeople } from '../by-hand/read'
import { creditOf, declared, found, numeric, refuse, type Context, type Declaration, type Found } from '../reading'
import { plainNumber } from './typed'

type NumberBody = Extract<Question, { kind: 'number' }>['body']
type TextBody = Extract<Question, { kind: 'text' }>['body']

/** Answers that are accepted, each with what it earns. */
type Worths<T> = { accepted: T; worth: number }[]

const ownProcessing = 'Its own processing of what is typed has no like here: it is scored by its key.'

/** What each accepted answer earns: by branches, by the mapping, or by the key alone. */
function worthsOf<T>(
  context: Context,
  response: Declaration,
  byCondition: (condition: XmlElement) => T[],
  byKey: (key: string, caseMatters: boolean) => T,
): Worths<T> {
  const mapped = (factor: number): Worths<T> =>
    (response.mapping?.entries ?? []).map(({ key, value, caseSensitive }) => ({
      accepted: byKey(key, caseSensitive),
      worth: value * factor,
    }))
  const byCorrect = (): Worths<T> => response.correct.map((key) => ({ accepted: byKey(key, true), worth: 1 }))
  const own = context.score?.terms.filter((term) => term.responses.includes(response.identifier)) ?? []
  try {
    const worths = own.flatMap((term) =>
      term.node.name === 'mapResponse' ? mapped(term.factor) : cases(term, byCondition),
    )
    if (worths.length) return worths
  } catch (error) {
    if (!(error instanceof NotRead)) throw error
    context.notes.add(ownProcessing)
  }
  return response.mapping?.entries.length && !response.correct.length ? mapped(1) : byCorrect()
}

function cases<T>(term: Term, byCondition: (condition: XmlElement) => T[]): Worths<T> {
  const read = casesOf(term)
  if (!read) throw new NotRead('It earns something that is not a number.')
  return read.cases.flatMap(({ condition, worth }) => byCondition(condition).map((accepted) => ({ accepted, worth })))
}

const most = (worths: Worths<unknown>) => Math.max(0, ...worths.map(({ worth }) => worth))

const tooMany = (n: number, of: number) => `It accepts ${n} answers; here at most ${of} are kept.`

export function numberBody(context: Context, response: Declaration): { body: NumberBody; most: number } {
  const byKey = (key: string): Accepted => ({ value: decimalOf(key), near: { by: 'absolute', tolerance: '0' } })
  const worths = attempted(() =>
    worthsOf(context, response, (condition) => acceptedNumbers(condition, response), byKey),
  ).filter(({ worth }) => worth > 0)
  if (!worths.length) return refuse('No number of it is right.')
  const best = most(worths)
  if (worths.length > mostNumbers) context.notes.add(tooMany(worths.length, mostNumbers))
  return {
    most: best,
    body: {
      ...(blankQuestion('number').body as NumberBody),
      answers: worths
        .slice(0, mostNumbers)
        .map(({ accepted, worth }) => ({ ...accepted, credit: creditOf(worth, best), comment: '' })),
    },
  }
}

/** @throws UnreadableFile for a key that is no number */
function attempted<T>(read: () => T): T {
  try {
    return read()
  } catch (error) {
    if (error instanceof NotRead) return refuse(error.message)
    throw error
  }
}

export function textBody(context: Context, response: Declaration): { body: TextBody; most: number } {
  const byKey = (text: string, caseMatters: boolean): AcceptedText => ({
    how: 'is',
    text,
    caseMatters,
    accentsMatter: true,
  })
  const worths = worthsOf(context, response, (condition) => acceptedTexts(condition, response), byKey).filter(
    ({ worth, accepted }) => worth > 0 && accepted.text !== '',
  )
  if (!worths.length) return refuse('The answer has no key that can be read.')
  if (worths.length > mostTexts) context.notes.add(tooMany(worths.length, mostTexts))
  if (worths.some(({ accepted }) => accepted.text.length > 200))
    return refuse('An accepted answer of it is longer than 200 characters.')
  const best = most(worths)
  const caseMatters = worths.some(({ accepted }) => accepted.caseMatters)
  const accentsMatter = worths.some(({ accepted }) => accepted.accentsMatter)
  return {
    most: best,
    body: {
      ...(blankQuestion('text').body as TextBody),
      // The standard compares letter by letter; only an entry that says so forgets capitals.
      caseMatters,
      accentsMatter,
      longest: Math.max(100, ...worths.map(({ accepted }) => accepted.text.length)),
      answers: worths.slice(0, mostTexts).map(({ accepted, worth }) => ({
        ...blankAnswer(accepted.text, creditOf(worth, best)),
        how: accepted.how,
        ...(accepted.caseMatters === caseMatters ? {} : { caseMatters: accepted.caseMatters }),
        ...(accepted.accentsMatter === accentsMatter ? {} : { accentsMatter: accepted.accentsMatter }),
      })),
    },
  }
}

export const isNumeric = (response: Declaration) => response.baseType === 'float' || response.baseType === 'integer'

/** Whether anything says what is right. */
const isKeyed = (context: Context, response: Declaration) =>
  response.correct.length > 0 ||
  (response.mapping?.entries.length ?? 0) > 0 ||
  (context.score?.terms.some((term) => term.responses.includes(response.identifier)) ?? false)

/** A line to write on: a number, a text, or, where nothing says what is right, an answer that somebody marks. */
export function textEntryOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  if (isScoredByPeople(context) || !isKeyed(context, response)) return byHandOf(context, node)
  const { identifier } = response
  if (isNumeric(response)) {
    const { body, most: worth } = numberBody(context, response)
    return found('number', body, worth, ({ text }: { text: string }) => ({ [identifier]: plainNumber(text) }))
  }
  const { body, most: worth } = textBody(context, response)
  return found('text', body, worth, ({ text }: { text: string }) => ({ [identifier]: text ? [text] : [] }))
}

/** A field for much that a machine marks all the same: it has a key. Else somebody marks it. */
export function extendedTextOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  if (response.cardinality !== 'single')
    return refuse('It asks for several texts at once, which one question here does not.')
  if (isScoredByPeople(context) || !isKeyed(context, response)) return byHandOf(context, node)
  const read = textEntryOf(context, node)
  if (read.kind !== 'text') return read
  const body = read.body as TextBody
  return {
    ...read,
    body: { ...body, longest: Math.min(500, Math.max(body.longest, numeric(node.attributes.expectedLength, 500))) },
  }
}

/** A slider: the number that it is set to, typed. */
export function sliderOf(context: Context, node: XmlElement): Found {
  const { lowerBound = '?', upperBound = '?', step } = node.attributes
  context.notes.add(
    `A slider from ${lowerBound} to ${upperBound}${step ? ` in steps of ${step}` : ''} is a number that is typed here.`,
  )
  return textEntryOf(context, node)
}

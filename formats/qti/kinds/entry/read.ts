import { blankQuestion, type Question } from '../../../../core/question'
import type { Nearness } from '../../../../core/question/kinds/number'
import { childOf, childrenOf, textOf, within, type XmlElement } from '../../../xml'
import { byHandOf } from '../by-hand/read'
import { type Declaration, declared, type Found, numeric, hundredths, refuse, type Context } from '../reading'

function nearness(node: XmlElement): Nearness {
  if (node.name === 'equalRounded')
    return node.attributes.roundingMode === 'decimalPlaces'
      ? { by: 'decimals', digits: numeric(node.attributes.figures) }
      : { by: 'figures', digits: numeric(node.attributes.figures, 3) }
  const [tolerance = '0'] = (node.attributes.tolerance ?? '0').split(/\s+/)
  const plain = /^\d{1,15}(\.\d{1,15})?$/.test(tolerance) ? tolerance : '0'
  return node.attributes.toleranceMode === 'relative'
    ? { by: 'relative', tolerance: String(Math.round(Number(plain) * 1e10) / 1e12) }
    : { by: 'absolute', tolerance: node.attributes.toleranceMode === 'absolute' ? plain : '0' }
}

/** The conditions of a response's own processing, with what each sets. */
export function conditionsFor(context: Context, identifier: string): { node: XmlElement; score: number }[] {
  const processing = childOf(context.item, 'responseProcessing')
  if (!processing) return []
  return [...within(processing, 'responseIf'), ...within(processing, 'responseElseIf')].flatMap((branch) => {
    const [condition] = childrenOf(branch)
    if (
      !condition ||
      !within({ name: '', attributes: {}, children: [condition] }, 'variable').some(
        (each) => each.attributes.identifier === identifier,
      )
    )
      return []
    const set = within(branch, 'setOutcomeValue')[0]
    return [{ node: condition, score: set ? numeric(textOf(set).trim(), 1) : 1 }]
  })
}

const asDecimal = (text: string): string =>
  /^(?:\{=[^{}]{1,210}\})$/.test(text.trim())
    ? text.trim()
    : /^-?\d{1,15}(\.\d{1,15})?$/.test(text.trim())
      ? text.trim()
      : Number.isFinite(Number(text)) && text.trim() !== ''
        ? String(Number(text))
        : refuse(`“${text.slice(0, 30)}” is not a number.`)

export function numberBody(context: Context, response: Declaration): Extract<Question, { kind: 'number' }>['body'] {
  const blank = blankQuestion('number').body as Extract<Question, { kind: 'number' }>['body']
  const conditions = conditionsFor(context, response.identifier).filter(
    ({ node }) => node.name === 'equal' || node.name === 'equalRounded',
  )
  const most = Math.max(1e-9, ...conditions.map((each) => each.score))
  const answers = conditions.map(({ node, score }) => {
    const literal = within(node, 'baseValue')[0]
    return {
      value: asDecimal(literal ? textOf(literal) : (response.correct[0] ?? '')),
      near: nearness(node),
      credit: hundredths(Math.min(1, Math.max(0, score / most))),
      comment: '',
    }
  })
  if (answers.length) return { ...blank, answers }
  if (response.mapping?.entries.length)
    return {
      ...blank,
      answers: response.mapping.entries.map((entry) => ({
        value: asDecimal(entry.key),
        near: { by: 'absolute', tolerance: '0' },
        credit: hundredths(Math.min(1, Math.max(0, entry.value))),
        comment: '',
      })),
    }
  return {
    ...blank,
    answers: [
      { value: asDecimal(response.correct[0] ?? ''), near: { by: 'absolute', tolerance: '0' }, credit: 1, comment: '' },
    ],
  }
}

/** A pattern that says no more than "is", "begins with", "contains" or "ends with" is read as that. */
function spoken(pattern: string): { how: 'is' | 'begins' | 'contains' | 'ends' | 'matches'; text: string } {
  const folded = pattern.replace(/\[(\p{L})(\p{L})\]/gu, (whole, a: string, b: string) =>
    a.toLowerCase() === b.toLowerCase() ? a : whole,
  )
  const literal = (part: string) =>
    /^(?:\\[\\^$.|?*+()[\]{}]|[^\\^$.|?*+()[\]{}])*$/.test(part) ? part.replace(/\\(.)/g, '$1') : null
  const found = /^(\.\*)?([\s\S]*?)(\.\*)?$/.exec(folded)!
  const text = literal(found[2]!)
  if (text === null || text === '') return { how: 'matches', text: pattern.slice(0, 200) }
  return { how: found[1] ? (found[3] ? 'contains' : 'ends') : found[3] ? 'begins' : 'is', text }
}

export function textBody(context: Context, response: Declaration): Extract<Question, { kind: 'text' }>['body'] {
  const blank = blankQuestion('text').body as Extract<Question, { kind: 'text' }>['body']
  const patterns = conditionsFor(context, response.identifier).filter(
    ({ node }) => node.name === 'patternMatch' || node.name === 'stringMatch',
  )
  const most = Math.max(
    1e-9,
    ...patterns.map((each) => each.score),
    ...(response.mapping?.entries.map((entry) => entry.value) ?? []),
  )
  const credit = (score: number) => hundredths(Math.min(1, Math.max(0, score / most)))
  if (response.mapping?.entries.length)
    return {
      ...blank,
      caseMatters: response.mapping.entries.some((entry) => entry.caseSensitive),
      answers: response.mapping.entries
        .slice(0, 40)
        .map((entry) => ({ how: 'is', text: entry.key.slice(0, 200), credit: credit(entry.value), comment: '' })),
    }
  if (patterns.length) {
    return {
      ...blank,
      caseMatters: patterns.some(({ node }) =>
        node.name === 'patternMatch'
          ? !/\[(\p{L})\p{L}\]/u.test(node.attributes.pattern ?? '')
          : node.attributes.caseSensitive === 'true',
      ),
      answers: patterns.slice(0, 40).map(({ node, score }) => ({
        ...(node.name === 'patternMatch'
          ? spoken(node.attributes.pattern ?? '')
          : {
              how: node.attributes.substring === 'true' ? ('contains' as const) : ('is' as const),
              text: textOf(within(node, 'baseValue')[0] ?? node)
                .trim()
                .slice(0, 200),
            }),
        credit: credit(score),
        comment: '',
      })),
    }
  }
  if (!response.correct.length) return refuse('The answer has no key that can be read.')
  return {
    ...blank,
    answers: response.correct.map((text) => ({ how: 'is', text: text.slice(0, 200), credit: 1, comment: '' })),
  }
}

export const isNumeric = (response: Declaration) => response.baseType === 'float' || response.baseType === 'integer'

/** A line to write on: a number, a text, or, where nothing says what is right, an answer that somebody marks. */
export function textEntryOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  if (!response.correct.length && !response.mapping && !conditionsFor(context, response.identifier).length)
    return byHandOf(context, node)
  return isNumeric(response)
    ? { kind: 'number', body: numberBody(context, response) }
    : { kind: 'text', body: textBody(context, response) }
}

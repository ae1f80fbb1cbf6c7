import type { TextBody } from '../../../core/question/kinds/text'
import { childrenOf, textOf, type XmlElement } from '../../xml'
import type { Declaration } from '../kinds/reading'
import { NotRead } from './chosen'

/** A text that a condition accepts. */
export type AcceptedText = Pick<TextBody['answers'][number], 'how' | 'text'> & {
  caseMatters: boolean
  accentsMatter: boolean
}

const plain = (letter: string) => letter.normalize('NFD').replace(/\p{Mn}/gu, '')

/** One letter in several forms, as a class of them: the letter, and which of its forms make no difference. */
function oneLetter(forms: readonly string[]): { letter: string; bothCases: boolean; accents: boolean } | null {
  const [first] = forms
  const bases = new Set(forms.map((each) => plain(each).toLowerCase()))
  if (first === undefined || forms.length < 2 || bases.size > 1 || forms.some((each) => !/\p{L}/u.test(each)))
    return null
  const sizes = new Set(forms.map((each) => each === each.toLowerCase()))
  const accents = new Set(forms.map((each) => each.toLowerCase())).size > 1
  const letter = forms.find((each) => each === plain(each)) ?? first
  return { letter: sizes.size > 1 ? letter.toLowerCase() : letter, bothCases: sizes.size > 1, accents }
}

/** A pattern that says no more than "is", "begins with", "contains" or "ends with" is read as that. */
export function spoken(pattern: string): AcceptedText {
  const asPattern: AcceptedText = { how: 'matches', text: pattern, caseMatters: true, accentsMatter: true }
  let [bothCases, accents, oneCase] = [false, false, false]
  const folded = pattern.replace(/\[([^\\\]^-]+)\]/gu, (whole, forms: string) => {
    const read = oneLetter([...forms])
    if (!read) return whole
    if (read.bothCases) bothCases = true
    else if (read.letter.toLowerCase() !== read.letter.toUpperCase()) oneCase = true
    accents ||= read.accents
    return read.letter
  })
  const found = /^(\.\*)?([\s\S]*?)(\.\*)?$/.exec(folded)!
  const text = literal(found[2]!)
  // Capitals that make no difference in some letters only are nothing that a text says.
  if (text === null || text === '' || (bothCases && (oneCase || /\p{Lu}/u.test(text)))) return asPattern
  return {
    how: found[1] ? (found[3] ? 'contains' : 'ends') : found[3] ? 'begins' : 'is',
    text,
    // A text without letters says nothing of capitals.
    caseMatters: !bothCases && text.toLowerCase() !== text.toUpperCase(),
    accentsMatter: !accents,
  }
}

const literal = (part: string) =>
  /^(?:\\[\\^$.|?*+()[\]{}-]|[^\\^$.|?*+()[\]{}])*$/.test(part) ? part.replace(/\\(.)/g, '$1') : null

function compared(node: XmlElement, response: Declaration): string {
  const other = childrenOf(node).find(
    (each) => each.name !== 'variable' || each.attributes.identifier !== response.identifier,
  )
  if (childrenOf(node).length !== 2 || !other) throw new NotRead('A comparison does not look at the answer itself.')
  if (other.name === 'baseValue') return textOf(other)
  if (other.name === 'correct' && other.attributes.identifier === response.identifier && response.correct.length === 1)
    return response.correct[0]!
  throw new NotRead('An answer is compared with something that is no text.')
}

/** Texts that a condition accepts, one after another. @throws NotRead */
export function acceptedTexts(node: XmlElement, response: Declaration): AcceptedText[] {
  const { caseSensitive = 'true', substring, pattern } = node.attributes
  const [first] = childrenOf(node)
  const isOwn = first?.name === 'variable' && first.attributes.identifier === response.identifier
  switch (node.name) {
    case 'or':
      return childrenOf(node).flatMap((each) => acceptedTexts(each, response))
    case 'and':
      // "Is answered, and …": an empty answer is never right here.
      return childrenOf(node)
        .filter((each) => !(each.name === 'not' && childrenOf(each)[0]?.name === 'isNull'))
        .map((each, _, all) => {
          if (all.length > 1) throw new NotRead('Several conditions have to hold at once.')
          return acceptedTexts(each, response)
        })
        .flat()
    case 'match':
      return [{ how: 'is', text: compared(node, response), caseMatters: true, accentsMatter: true }]
    case 'stringMatch':
      if (substring === 'true' && !isOwn) throw new NotRead('The answer is looked for in a text.')
      return [
        {
          how: substring === 'true' ? 'contains' : 'is',
          text: compared(node, response),
          caseMatters: caseSensitive !== 'false',
          accentsMatter: true,
        },
      ]
    case 'substring':
      if (isOwn) throw new NotRead('The answer is looked for in a text.')
      return [
        {
          how: 'contains',
          text: compared(node, response),
          caseMatters: caseSensitive !== 'false',
          accentsMatter: true,
        },
      ]
    case 'patternMatch':
      if (!isOwn || !pattern) throw new NotRead('A pattern does not look at the answer itself.')
      return [spoken(pattern)]
    default:
      throw new NotRead(`“${node.name}” is nothing that texts are compared by.`)
  }
}

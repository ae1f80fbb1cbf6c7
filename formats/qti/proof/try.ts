import { exact, type Fraction } from '../../../core/kit/exact'
import type { Question } from '../../../core/question'
import { kindOf } from '../../../core/question/kinds'
import { childrenOf, textOf, within, type XmlElement } from '../../xml'
import { NotProven, processingOf, type Processed, type Responses } from '../processing'
import { olderProcessingOf } from '../processing/older'
import { answersToTry } from './answers'
import { drawnFor } from './drawn'

/** An item, the question that it became or came from, and how an answer to it stands in the item. */
export interface Both {
  /** In the names of 2.x. */
  item: XmlElement
  question: Question
  responses: (answer: unknown) => Responses
  /** Of QTI 1.2 the item as it stands in its file: its own rules count. */
  older?: XmlElement | null
}

/** One answer, scored both ways. */
export interface Tried {
  /** The question as the paper has it that the answer is to. */
  instance: Question
  answer: unknown
  isEmpty: boolean
  given: Responses
  /** What it earns here, as a share of the points, and the part of the answer that earned it. */
  fraction: Fraction
  part: string | undefined
  processed: Processed
}

/** Texts and numbers that an item names in its keys and rules. */
function literalsIn(item: XmlElement): string[] {
  const declared = childrenOf(item, 'responseDeclaration')
  const rules = childrenOf(item, 'responseProcessing')
  const tolerances = rules.flatMap((each) =>
    within(each, 'equal').flatMap(({ attributes }) => (attributes.tolerance ?? '').split(/\s+/)),
  )
  return [
    ...new Set(
      [
        ...declared.flatMap((each) => within(each, 'value').map(textOf)),
        ...declared.flatMap((each) => within(each, 'mapEntry').map(({ attributes }) => attributes.mapKey ?? '')),
        ...rules.flatMap((each) => within(each, 'baseValue').map(textOf)),
        ...tolerances,
      ]
        .map((text) => text.trim())
        .filter(Boolean),
    ),
  ].slice(0, 60)
}

const olderLiteralsIn = (item: XmlElement): string[] =>
  ['varequal', 'varsubstring', 'vargt', 'vargte', 'varlt', 'varlte']
    .flatMap((name) => within(item, name).map((each) => textOf(each).trim()))
    .filter(Boolean)
    .slice(0, 60)

/** Kinds whose answers may be anything: what the file names is tried too. */
const typed: ReadonlySet<Question['kind']> = new Set(['number', 'text', 'gaps'] as const)

/** Answers scored both ways: each side by its own rules. @throws NotProven for what cannot be computed */
export function tryOut({ item, question, responses, older }: Both): Tried[] {
  const kind = kindOf(question.kind)
  const run = older ? olderProcessingOf(older) : processingOf(item)
  const isTyped = typed.has(question.kind)
  const literals = isTyped ? [...(older ? olderLiteralsIn(older) : []), ...literalsIn(item)] : []
  const drawn = drawnFor(question, item, 2)
  if (!drawn.length) throw new NotProven('Its variables take no values.')
  return drawn.flatMap(({ instance, drawn: values }) =>
    // Of a paper with values of its own fewer are tried: there are several papers.
    answersToTry(instance, literals)
      .slice(0, question.vary ? 16 : undefined)
      .flatMap((answer) => {
        // What a file names may be longer than anybody could answer; all else is made of the question itself.
        if (isTyped && !kind.answer.safeParse(answer).success) return []
        const isEmpty = kind.isEmpty(answer)
        const scored = isEmpty ? null : kind.score(instance.body, answer)
        const given = responses(answer)
        return [
          {
            instance,
            answer,
            isEmpty,
            given,
            fraction: scored?.fraction ?? exact(0),
            part: scored?.parts[0]?.part,
            processed: run(given, values),
          },
        ]
      }),
  )
}

import { sampleInstances, type Question } from '../../../core/question'
import { childrenOf, type XmlElement } from '../../xml'
import { nameFor } from '../expressions'

/** A question as one paper has it, with the values that were drawn for it under the names of the file. */
export interface Drawn {
  instance: Question
  drawn: ReadonlyMap<string, string>
}

/** Some papers of a question that varies; of one that does not, itself. */
export function drawnFor(question: Question, item: XmlElement, papers: number): Drawn[] {
  if (!question.vary) return [{ instance: question, drawn: new Map() }]
  const names = childrenOf(item, 'templateDeclaration').map((each) => each.attributes.identifier ?? '')
  return sampleInstances(question, papers).map(({ question: instance, values }) => ({
    instance,
    drawn: new Map(
      names.flatMap((name) => (Object.hasOwn(values, nameFor(name)) ? [[name, values[nameFor(name)]!] as const] : [])),
    ),
  }))
}

import { prove } from '../../formats/qti/proof/prove'
import { lostOf } from '../../formats/qti/proof/words'
import { fromAnyVersion } from '../../formats/qti/names'
import { readItemTree, type ReadItem } from '../../formats/qti/read'
import { readXml, type XmlElement } from '../../formats/xml'
import type { Proof } from '../../formats'

/** Items of QTI written by hand, in short. */
export const declare = (cardinality: string, baseType: string, inner = '', identifier = 'RESPONSE') =>
  `<responseDeclaration identifier="${identifier}" cardinality="${cardinality}" baseType="${baseType}">${inner}</responseDeclaration>`
export const correct = (...values: string[]) =>
  `<correctResponse>${values.map((value) => `<value>${value}</value>`).join('')}</correctResponse>`
export const mapping = (entries: Record<string, number | string>, bounds = 'defaultValue="0"') =>
  `<mapping ${bounds}>${Object.entries(entries)
    .map(([key, value]) => `<mapEntry mapKey="${key}" mappedValue="${value}"/>`)
    .join('')}</mapping>`
export const template = (name: string) =>
  `<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/${name}"/>`
export const rules = (...all: string[]) => `<responseProcessing>${all.join('')}</responseProcessing>`
export const variable = (identifier = 'RESPONSE') => `<variable identifier="${identifier}"/>`
export const correctly = (identifier = 'RESPONSE') => `<correct identifier="${identifier}"/>`
export const base = (type: string, value: string | number) => `<baseValue baseType="${type}">${value}</baseValue>`
export const set = (expression: string, outcome = 'SCORE') =>
  `<setOutcomeValue identifier="${outcome}">${expression}</setOutcomeValue>`
export const score = (value: number | string) => set(base('float', value))
export const add = (expression: string) => set(`<sum>${variable('SCORE')}${expression}</sum>`)
/** if, else if …, else: conditions with what they do; the last one may be without a condition. */
export const when = (...branches: ([condition: string, then: string] | [then: string])[]) =>
  `<responseCondition>${branches
    .map((branch, i) => {
      if (branch.length === 1) return `<responseElse>${branch[0]}</responseElse>`
      const name = i ? 'responseElseIf' : 'responseIf'
      return `<${name}>${branch[0]}${branch[1]}</${name}>`
    })
    .join('')}</responseCondition>`
export const matches = (identifier = 'RESPONSE', value = correctly(identifier)) =>
  `<match>${variable(identifier)}${value}</match>`
export const outcome = (identifier: string, cardinality: string, baseType: string, usual?: string) =>
  `<outcomeDeclaration identifier="${identifier}" cardinality="${cardinality}" baseType="${baseType}">${usual === undefined ? '' : `<defaultValue><value>${usual}</value></defaultValue>`}</outcomeDeclaration>`
export const choices = (all: Record<string, string>) =>
  Object.entries(all)
    .map(([id, words]) => `<simpleChoice identifier="${id}">${words}</simpleChoice>`)
    .join('')
export const choosing = (options: string, most = 1, prompt = '<prompt>Which?</prompt>', identifier = 'RESPONSE') =>
  `<choiceInteraction responseIdentifier="${identifier}" shuffle="false" maxChoices="${most}">${prompt}${options}</choiceInteraction>`
export const entry = (identifier = 'RESPONSE') => `<textEntryInteraction responseIdentifier="${identifier}"/>`

/** An item in the names of 2.x, as it is written. */
export const itemXml = (declarations: string, body: string, processing: string, more = '') =>
  `<?xml version="1.0" encoding="UTF-8"?>
<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="i" title="Example" adaptive="false" timeDependent="false">${declarations}${outcome('SCORE', 'single', 'float', '0')}<itemBody>${body}</itemBody>${processing}${more}</assessmentItem>`

export interface Looked extends ReadItem {
  tree: XmlElement
  proofs: (Proof | null)[]
  lost: string[]
}

/** Reads an item as a package would, and proves it. */
export function look(xml: string): Looked {
  const tree = fromAnyVersion(readXml(xml))
  const read = readItemTree(tree)
  return {
    ...read,
    tree,
    proofs: read.parts.map(({ question, responses }) => prove({ item: tree, question, responses })),
    lost: lostOf(
      tree,
      read.parts.map(({ question }) => question),
      [read.common ?? ''],
    ).words,
  }
}

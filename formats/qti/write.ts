import { kindOf, type Question } from '../../core/question'
import { element, type XmlElement } from '../xml'
import { mapElements, parseHtml } from './xhtml'
import { namespaces, templates, toVersion3, type QtiVersion } from './names'
import { withTemplate } from './template-write'
import { partsOf } from './kinds'
import { value } from './kinds/writing'

/** Maths as MathML is in no question's own text; its TeX travels in words between dollar signs, which every reader shows. */
const portable = (tree: XmlElement): XmlElement => ({
  ...tree,
  children: mapElements(tree.children, (node) =>
    node.attributes['data-latex'] !== undefined ? element('span', {}, `$${node.attributes['data-latex']}$`) : node,
  ),
})

/**
 * One question as an assessment item (1EdTech QTI). One that varies becomes an item with a template.
 * @param shared the stimulus that it refers to (2.2 and 3.0)
 * @throws NotSayable | ExpressionError where QTI cannot say how it varies: write an instance then
 */
export function writeItem(
  question: Question,
  identifier: string,
  version: QtiVersion,
  shared?: { identifier: string; href: string },
): XmlElement {
  const { declarations, body, processing } = partsOf(question)
  const outcomes = [
    element(
      'outcomeDeclaration',
      { identifier: 'SCORE', cardinality: 'single', baseType: 'float', normalMaximum: version === '2.1' ? null : 1 },
      element('defaultValue', {}, value(0)),
    ),
  ]
  const feedback = (
    [
      ['right', question.comments.right],
      ['wrong', question.comments.wrong],
      ['general', question.comments.general],
    ] as const
  ).filter(([, html]) => html)
  if (feedback.length || JSON.stringify(body).includes('feedbackInline'))
    outcomes.push(
      element('outcomeDeclaration', { identifier: 'FEEDBACK', cardinality: 'multiple', baseType: 'identifier' }),
    )
  const template = processing?.attributes.template
  if (template) processing!.attributes.template = templates(version, template as 'map_response')
  const tree = element(
    'assessmentItem',
    {
      identifier: identifier,
      title: question.internalName || kindOf(question.kind).label,
      adaptive: false,
      timeDependent: false,
      'xml:lang': question.language,
      toolName: 'Thistle',
      toolVersion: '1',
    },
    declarations,
    outcomes,
    shared ? element('assessmentStimulusRef', shared) : null,
    element('itemBody', {}, body),
    processing,
    feedback.map(([name, html]) =>
      element('modalFeedback', { outcomeIdentifier: 'FEEDBACK', identifier: name, showHide: 'show' }, parseHtml(html)),
    ),
  )
  const portableTree = portable(tree)
  const finished = question.vary ? withTemplate(portableTree, question.vary) : portableTree
  const named = version === '3.0' ? toVersion3(finished) : finished
  return { ...named, attributes: { xmlns: namespaces[version], ...named.attributes } }
}

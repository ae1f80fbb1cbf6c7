import render from 'dom-serializer'
import { Element, isTag, Text, type ChildNode, type Document } from 'domhandler'
import { parseDocument } from 'htmlparser2'

/** Stands where an equation stood; a sign of no language. */
export const equationMark = '\uE0E1'

const marked = () => new Element('w:r', {}, [new Element('w:t', {}, [new Text(equationMark)])])

/** Equations of a word processor (Office Math), which its texts are read without, as a mark where they stand. */
export function withoutEquations(xml: string): string {
  if (!xml.includes('oMath')) return xml
  const replaced = (node: ChildNode): ChildNode => {
    if (!isTag(node)) return node
    if (node.name === 'm:oMath' || node.name === 'm:oMathPara') return marked()
    node.children = node.children.map(replaced)
    return node
  }
  const whole: Document = parseDocument(xml, { xmlMode: true, decodeEntities: true })
  whole.children = whole.children.map(replaced)
  return render(whole, { xmlMode: true, encodeEntities: 'utf8' })
}

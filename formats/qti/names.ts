import { allowedTags } from '../../core/question/allowed-html'
import { isElement, type XmlElement } from '../xml'

/** Versions of QTI (1EdTech): 2.1 and 2.2 differ by namespace, 3.0 by the spelling of its names. */
export type QtiVersion = '2.1' | '2.2' | '3.0'

export const namespaces: Record<QtiVersion, string> = {
  '2.1': 'http://www.imsglobal.org/xsd/imsqti_v2p1',
  '2.2': 'http://www.imsglobal.org/xsd/imsqti_v2p2',
  '3.0': 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0',
}
export const templates = (version: QtiVersion, name: 'match_correct' | 'map_response' | 'map_response_point') =>
  version === '3.0'
    ? `https://purl.imsglobal.org/spec/qti/v3p0/rptemplates/${name}.xml`
    : `http://www.imsglobal.org/question/qti_v${version.replace('.', 'p')}/rptemplates/${name}`

/** Elements of XHTML and MathML that keep their names in every version. */
const plain = new Set<string>([...allowedTags, 'div', 'object', 'b', 'i'])

const kebab = (name: string) => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)
const camel = (name: string) => name.replace(/-([a-z])/g, (_whole, letter: string) => letter.toUpperCase())

/** A tree in the names of 2.x, spelled as 3.0 does: qti-simple-choice, response-identifier. */
export function toVersion3(tree: XmlElement): XmlElement {
  // Maths has names of its own, which no version changes.
  if (tree.name === 'math') return tree
  const isPlain = plain.has(tree.name)
  return {
    name: isPlain ? tree.name : `qti-${kebab(tree.name)}`,
    attributes: Object.fromEntries(
      Object.entries(tree.attributes).map(([name, value]) => [
        isPlain || name.includes(':') ? name : kebab(name),
        value,
      ]),
    ),
    children: tree.children.map((child) => (isElement(child) ? toVersion3(child) : child)),
  }
}

/** The other way: any version in the names of 2.x. */
export const fromAnyVersion = (tree: XmlElement): XmlElement =>
  tree.name.startsWith('qti-') ? fromVersion3(tree) : tree

function fromVersion3(tree: XmlElement): XmlElement {
  const own = tree.name.startsWith('qti-')
  return {
    name: own ? camel(tree.name.slice(4)) : tree.name,
    attributes: own
      ? Object.fromEntries(
          Object.entries(tree.attributes).map(([name, value]) => [
            name.startsWith('data-') ? name : camel(name),
            value,
          ]),
        )
      : tree.attributes,
    children: tree.children.map((child) => (isElement(child) ? fromVersion3(child) : child)),
  }
}

import { Parser } from 'htmlparser2'
import { element, isElement, writeXml, type XmlElement } from './xml'

/** HTML of a question as elements; what HTML leaves open is closed. */
export function parseHtml(source: string): (XmlElement | string)[] {
  const top = element('top')
  const open = [top]
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        const made = element(name, attributes)
        open.at(-1)!.children.push(made)
        open.push(made)
      },
      ontext(text) {
        open.at(-1)!.children.push(text)
      },
      onclosetag() {
        open.pop()
      },
    },
    { decodeEntities: true, lowerCaseTags: true },
  )
  parser.end(source)
  return top.children
}

/** Elements as HTML. */
export const toHtml = (nodes: readonly (XmlElement | string)[]): string =>
  nodes
    .map((node) => writeXml(node, true))
    .join('')
    .trim()

/** Every element mapped; a string or nothing may take its place. */
export function mapElements(
  nodes: readonly (XmlElement | string)[],
  map: (node: XmlElement) => XmlElement | string | null,
): (XmlElement | string)[] {
  return nodes.flatMap((node) => {
    if (!isElement(node)) return [node]
    const mapped = map({ ...node, children: mapElements(node.children, map) })
    return mapped === null ? [] : [mapped]
  })
}

/** Runs of inline nodes among blocks become paragraphs of their own; blank runs are left out. */
export function wrapInline(
  nodes: readonly (XmlElement | string)[],
  isInline: (node: XmlElement | string) => boolean,
  isBlank: (node: XmlElement | string) => boolean,
): (XmlElement | string)[] {
  const result: (XmlElement | string)[] = []
  let run: (XmlElement | string)[] = []
  const close = () => {
    if (run.some((node) => !isBlank(node))) result.push(element('p', {}, run))
    run = []
  }
  for (const node of nodes) {
    if (isInline(node)) run.push(node)
    else {
      close()
      result.push(node)
    }
  }
  close()
  return result
}

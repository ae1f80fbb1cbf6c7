import render from 'dom-serializer'
import { isTag, isText, type ChildNode } from 'domhandler'
import { escapeUTF8 } from 'entities'
import { parseDocument } from 'htmlparser2'
import { UnreadableFile } from '../bundle'
import { decodeXml } from '../text'

/** Letters of a sheet that are parsed at once: more than 20,000 questions have. */
const mostLetters = 40_000_000
const escaped = /&amp;(?:amp|lt|gt|quot|apos|#)/

/**
 * The library that reads spreadsheets undoes the escapes of texts that a formula gave, or that some programs write in that way,
 * twice: “&lt;p&gt;” in a question on HTML would be a tag. Such texts are escaped once more before.
 * @throws UnreadableFile for more than can be parsed at once
 */
export function withEscapes(files: ReadonlyMap<string, Uint8Array>): ReadonlyMap<string, Uint8Array> {
  return new Map(
    [...files].map(([name, data]) => {
      const xml = /^xl\/worksheets\/[^/]+\.xml$/i.test(name) ? decodeXml(data) : ''
      if (!xml.includes('"str"') || !escaped.test(xml)) return [name, data]
      if (xml.length > mostLetters)
        throw new UnreadableFile('A sheet of this spreadsheet is too large to be read. Part it.')
      const sheet = parseDocument(xml, { xmlMode: true, decodeEntities: true })
      sheet.children.forEach((node) => escapeIn(node, false))
      return [name, new TextEncoder().encode(render(sheet, { xmlMode: true, encodeEntities: 'utf8' }))]
    }),
  )
}

function escapeIn(node: ChildNode, inText: boolean): void {
  if (isText(node) && inText) node.data = escapeUTF8(node.data)
  if (!isTag(node)) return
  const isCell = node.name === 'c' || node.name.endsWith(':c')
  for (const child of node.children) escapeIn(child, isCell ? node.attribs.t === 'str' : inText)
}

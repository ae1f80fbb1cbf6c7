import { zip } from '../../formats/zip'

/** A run of text of a word processor's file. */
export const run = (text: string, bold = false) =>
  `<w:r>${bold ? '<w:rPr><w:b/></w:rPr>' : ''}<w:t xml:space="preserve">${text.replace(/&/g, '&amp;').replace(/</g, '&lt;')}</w:t></w:r>`
export const paragraph = (inner: string, style = '') =>
  `<w:p>${style ? `<w:pPr><w:pStyle w:val="${style}"/></w:pPr>` : ''}${inner}</w:p>`
export const heading = (level: number, text: string) => paragraph(run(text), `Heading${level}`)
/** An entry of a list. @param list 1 is a list of dots, 2 one of numbers */
export const entry = (inner: string, list: 1 | 2, level = 0) =>
  `<w:p><w:pPr><w:numPr><w:ilvl w:val="${level}"/><w:numId w:val="${list}"/></w:numPr></w:pPr>${inner}</w:p>`
export const table = (rows: string[][]) =>
  `<w:tbl>${rows.map((cells) => `<w:tr>${cells.map((cell) => `<w:tc>${paragraph(cell)}</w:tc>`).join('')}</w:tr>`).join('')}</w:tbl>`
/** A box to tick, as forms of word processors have it. */
export const box = (ticked: boolean) =>
  `<w:sdt><w:sdtPr><w14:checkbox><w14:checked w14:val="${ticked ? 1 : 0}"/></w14:checkbox></w:sdtPr><w:sdtContent>${run(ticked ? '☒' : '☐')}</w:sdtContent></w:sdt>`
export const equation = (text: string) => `<m:oMath><m:r><m:t>${text}</m:t></m:r></m:oMath>`
/** A picture, by the name of its relation. */
export const picture = (id: string) =>
  `<w:r><w:drawing><wp:inline><wp:docPr id="1" name="p" descr="A buoy"/><a:graphic><a:graphicData><pic:pic><pic:blipFill><a:blip r:embed="${id}"/></pic:blipFill></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing></w:r>`
export const footnoteMark = '<w:r><w:footnoteReference w:id="2"/></w:r>'

const namespaces = [
  'w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"',
  'r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"',
  'm="http://schemas.openxmlformats.org/officeDocument/2006/math"',
  'a="http://schemas.openxmlformats.org/drawingml/2006/main"',
  'pic="http://schemas.openxmlformats.org/drawingml/2006/picture"',
  'wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing"',
  'w14="http://schemas.microsoft.com/office/word/2010/wordml"',
]
  .map((each) => `xmlns:${each}`)
  .join(' ')
const head = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>'
const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships'

/** A word processor's file (Office Open XML), as small as one can be. @param media by their names: "p.png" */
export function docx(body: string, media: ReadonlyMap<string, Uint8Array> = new Map()): Uint8Array {
  const level = (format: string, at: number) =>
    `<w:lvl w:ilvl="${at}"><w:start w:val="1"/><w:numFmt w:val="${format}"/><w:lvlText w:val="%1"/></w:lvl>`
  const numbering = ['bullet', 'decimal']
    .map(
      (format, i) =>
        `<w:abstractNum w:abstractNumId="${i + 1}">${[0, 1, 2].map((at) => level(format, at)).join('')}</w:abstractNum>`,
    )
    .join('')
  const styles = [1, 2, 3].map(
    (n) => `<w:style w:type="paragraph" w:styleId="Heading${n}"><w:name w:val="heading ${n}"/></w:style>`,
  )
  const relations = [
    ['rn', `${office}/numbering`, 'numbering.xml'],
    ['rs', `${office}/styles`, 'styles.xml'],
    ['rf', `${office}/footnotes`, 'footnotes.xml'],
    ...[...media.keys()].map((name) => [name, `${office}/image`, `media/${name}`]),
  ]
  const text = (inner: string) => new TextEncoder().encode(`${head}${inner}`)
  return zip(
    new Map([
      [
        '[Content_Types].xml',
        text(
          '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="png" ContentType="image/png"/></Types>',
        ),
      ],
      [
        '_rels/.rels',
        text(
          `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="${office}/officeDocument" Target="word/document.xml"/></Relationships>`,
        ),
      ],
      [
        'word/_rels/document.xml.rels',
        text(
          `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${relations.map(([id, type, target]) => `<Relationship Id="${id}" Type="${type}" Target="${target}"/>`).join('')}</Relationships>`,
        ),
      ],
      ['word/document.xml', text(`<w:document ${namespaces}><w:body>${body}</w:body></w:document>`)],
      [
        'word/numbering.xml',
        text(
          `<w:numbering ${namespaces}>${numbering}${[1, 2].map((n) => `<w:num w:numId="${n}"><w:abstractNumId w:val="${n}"/></w:num>`).join('')}</w:numbering>`,
        ),
      ],
      ['word/styles.xml', text(`<w:styles ${namespaces}>${styles.join('')}</w:styles>`)],
      [
        'word/footnotes.xml',
        text(
          `<w:footnotes ${namespaces}><w:footnote w:id="2">${paragraph(run('See the tables.'))}</w:footnote></w:footnotes>`,
        ),
      ],
      ...[...media].map(([name, bytes]) => [`word/media/${name}`, bytes] as const),
    ]),
  )
}

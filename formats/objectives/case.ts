import { fromMarkdown } from 'mdast-util-from-markdown'
import { z } from 'zod'
import { digestOf, UnreadableFile } from '../bundle'
import { textOf } from '../markdown/html'
import { most, withoutCircles, type KeptObjective, type PortableObjective } from './portable'

const uri = z.object({ identifier: z.string().min(1).max(200), title: z.string().nullish() })
/** Of a CASE package (1EdTech Competencies and Academic Standards Exchange, v1.0 and v1.1), what objectives need; the rest is kept. */
const casePackage = z.object({
  CFDocument: z.looseObject({ identifier: z.string().max(200), title: z.string().default('') }),
  CFItems: z
    .array(
      z.looseObject({
        identifier: z.string().min(1).max(200),
        fullStatement: z.string().min(1),
        humanCodingScheme: z.string().nullish(),
      }),
    )
    .max(most, 'A file has at most 10,000 objectives.'),
  CFAssociations: z
    .array(
      z.object({
        associationType: z.string().max(80),
        originNodeURI: uri,
        destinationNodeURI: uri,
        sequenceNumber: z.number().nullish(),
      }),
    )
    .max(100_000)
    .default([]),
})
type Link = z.infer<typeof casePackage>['CFAssociations'][number]

/** Statements are in Markdown: its marks are not shown, its words are whole. It is one line: nothing in it begins a list or a heading. */
export function plainStatement(statement: string): string {
  const line = statement.replace(/\s+/g, ' ').trim()
  if (!/[*_`[<&\\]/.test(line)) return line.slice(0, 1000)
  const words = textOf(fromMarkdown(`x ${line}`))
    .slice(2)
    .replace(/\s+/g, ' ')
    .trim()
  return (words || line).slice(0, 1000)
}

const byOrder = (a: Link, b: Link) => (a.sequenceNumber ?? 0) - (b.sequenceNumber ?? 0)
/** What is kept of an item beside, so long as it is no burden. */
const restOf = (whole: Record<string, unknown>, out: readonly string[]): Record<string, unknown> => {
  const rest = Object.fromEntries(Object.entries(whole).filter(([name]) => !out.includes(name)))
  return JSON.stringify(rest).length <= 8000 ? rest : {}
}
const ours = ['identifier', 'uri', 'humanCodingScheme', 'CFDocumentURI', 'lastChangeDateTime']

/**
 * Reads a CASE package: its items; "isChildOf" (or, where there is none, "isPartOf") as the tree, the first parent by its order; "precedes"
 * as what has to be reached first. Further parents, all other associations and fields are kept for writing it back.
 * @throws UnreadableFile
 */
export function readCase(source: unknown): PortableObjective[] {
  const read = casePackage.safeParse(source)
  if (!read.success)
    throw new UnreadableFile(
      `This is not a CASE package that can be read: ${read.error.issues[0]?.path.join(' › ') ?? ''} ${read.error.issues[0]?.message ?? ''}`,
    )
  const { CFItems: items, CFAssociations: links, CFDocument: document } = read.data
  const known = new Set(items.map((item) => item.identifier))
  const from = new Map<string, Link[]>()
  const needs = new Map<string, string[]>()
  for (const link of links) {
    const [origin, destination] = [link.originNodeURI.identifier, link.destinationNodeURI.identifier]
    from.set(origin, [...(from.get(origin) ?? []), link])
    if (link.associationType === 'precedes' && known.has(origin) && known.has(destination))
      needs.set(destination, [...(needs.get(destination) ?? []), origin])
  }
  const linksOf = (name: string) => from.get(name) ?? []
  const parentOf = (name: string): Link | undefined => {
    const up = (type: string) =>
      linksOf(name)
        .filter((link) => link.associationType === type && known.has(link.destinationNodeURI.identifier))
        .sort(byOrder)[0]
    return up('isChildOf') ?? up('isPartOf')
  }
  /** Its place among those beside it: by its parent, or by the document. */
  const place = (name: string) =>
    (parentOf(name) ?? linksOf(name).find((link) => link.associationType === 'isChildOf'))?.sequenceNumber ?? 0
  const kept = (item: (typeof items)[number]): KeptObjective => {
    const parent = parentOf(item.identifier)
    const others = linksOf(item.identifier).filter(
      (link) =>
        link !== parent &&
        !(link.associationType === 'isChildOf' && link.destinationNodeURI.identifier === document.identifier) &&
        !(link.associationType === 'precedes' && known.has(link.destinationNodeURI.identifier)),
    )
    return {
      links: others.slice(0, 40).map((link) => ({
        type: link.associationType,
        to: link.destinationNodeURI.identifier,
        title: link.destinationNodeURI.title ?? '',
        sequence: link.sequenceNumber ?? null,
      })),
      item: restOf(item, ours),
      document: restOf(document, ['CFPackageURI', 'lastChangeDateTime']),
    }
  }
  return withoutCircles(
    [...items]
      .sort((a, b) => place(a.identifier) - place(b.identifier))
      .map((item) => ({
        name: item.identifier,
        parent: parentOf(item.identifier)?.destinationNodeURI.identifier ?? null,
        code: (item.humanCodingScheme ?? '').trim().slice(0, 40),
        title: plainStatement(item.fullStatement),
        essential: false,
        needs: needs.get(item.identifier) ?? [],
        kept: kept(item),
      })),
  )
}

/** An identifier in the shape of a UUID, always the same for the same name. */
const uuidFor = (name: string): string => {
  if (/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(name)) return name
  const hex = digestOf(new TextEncoder().encode(name))
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}

/** The statement as it came, as long as it still says what the title says. */
function statementOf({ title, kept }: PortableObjective): string {
  const written = kept?.item.fullStatement
  return typeof written === 'string' && plainStatement(written) === title ? written : title
}

/** Objectives as a CASE package (v1.0). @param title of the document, such as the school's name */
export function writeCase(objectives: readonly PortableObjective[], title: string, changedAt: string): string {
  const document = uuidFor(`document:${title}`)
  const link = (identifier: string, words: string) => ({
    title: words.slice(0, 80),
    identifier,
    uri: `urn:uuid:${identifier}`,
  })
  const titles = new Map(objectives.map((each) => [each.name, each.title]))
  const of = (name: string) => link(uuidFor(name), titles.get(name) ?? title)
  // Licence, version and whatever else the document of the first that came from one says.
  const came = objectives.find(({ kept }) => kept)?.kept?.document ?? {}
  const association = (type: string, from: string, to: ReturnType<typeof link>, sequenceNumber: number | null) => {
    const identifier = uuidFor(`${type}:${from}:${to.identifier}`)
    return {
      identifier,
      uri: `urn:uuid:${identifier}`,
      associationType: type,
      sequenceNumber,
      originNodeURI: of(from),
      destinationNodeURI: to,
      lastChangeDateTime: changedAt,
    }
  }
  return JSON.stringify(
    {
      CFDocument: {
        ...came,
        identifier: document,
        uri: `urn:uuid:${document}`,
        CFPackageURI: link(document, title),
        creator: came.creator ?? title,
        title,
        lastChangeDateTime: changedAt,
      },
      CFItems: objectives.map((each) => ({
        ...each.kept?.item,
        identifier: uuidFor(each.name),
        uri: `urn:uuid:${uuidFor(each.name)}`,
        CFDocumentURI: link(document, title),
        fullStatement: statementOf(each),
        humanCodingScheme: each.code,
        lastChangeDateTime: changedAt,
      })),
      CFAssociations: [
        ...objectives.map((each, i) =>
          association('isChildOf', each.name, each.parent === null ? link(document, title) : of(each.parent), i + 1),
        ),
        ...objectives.flatMap((each) =>
          each.needs.map((need, i) => association('precedes', need, of(each.name), i + 1)),
        ),
        ...objectives.flatMap((each) =>
          (each.kept?.links ?? []).map(({ type, to, title: words, sequence }) =>
            association(type, each.name, titles.has(to) ? of(to) : link(to, words), sequence),
          ),
        ),
      ],
    },
    null,
    2,
  )
}

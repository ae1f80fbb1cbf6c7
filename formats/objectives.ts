import Papa from 'papaparse'
import { z } from 'zod'
import { digestOf, UnreadableFile } from './bundle'
import { decodeText } from './text'

/** An objective as files describe it. */
export interface PortableObjective {
  /** What the file calls it: objectives of the file name each other so. */
  name: string
  parent: string | null
  code: string
  title: string
  essential: boolean
  /** Those that have to be reached first. */
  needs: string[]
}

const most = 10_000
const uri = z.object({ identifier: z.string().min(1).max(200) })
/** Of a CASE package (1EdTech Competencies and Academic Standards Exchange, v1.0 and v1.1), what objectives need. */
const casePackage = z.object({
  CFDocument: z.object({ identifier: z.string().max(200), title: z.string().default('') }),
  CFItems: z
    .array(
      z.object({
        identifier: z.string().min(1).max(200),
        fullStatement: z.string().min(1),
        humanCodingScheme: z.string().nullish(),
        abbreviatedStatement: z.string().nullish(),
      }),
    )
    .max(most, 'A file has at most 10,000 objectives.'),
  CFAssociations: z
    .array(
      z.object({
        associationType: z.string(),
        originNodeURI: uri,
        destinationNodeURI: uri,
        sequenceNumber: z.number().nullish(),
      }),
    )
    .max(100_000)
    .default([]),
})

/** Markdown's marks are not shown in titles. */
const plain = (text: string) =>
  text
    .replace(/[*_`#]+/g, '')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 1000)

/**
 * Reads a CASE package: its items, "isChildOf" as the tree, "precedes" as what has to be reached first.
 * @throws UnreadableFile
 */
export function readCase(source: unknown): PortableObjective[] {
  const read = casePackage.safeParse(source)
  if (!read.success)
    throw new UnreadableFile(
      `This is not a CASE package that can be read: ${read.error.issues[0]?.path.join(' › ') ?? ''} ${read.error.issues[0]?.message ?? ''}`,
    )
  const { CFItems: items, CFAssociations: links } = read.data
  const known = new Set(items.map((item) => item.identifier))
  const between = (type: string) =>
    links.filter(
      (link) =>
        link.associationType === type &&
        known.has(link.originNodeURI.identifier) &&
        known.has(link.destinationNodeURI.identifier),
    )
  const childOf = between('isChildOf')
  const parents = new Map(childOf.map((link) => [link.originNodeURI.identifier, link.destinationNodeURI.identifier]))
  const place = new Map(
    links
      .filter((link) => link.associationType === 'isChildOf')
      .map((link) => [link.originNodeURI.identifier, link.sequenceNumber ?? 0]),
  )
  const needs = new Map<string, string[]>()
  for (const link of between('precedes'))
    needs.set(link.destinationNodeURI.identifier, [
      ...(needs.get(link.destinationNodeURI.identifier) ?? []),
      link.originNodeURI.identifier,
    ])
  return withoutCircles(
    [...items]
      .sort((a, b) => (place.get(a.identifier) ?? 0) - (place.get(b.identifier) ?? 0))
      .map((item) => ({
        name: item.identifier,
        parent: parents.get(item.identifier) ?? null,
        code: (item.humanCodingScheme ?? '').trim().slice(0, 40),
        title: plain(item.fullStatement),
        essential: false,
        needs: needs.get(item.identifier) ?? [],
      })),
  )
}

const deepest = 30
/** Parents before their children; what lies under itself is put at the top. @throws UnreadableFile for a tree that is too deep */
function withoutCircles(objectives: PortableObjective[]): PortableObjective[] {
  const byName = new Map(objectives.map((each) => [each.name, each]))
  const isCircular = (start: PortableObjective): boolean => {
    const seen = new Set<string>()
    for (
      let at: PortableObjective | undefined = start;
      at;
      at = at.parent === null ? undefined : byName.get(at.parent)
    ) {
      if (seen.has(at.name)) return true
      seen.add(at.name)
      if (seen.size > deepest)
        throw new UnreadableFile(`These objectives lie more than ${deepest} deep within one another.`)
    }
    return false
  }
  const sound = objectives.map((each) => (isCircular(each) ? { ...each, parent: null } : each))
  const childrenOf = new Map<string | null, PortableObjective[]>()
  for (const each of sound) childrenOf.set(each.parent, [...(childrenOf.get(each.parent) ?? []), each])
  const under = (parent: string | null): PortableObjective[] =>
    (childrenOf.get(parent) ?? []).flatMap((each) => [each, ...under(each.name)])
  return under(null)
}

const columns = ['code', 'title', 'parent', 'essential', 'needs'] as const

/** Reads CSV with the columns code, title, parent, essential, needs; parents and needs are codes, several needs parted by |. @throws UnreadableFile */
export function readObjectivesCsv(text: string): PortableObjective[] {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim().toLowerCase(),
  })
  const missing = ['code', 'title'].filter((column) => !meta.fields?.includes(column))
  if (missing.length)
    throw new UnreadableFile(
      `The first line lacks the column ${missing.join(' and ')}. The columns are ${columns.join(', ')}.`,
    )
  if (data.length > most) throw new UnreadableFile('A file has at most 10,000 objectives.')
  const rows = data.map(
    (row) =>
      Object.fromEntries(columns.map((column) => [column, (row[column] ?? '').trim()])) as Record<
        (typeof columns)[number],
        string
      >,
  )
  const codes = new Set(rows.map((row) => row.code))
  const faults = rows.flatMap((row, i) => [
    ...(row.code === '' ? [`Line ${i + 2} has no code.`] : []),
    ...(row.title === '' ? [`Line ${i + 2} has no title.`] : []),
    ...[row.parent, ...row.needs.split('|')]
      .map((code) => code.trim())
      .filter((code) => code !== '' && !codes.has(code))
      .map((code) => `Line ${i + 2} names “${code}”, which the file does not hold.`),
  ])
  if (faults.length) throw new UnreadableFile(faults.slice(0, 5).join(' '))
  if (codes.size < rows.length) throw new UnreadableFile('Two lines have the same code.')
  return withoutCircles(
    rows.map((row) => ({
      name: row.code,
      parent: row.parent || null,
      code: row.code.slice(0, 40),
      title: plain(row.title),
      essential: /^(yes|y|true|1|x)$/i.test(row.essential),
      needs: row.needs
        .split('|')
        .map((code) => code.trim())
        .filter(Boolean),
    })),
  )
}

/** Reads objectives: a CASE package in JSON, or CSV. @throws UnreadableFile */
export function readObjectives(bytes: Uint8Array): PortableObjective[] {
  const text = decodeText(bytes)
  if (text.includes('\u0000')) throw new UnreadableFile('This is neither a CASE package in JSON nor CSV.')
  if (
    !text
      .trimStart()
      .replace(/^\uFEFF/, '')
      .startsWith('{')
  )
    return readObjectivesCsv(text)
  let read: unknown
  try {
    read = JSON.parse(text)
  } catch {
    throw new UnreadableFile('This JSON is broken.')
  }
  return readCase(read)
}

export const writeObjectivesCsv = (objectives: readonly PortableObjective[]): string =>
  Papa.unparse({
    fields: [...columns],
    data: objectives.map((each) => [
      each.code,
      each.title,
      each.parent ?? '',
      each.essential ? 'yes' : '',
      each.needs.join('|'),
    ]),
  })

/** An identifier in the shape of a UUID, always the same for the same name. */
const uuidFor = (name: string): string => {
  if (/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(name)) return name
  const hex = digestOf(new TextEncoder().encode(name))
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}

/** Objectives as a CASE package (v1.0). @param title of the document, such as the school's name */
export function writeCase(objectives: readonly PortableObjective[], title: string, changedAt: string): string {
  const document = uuidFor(`document:${title}`)
  const link = (identifier: string, words: string) => ({
    title: words.slice(0, 80),
    identifier,
    uri: `urn:uuid:${identifier}`,
  })
  const of = (name: string) => link(uuidFor(name), objectives.find((each) => each.name === name)?.title ?? title)
  const association = (type: string, from: string, to: ReturnType<typeof link>, sequenceNumber: number) => {
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
        identifier: document,
        uri: `urn:uuid:${document}`,
        CFPackageURI: link(document, title),
        creator: title,
        title,
        lastChangeDateTime: changedAt,
      },
      CFItems: objectives.map((each) => ({
        identifier: uuidFor(each.name),
        uri: `urn:uuid:${uuidFor(each.name)}`,
        CFDocumentURI: link(document, title),
        fullStatement: each.title,
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
      ],
    },
    null,
    2,
  )
}

import { childOf, childrenOf, readXml, textOf, within, type XmlElement } from '../../xml'
import { decodeXml } from '../../text'

/** What a manifest says of one file of a package (IMS Content Packaging 1.1; 1EdTech QTI packages). */
export interface Resource {
  /** As the manifest names it, with its bases before it. */
  href: string
  what: 'item' | 'test' | 'stimulus' | 'unknown'
  /** Thistle's own words beside it. */
  settings: string | null
  described: Described
}

/** What metadata says of an item (IEEE 1484.12.1 learning object metadata). */
export interface Described {
  tags: string[]
  /** 1 to 5. */
  difficulty: number | null
  seconds: number | null
}

/** "items/../media/a.png" as seen from a file; a sign that is no escape stays as it stands. */
export function resolve(from: string, to: string): string {
  const parts = from.split('/').slice(0, -1)
  for (const part of unescaped(to.split(/[?#]/)[0]!).split(/[\\/]/)) {
    if (part === '..') parts.pop()
    else if (part !== '.' && part !== '') parts.push(part)
  }
  return parts.join('/')
}

function unescaped(path: string): string {
  try {
    return decodeURIComponent(path)
  } catch {
    return path
  }
}

const difficulties = ['very easy', 'easy', 'medium', 'difficult', 'very difficult']
/** "PT1M30S" in seconds (ISO 8601). */
function secondsOf(duration: string): number | null {
  const found = /^PT(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?$/.exec(duration.trim())
  const seconds = found ? Number(found[1] ?? 0) * 3600 + Number(found[2] ?? 0) * 60 + Number(found[3] ?? 0) : 0
  return seconds >= 5 && seconds <= 7200 ? Math.round(seconds) : null
}

function describedBy(resource: XmlElement): Described {
  const metadata = childOf(resource, 'metadata')
  if (!metadata) return { tags: [], difficulty: null, seconds: null }
  const words = (name: string) =>
    within(metadata, name)
      .map((each) => textOf(each).trim())
      .filter(Boolean)
  const level = difficulties.indexOf(
    (words('difficulty')[0] ?? '')
      .toLowerCase()
      .replace(/^lomv1\.0\s*/, '')
      .trim(),
  )
  return {
    tags: [...new Set(words('keyword').map((each) => each.slice(0, 40)))].slice(0, 20),
    difficulty: level < 0 ? null : level + 1,
    seconds: secondsOf(words('typicalLearningTime')[0] ?? ''),
  }
}

const kindOf = (type: string): Resource['what'] => {
  const found = /imsqti_(?:apip)?(item|test|stimulus|section)/i.exec(type)?.[1]?.toLowerCase()
  return found === 'item' || found === 'test' || found === 'stimulus' ? found : 'unknown'
}

/** The resources of a package, bases and all; of one without a manifest, every XML file that there is. */
export function resourcesOf(files: ReadonlyMap<string, Uint8Array>): Resource[] {
  const nothing: Described = { tags: [], difficulty: null, seconds: null }
  const name = [...files.keys()]
    .filter((each) => /(^|[\\/])imsmanifest\.xml$/i.test(each))
    .sort((a, b) => a.length - b.length)[0]
  if (name === undefined)
    return [...files.keys()]
      .filter((each) => /\.(xml|qti)$/i.test(each))
      .sort()
      .map((href) => ({ href, what: 'unknown', settings: null, described: nothing }))
  const manifest = readXml(decodeXml(files.get(name)!))
  const based = (node: XmlElement, before: string) => {
    const { base } = node.attributes
    return base === undefined ? before : `${resolve(before, base)}${base.endsWith('/') ? '/' : ''}`
  }
  const whole = based(manifest, name)
  return within(manifest, 'resources').flatMap((resources) => {
    const outer = based(resources, whole)
    return childrenOf(resources, 'resource').flatMap((each): Resource[] => {
      const base = based(each, outer)
      const listed = childrenOf(each, 'file').map(({ attributes }) => attributes.href ?? '')
      const href = each.attributes.href ?? listed.find((file) => /\.(xml|qti)$/i.test(file)) ?? ''
      const what = kindOf(each.attributes.type ?? '')
      const settings = within(each, 'settings').map(textOf)[0] ?? null
      // What is no XML is media; an assessment is read by what it is, whatever its type says.
      if (!href || (what === 'unknown' && !settings && !/\.(xml|qti|dat)$/i.test(href))) return []
      const called = what === 'unknown' && settings ? 'stimulus' : what
      return [{ href: resolve(base, href), what: called, settings, described: describedBy(each) }]
    })
  })
}

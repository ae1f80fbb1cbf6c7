import katex from 'katex'
import { MathMLToLaTeX } from 'mathml-to-latex'
import { isElement, readXml, textOf, within, writeXml, type XmlElement } from '../../xml'
import { looksLikeMaths } from '../../maths'

const texTypes = new Set(['application/x-tex', 'tex', 'latex', 'application/x-latex', 'text/x-tex'])
const drawable = (tex: string): boolean => {
  try {
    katex.renderToString(tex, { output: 'mathml', throwOnError: true, strict: 'ignore', trust: false, maxExpand: 200 })
    return true
  } catch {
    return false
  }
}

/** Without prefixes and namespaces: the converter looks at plain names. */
const bare = (node: XmlElement): XmlElement => ({
  name: node.name,
  attributes: node.attributes,
  children: node.children.map((child) => (isElement(child) ? bare(child) : child)),
})

/** MathML as TeX: the TeX that stands beside it, or what it says; null where it cannot be put so. */
export function texOf(math: XmlElement): string | null {
  const beside = within(math, 'annotation').find(({ attributes }) =>
    texTypes.has((attributes.encoding ?? '').trim().toLowerCase()),
  )
  const written = beside && textOf(beside).trim()
  if (written && drawable(written)) return written
  try {
    const tex = MathMLToLaTeX.convert(writeXml(bare(withoutAnnotations(math)))).trim()
    return tex !== '' && drawable(tex) ? tex : null
  } catch {
    return null
  }
}

const withoutAnnotations = (node: XmlElement): XmlElement => ({
  ...node,
  children: node.children.flatMap((child): (XmlElement | string)[] =>
    !isElement(child) ? [child] : child.name.startsWith('annotation') ? [] : [withoutAnnotations(child)],
  ),
})

/** TeX as MathML with the TeX beside it; null where KaTeX cannot read it. */
export function mathsOf(tex: string): XmlElement | null {
  try {
    const html = katex.renderToString(tex, {
      output: 'mathml',
      throwOnError: true,
      strict: 'ignore',
      trust: false,
      maxExpand: 200,
    })
    const [math] = within(readXml(html), 'math')
    return { name: 'math', attributes: { xmlns: 'http://www.w3.org/1998/Math/MathML' }, children: math!.children }
  } catch {
    return null
  }
}

/** Texts with maths between dollar signs, as the editor keeps it. Markup is never looked into: TeX is not torn by tags. */
export function withDollars(text: string): (XmlElement | string)[] {
  const parts: (XmlElement | string)[] = []
  let from = 0
  for (const found of text.matchAll(/(?<![\\$])\$(?=[^\s$])([^$\n]{1,300}?)(?<=\S)\$(?!\d)/g)) {
    if (!looksLikeMaths(found[1]!)) continue
    parts.push(text.slice(from, found.index), mathsSpan(found[1]!))
    from = found.index + found[0].length
  }
  return [...parts, text.slice(from)].filter((part) => part !== '')
}

/** A piece of maths as the editor writes it. */
export const mathsSpan = (tex: string): XmlElement => ({
  name: 'span',
  attributes: { 'data-type': 'inline-math', 'data-latex': tex },
  children: [],
})

import { blankQuestion } from '../../../../core/question'
import { childrenOf, isElement, type XmlElement } from '../../../xml'
import { mapElements } from '../../xhtml'
import { hundredths, refuse, htmlOf, inlineHtml, type Context, type Found, declared, idOf } from '../reading'

export function pairsOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const [left, right] = childrenOf(node, 'simpleMatchSet').map((set) => childrenOf(set, 'simpleAssociableChoice'))
  if (!left || !right) return refuse('A matching lacks one of its sides.')
  const strip = (id: string, mark: string) => (id.startsWith(mark) ? id.slice(mark.length) : id)
  const named = (choices: XmlElement[], mark: string) =>
    choices.map((each, i) => ({
      written: each.attributes.identifier ?? '',
      id: /^[a-zA-Z0-9_-]{1,24}$/.test(strip(each.attributes.identifier ?? '', mark))
        ? strip(each.attributes.identifier ?? '', mark)
        : `${mark}${i}`,
      html: inlineHtml(each),
    }))
  const [items, targets] = [named(left, 'i_'), named(right, 't_')]
  const rightPairs = response.correct.length
    ? response.correct
    : (response.mapping?.entries.filter((entry) => entry.value > 0).map((entry) => entry.key) ?? [])
  const targetOf = (item: string) =>
    targets.find((target) => rightPairs.includes(`${item} ${target.written}`))?.id ?? null
  const once = right.every((each) => each.attributes.matchMax === '1')
  const worths = response.mapping?.entries.filter((entry) => entry.value > 0).map((entry) => entry.value) ?? []
  if (new Set(worths).size > 1) context.notes.push('Its pairs weigh differently; here each counts the same.')
  const worth = worths[0] ?? 1
  return {
    kind: once ? 'matching' : 'sorting',
    body: {
      wrongCost: hundredths(Math.min(1, Math.max(0, -(response.mapping?.wrong ?? 0) / worth))),
      items: items.map(({ id, html, written }) => ({ id, html, comment: '', target: targetOf(written) })),
      targets: targets.map(({ id, html }) => ({ id, html })),
    },
  } as Found
}

/** Words that are drawn into gaps: a list in each gap holds all of them. */
export function gapMatchOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const words = childrenOf(node, 'gapText').map((each, i) => ({
    written: each.attributes.identifier ?? '',
    id: idOf(each, i),
    html: inlineHtml(each),
  }))
  if (!words.length) return refuse('Pictures that are drawn into gaps have no like here.')
  if ((response.mapping?.wrong ?? 0) < 0) context.notes.push('A wrong word takes nothing away here.')
  const gaps: unknown[] = []
  const text = mapElements(
    node.children.filter((child) => !isElement(child) || (child.name !== 'gapText' && child.name !== 'prompt')),
    (child) => {
      if (child.name !== 'gap') return child
      const written = child.attributes.identifier ?? ''
      const value = (word: string) =>
        response.mapping?.entries.find((entry) => entry.key === `${word} ${written}`)?.value ??
        (response.correct.includes(`${word} ${written}`) ? 1 : 0)
      const most = Math.max(0, ...words.map((word) => value(word.written)))
      const id = `g${gaps.length + 1}`
      gaps.push({
        id,
        weight: most > 0 ? hundredths(most) : 1,
        as: 'list',
        body: {
          ...blankQuestion('choice').body,
          inOrder: false,
          options: words.map(({ written: word, ...each }) => ({
            ...each,
            comment: '',
            fixed: false,
            credit: most > 0 ? hundredths(Math.max(0, value(word)) / most) : 0,
          })),
        },
      })
      return { name: 'span', attributes: { 'data-gap': id }, children: [] }
    },
  )
  if (!gaps.length) return refuse('There is no gap in its text.')
  return { kind: 'gaps', body: { text: htmlOf(text), gaps } } as Found
}

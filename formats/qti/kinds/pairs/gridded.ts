import { childrenOf, textOf, type XmlElement } from '../../../xml'
import { casesOf } from '../../scoring/terms'
import { found, type Found } from '../reading'
import { creditsOf, ruleOf, type Cell } from './rule'
import { pairBy, wholeWorth, type Sides } from './sides'

/** The boxes of each row that are right, where every row that is right as a whole earns the same; null for anything else. */
function wholeRows({ context, response, left, right, pair }: Sides): { right: string[][]; worth: number } | null {
  const terms = context.score?.terms.filter((term) => term.responses.includes(response.identifier)) ?? []
  const read = terms.map((term) => {
    const { cases, otherwise } = casesOf(term) ?? { cases: [], otherwise: 1 }
    const [only] = cases
    return cases.length === 1 && otherwise === 0 ? { boxes: boxesIn(only!.condition), worth: only!.worth } : null
  })
  const rows = left.map((row) => {
    const names = right.map((column) => pair(row, column))
    const own = read.filter(
      (each) => each?.boxes?.size === names.length && names.every((name) => each.boxes!.has(name)),
    )
    return own.length === 1
      ? { ...own[0]!, ticked: right.filter((_, i) => own[0]!.boxes!.get(names[i]!)).map(({ id }) => id) }
      : null
  })
  const [first] = rows
  return first && terms.length === left.length && rows.every((row) => row && row.worth === first.worth)
    ? { right: rows.map((row) => row!.ticked), worth: first.worth * rows.length }
    : null
}

/** Boxes that a condition wants ticked, or not ticked; null where it wants anything else. */
function boxesIn(condition: XmlElement): Map<string, boolean> | null {
  const boxes = new Map<string, boolean>()
  for (const part of condition.name === 'and' ? childrenOf(condition) : [condition]) {
    const member = part.name === 'not' ? childrenOf(part)[0] : part
    const [name, among] = member?.name === 'member' ? childrenOf(member) : []
    if (name?.name !== 'baseValue' || among?.name !== 'variable') return null
    boxes.set(textOf(name).trim().split(/\s+/).join(' '), part.name !== 'not')
  }
  return boxes
}

/** Rows in which any number of columns can be ticked. */
export function gridded(sides: Sides, inOrder: boolean): Found {
  const { response, left, right, worth, whole } = sides
  const byRow = whole ? null : wholeRows(sides)
  const rows = left.map((a) => {
    const worths = right.map((b) => worth(a, b))
    return { a, cells: right.map((b, i): Cell => ({ a, b, worth: worths[i]!, keyed: worths[i]! > 0 })) }
  })
  const rule = ruleOf(
    byRow ? { ...sides, whole: true } : sides,
    rows.flatMap(({ cells }) => cells),
    true,
    true,
  )
  const back = pairBy(sides)
  return found(
    'grid',
    {
      inOrder,
      rule: whole ? 'all' : byRow ? 'rows' : rule.rule,
      wrongCost: whole || byRow ? 0 : rule.wrongCost,
      lower: rule.lower,
      upper: rule.upper,
      rows: rows.map(({ a, cells }, i) => ({
        id: a.id,
        html: a.html,
        comment: '',
        right: byRow ? byRow.right[i]! : cells.filter(({ keyed }) => keyed).map(({ b }) => b.id),
        ...creditsOf(rule, cells),
      })),
      columns: right.map(({ id, html }) => ({ id, html })),
    },
    whole ? wholeWorth(sides) : (byRow?.worth ?? rule.most),
    ({ ticks }: { ticks: Record<string, string[]> }) => ({
      [response.identifier]: Object.entries(ticks).flatMap(([row, columns]) =>
        columns.flatMap((column) => back(row, column)),
      ),
    }),
  )
}

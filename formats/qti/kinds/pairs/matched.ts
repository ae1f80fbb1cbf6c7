import { uncountable } from '../../../../core/question/kinds/pairs-guesses'
import { found, hundredths, type Found } from '../reading'
import { creditsOf, ruleOf, type Cell } from './rule'
import { pairBy, wholeWorth, type Sides } from './sides'

/** Each on the left goes with one on the right, or with none. */
export function matched(sides: Sides): Found {
  const { response, left, right, worth, pair, once, whole } = sides
  const belongs = left.map((item) => {
    const worths = right.map((target) => worth(item, target))
    const best = Math.max(...worths)
    const bests = right.filter((_, i) => worths[i] === best)
    // Of several that earn the same, the one that the file shows as its key.
    const target = bests.find((each) => response.correct.includes(pair(item, each))) ?? bests[0]!
    return {
      item,
      best,
      target: best > 0 ? target : null,
      cells: right.map((b, i): Cell => ({ a: item, b, worth: worths[i]!, keyed: best > 0 && b === target })),
    }
  })
  const cells = belongs.flatMap((each) => each.cells)
  const rule = ruleOf(sides, cells, false, !once || !uncountable({ items: left, targets: right }))
  const all = belongs.reduce((sum, { best }) => sum + Math.max(0, best), 0)
  const earning = belongs.filter(({ target }) => target).length
  const average = all / Math.max(1, earning)
  const worths = new Set(belongs.filter(({ target }) => target).map(({ best }) => hundredths(best / average)))
  const weighs = rule.rule === 'share' && worths.size > 1
  const back = pairBy(sides)
  return found(
    once ? 'matching' : 'sorting',
    {
      rule: whole ? 'all' : rule.rule,
      wrongCost: whole ? 0 : rule.wrongCost,
      lower: rule.lower,
      upper: rule.upper,
      items: belongs.map(({ item, best, target, cells: own }) => ({
        id: item.id,
        html: item.html,
        comment: '',
        target: target?.id ?? null,
        ...(target && weighs ? { weight: Math.max(0.01, hundredths(best / (whole ? 1 : weightUnit(belongs)))) } : {}),
        ...creditsOf(rule, own),
      })),
      targets: right.map(({ id, html }) => ({ id, html })),
    },
    whole ? wholeWorth(sides) : rule.most,
    ({ pairs }: { pairs: Record<string, string> }) => ({
      [response.identifier]: Object.entries(pairs).flatMap(([from, to]) => back(from, to)),
    }),
  )
}

/** Weights are told in the smallest that there is, unless that makes them too large. */
const weightUnit = (belongs: readonly { best: number }[]) => {
  const most = Math.max(...belongs.map(({ best }) => best))
  return most > 100 ? most / 100 : 1
}

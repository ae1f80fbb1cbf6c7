import { exact, sum } from '../../../../core/kit/exact'
import type { Question } from '../../../../core/question'
import { allTicks } from '../../../../core/question/kinds/grid'
import { allCredits, placesOf } from '../../../../core/question/kinds/pairs-score'
import { element, type XmlElement } from '../../../xml'
import { contentNodes } from '../../content/write'
import {
  adding,
  asked,
  base,
  creditMapping,
  declaration,
  decimal,
  firstOf,
  mappedBy,
  mapping,
  matched,
  variable,
  worth,
  type Parts,
} from '../writing'

/** One side of a matching; a mark before its names keeps the sides apart. */
const side = (
  entries: readonly { id: string; html: string }[],
  mark: string,
  matchMax: number,
  fixed: boolean | null = null,
) =>
  element(
    'simpleMatchSet',
    {},
    entries.map((entry) =>
      element('simpleAssociableChoice', { identifier: mark + entry.id, matchMax, fixed }, contentNodes(entry.html)),
    ),
  )
const holds = (pair: string) => element('member', {}, base('directedPair', pair), variable('RESPONSE'))

/** Pairs that have a credit of their own. */
const named = (
  left: readonly { id: string; credits?: Record<string, number> }[],
  right: readonly { id: string }[],
  pairOf: (left: string, right: string) => string,
) =>
  left.flatMap(({ id, credits = {} }) =>
    right
      .filter((each) => Object.hasOwn(credits, each.id))
      .map((each) => ({ key: pairOf(id, each.id), credit: credits[each.id]! })),
  )

const noneOf = (conditions: readonly XmlElement[]): XmlElement =>
  element('not', {}, conditions.length === 1 ? conditions : element('or', {}, conditions))

export function pairs(question: Extract<Question, { kind: 'matching' | 'sorting' }>): Parts {
  const { items, targets, wrongCost, rule } = question.body
  const belonging = items.filter((item) => item.target !== null)
  const weighs = ({ weight = 1 }: (typeof items)[number]) => exact(weight)
  const all = sum(belonging.map(weighs))
  const pairOf = (item: string, target: string) => `i_${item} t_${target}`
  const { above, prompt } = asked(question)
  const cost = exact(wrongCost).div(Math.max(1, belonging.length)).neg()
  const mapped = () =>
    rule === 'credits'
      ? creditMapping(question, allCredits(question.body), named(items, targets, pairOf), -wrongCost)
      : mapping(
          belonging.map((item) => ({
            key: pairOf(item.id, item.target!),
            worth: worth(question, all.equals(0) ? 0 : weighs(item).div(all)),
          })),
          { lower: 0, usual: worth(question, cost) },
        )
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'multiple',
        'directedPair',
        belonging.map((item) => pairOf(item.id, item.target!)),
        rule === 'all' ? null : mapped(),
      ),
    ],
    body: [
      ...above,
      element(
        'matchInteraction',
        { responseIdentifier: 'RESPONSE', shuffle: true, maxAssociations: items.length },
        prompt,
        side(items, 'i_', 1),
        side(targets, 't_', question.kind === 'matching' ? 1 : 0),
      ),
    ],
    template: rule === 'all' ? 'match_correct' : 'map_response',
    rules: rule === 'all' ? matched(question) : mappedBy('mapResponse'),
    comments: items
      .filter(({ comment, target }) => comment && target !== null)
      .map((item) => ({
        html: item.comment,
        when: noneOf(placesOf(question.body, item).map((place) => holds(pairOf(item.id, place)))),
      })),
    responses: ({ pairs: given }: { pairs: Record<string, string> }) => ({
      RESPONSE: Object.entries(given).map(([item, target]) => pairOf(item, target)),
    }),
  }
}

/** Rows that take any number of columns. */
export function grid(question: Extract<Question, { kind: 'grid' }>): Parts {
  const { rows, columns, inOrder, rule, wrongCost } = question.body
  const pairOf = (row: string, column: string) => `r_${row} c_${column}`
  const right = rows.flatMap((row) => row.right.map((column) => pairOf(row.id, column)))
  const mapped = () =>
    rule === 'credits'
      ? creditMapping(question, allTicks(question.body), named(rows, columns, pairOf), -wrongCost)
      : mapping(
          right.map((key) => ({ key, worth: worth(question, each) })),
          { lower: 0, usual: worth(question, each.mul(exact(wrongCost)).neg()) },
        )
  const each = exact(1).div(Math.max(1, right.length))
  const rowIsRight = (row: (typeof rows)[number]): XmlElement =>
    element(
      'and',
      {},
      columns.map((column) => {
        const has = holds(pairOf(row.id, column.id))
        return row.right.includes(column.id) ? has : element('not', {}, has)
      }),
    )
  const { above, prompt } = asked(question)
  return {
    declarations: [
      declaration(
        'RESPONSE',
        'multiple',
        'directedPair',
        right,
        rule === 'share' || rule === 'credits' ? mapped() : null,
      ),
    ],
    body: [
      ...above,
      element(
        'matchInteraction',
        { responseIdentifier: 'RESPONSE', shuffle: !inOrder, maxAssociations: 0 },
        prompt,
        side(rows, 'r_', 0),
        side(columns, 'c_', 0, inOrder ? null : true),
      ),
    ],
    ...(rule === 'rows' ? {} : { template: rule === 'all' ? ('match_correct' as const) : ('map_response' as const) }),
    rules:
      rule === 'all'
        ? matched(question)
        : rule !== 'rows'
          ? mappedBy('mapResponse')
          : rows.map((row) =>
              firstOf([
                {
                  condition: rowIsRight(row),
                  then: adding(base('float', decimal(exact(question.points).div(rows.length)))),
                },
              ]),
            ),
    comments: rows
      .filter(({ comment }) => comment)
      .map((row) => ({ html: row.comment, when: element('not', {}, rowIsRight(row)) })),
    responses: ({ ticks }: { ticks: Record<string, string[]> }) => ({
      RESPONSE: Object.entries(ticks).flatMap(([row, ticked]) => ticked.map((column) => pairOf(row, column))),
    }),
  }
}

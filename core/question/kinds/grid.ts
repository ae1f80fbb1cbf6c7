import { z } from 'zod'
import { certain, gathered, summed, type Chances } from '../../kit/chances'
import { choose, share } from '../../kit/counting'
import { Fraction, atLeast, exact, sum } from '../../kit/exact'
import { plainText } from '../allowed-html'
import {
  credit,
  creditBounds,
  creditIn,
  inHundredths,
  mostOf,
  noBounds,
  nothingToEarn,
  shareOf,
  sharesOf,
  spreadOf,
  stepped,
  wrongCost,
} from './credits'
import type { Kind } from './kind'
import { closeMarked, openMarked, optionBase, optionFaults, sealedOptions } from './options'

const mostRows = 40
const mostColumns = 12

export const gridBody = z.strictObject({
  rows: z
    .array(
      optionBase.omit({ fixed: true }).extend({
        /** Columns that are right in this row; none may be. */
        right: z.array(z.string().max(24)).max(mostColumns),
        /** What each tick adds under the rule “credits”, by column; one that is not named costs as every wrong one. */
        credits: z.record(z.string().max(24), credit).optional(),
      }),
    )
    .max(mostRows, `A grid has at most ${mostRows} rows.`),
  columns: z
    .array(optionBase.pick({ id: true, html: true }))
    .max(mostColumns, `A grid has at most ${mostColumns} columns.`),
  /** Rows keep their order when options are shuffled. Columns always do. */
  inOrder: z.boolean().default(false),
  /** A share for every tick that is right, or for every row that is right as a whole, or everything only for all, or what each tick adds. */
  rule: z.enum(['share', 'rows', 'all', 'credits']).default('share'),
  /** What a wrong tick takes away: as a share of what a right one earns, or under “credits” a credit. */
  wrongCost,
  ...creditBounds,
})
export type GridBody = z.infer<typeof gridBody>
type Row = GridBody['rows'][number]

export const gridAnswer = z.strictObject({
  ticks: z
    .record(z.string().max(24), z.array(z.string().max(24)).max(mostColumns))
    .refine((ticks) => Object.keys(ticks).length <= mostRows, `A grid has at most ${mostRows} rows.`),
})
export type GridAnswer = z.infer<typeof gridAnswer>

/** Ids of rows and columns share one list on a paper; the mark before them keeps them apart. */
const rowId = (id: string) => `r.${id}`
const columnId = (id: string) => `c.${id}`

const tickedIn = (body: GridBody, row: Row, { ticks }: GridAnswer): Set<string> =>
  new Set((ticks[row.id] ?? []).filter((id) => body.columns.some((column) => column.id === id)))
const isRight = (row: Row, ticked: ReadonlySet<string>) =>
  ticked.size === row.right.length && row.right.every((id) => ticked.has(id))

/** Ticks that are right in the whole grid. */
const rightIn = (body: GridBody) => body.rows.reduce((sum, row) => sum + row.right.length, 0)

/** What a tick adds under the rule “credits”. */
export const tickCredit = ({ wrongCost }: GridBody, { credits }: Row, column: string): number =>
  creditIn(credits, column, wrongCost)
/** All that right ticks add under the rule “credits”. */
export const allTicks = (body: GridBody): Fraction =>
  sum(body.rows.flatMap((row) => row.right.map((column) => exact(tickCredit(body, row, column)))))

function ofTicks(body: GridBody, right: number, wrong: number): Fraction {
  const all = rightIn(body)
  if (all === 0) return new Fraction(0)
  if (body.rule === 'all') return new Fraction(right === all && wrong === 0 ? 1 : 0)
  return atLeast(0, new Fraction(right).sub(exact(body.wrongCost).mul(wrong)).div(all))
}

function fractionOf(body: GridBody, answer: GridAnswer): Fraction {
  const ticked = body.rows.map((row) => tickedIn(body, row, answer))
  if (body.rule === 'rows')
    return body.rows.length
      ? new Fraction(body.rows.filter((row, i) => isRight(row, ticked[i]!)).length, body.rows.length)
      : new Fraction(0)
  if (body.rule === 'credits')
    return shareOf(
      body,
      allTicks(body),
      sum(body.rows.flatMap((row, i) => [...ticked[i]!].map((column) => exact(tickCredit(body, row, column))))),
    )
  const right = body.rows.reduce((sum, row, i) => sum + row.right.filter((id) => ticked[i]!.has(id)).length, 0)
  return ofTicks(body, right, ticked.reduce((sum, set) => sum + set.size, 0) - right)
}

/** Any set of ticks but none at all is as likely as any other. */
function guesses(body: GridBody): Chances {
  const [n, m] = [body.rows.length, body.columns.length]
  const cells = n * m
  if (cells === 0) return certain(0)
  const sets = 2n ** BigInt(cells) - 1n
  if (body.rule === 'rows') {
    const others = 2n ** BigInt(m) - 1n
    const blankRight = body.rows.filter((row) => !row.right.length).length
    return gathered(
      Array.from({ length: n + 1 }, (_, k) => [
        new Fraction(k, n),
        share(choose(n, k) * others ** BigInt(n - k) - (k === blankRight ? 1n : 0n), sets),
      ]),
    )
  }
  if (body.rule === 'credits') return guessesByCredit(body)
  const right = rightIn(body)
  return gathered(
    Array.from({ length: right + 1 }, (_, r) => r).flatMap((r) =>
      Array.from({ length: cells - right + 1 }, (_, w) => w)
        .filter((w) => r + w > 0)
        .map((w) => [ofTicks(body, r, w), share(choose(right, r) * choose(cells - right, w), sets)] as const),
    ),
  )
}

/** Each box by itself is ticked or not: sums of credits, less the one way that ticks nothing. */
function guessesByCredit(body: GridBody): Chances {
  const boxes = body.rows.flatMap((row) => body.columns.map(({ id }) => [inHundredths(tickCredit(body, row, id))]))
  const { step, rows } = stepped(boxes, spreadOf(boxes))
  const nothing = 2 ** -boxes.length
  const sums = summed(
    rows
      .flat()
      .filter((box) => box !== 0)
      .map((box) => [
        [0, 0.5],
        [box, 0.5],
      ]),
  )
  return sharesOf(
    body,
    inHundredths(allTicks(body)),
    sums.map(([sum, chance]) => [sum * step, (chance - (sum === 0 ? nothing : 0)) / (1 - nothing)] as const),
  )
}

/** Credits that say something else than the key that is shown. */
function creditFaults(body: GridBody): string[] {
  const faults: string[] = []
  body.rows.forEach((row, i) => {
    for (const { id, html } of body.columns) {
      const credit = tickCredit(body, row, id)
      const name = `“${plainText(html).slice(0, 40)}” in Row ${i + 1}`
      if (row.right.includes(id) && credit <= 0) faults.push(`${name} is right, but ticking it earns nothing.`)
      if (!row.right.includes(id) && credit > 0) faults.push(`${name} earns credit, but is not right.`)
    }
  })
  if (!faults.length && mostOf(body, allTicks(body)).compare(0) <= 0) faults.push(nothingToEarn)
  return faults
}

/**
 * The same grid by credits, which score as shares did; of the other rules it is begun with one for each right tick. What was
 * by credits before another rule was looked at is taken up again.
 */
export const byCredits = (body: GridBody): GridBody =>
  body.rows.some(({ credits }) => credits)
    ? { ...body, rule: 'credits' }
    : {
        ...body,
        ...noBounds,
        rule: 'credits',
        wrongCost: body.rule === 'share' ? body.wrongCost : 0,
        rows: body.rows.map((row) => ({ ...row, credits: Object.fromEntries(row.right.map((column) => [column, 1])) })),
      }

const solutionOf = (body: GridBody): GridAnswer => ({
  ticks: Object.fromEntries(body.rows.filter((row) => row.right.length).map((row) => [row.id, row.right])),
})

function words(body: GridBody, answer: GridAnswer): string {
  return body.rows
    .flatMap((row) => {
      const ticked = tickedIn(body, row, answer)
      const names = body.columns.filter(({ id }) => ticked.has(id)).map(({ html }) => plainText(html))
      return names.length ? [`${plainText(row.html)} – ${names.join(', ')}`] : []
    })
    .join(' · ')
}

/** Ids changed in both directions; what is not known falls away. */
function mapIds(
  { ticks }: GridAnswer,
  row: (id: string) => string | undefined,
  column: (id: string) => string | undefined,
): GridAnswer {
  return {
    ticks: Object.fromEntries(
      Object.entries(ticks).flatMap(([from, columns]) => {
        const to = row(from)
        const kept = [...new Set(columns.flatMap((id) => column(id) ?? []))]
        return to === undefined || !kept.length ? [] : [[to, kept]]
      }),
    ),
  }
}
/** Rows in which any number of columns is ticked (QTI matchInteraction whose rows take several). */
export const grid: Kind<GridBody, GridAnswer> = {
  name: 'grid',
  label: 'Grid',
  body: gridBody,
  answer: gridAnswer,
  blank: () => ({
    rows: ['a', 'b', 'c'].map((id) => ({ id, html: '', comment: '', right: [] })),
    columns: ['x', 'y'].map((id) => ({ id, html: '' })),
    inOrder: false,
    rule: 'share',
    wrongCost: 1,
    ...noBounds,
  }),
  faults(body) {
    const faults = [...optionFaults(body.rows, 2, 'Row'), ...optionFaults(body.columns, 2, 'Column')]
    if (rightIn(body) === 0) faults.push('No tick is right. Say where ticks belong.')
    if (body.rows.some((row) => row.right.some((id) => !body.columns.some((column) => column.id === id))))
      faults.push('A tick belongs to a column that is gone.')
    else if (body.rule === 'credits') faults.push(...creditFaults(body))
    return faults
  },
  keylessFaults: (body) => [...optionFaults(body.rows, 2, 'Row'), ...optionFaults(body.columns, 2, 'Column')],
  options: (body) => [
    ...body.rows.map(({ id }) => ({ id: rowId(id), fixed: body.inOrder, list: 'rows' })),
    ...body.columns.map(({ id }) => ({ id: columnId(id), fixed: true, list: 'columns' })),
  ],
  score: (body, answer) => ({
    fraction: fractionOf(body, answer),
    parts: body.rows.map((row) => ({ part: row.id, right: isRight(row, tickedIn(body, row, answer)) })),
  }),
  isEmpty: ({ ticks }) => Object.values(ticks).every((columns) => !columns.length),
  guessable: () => null,
  guesses,
  seal: (body, placed) => ({
    asks: 'grid',
    rows: sealedOptions(
      body.rows.map(({ id, html }) => ({ id: rowId(id), html })),
      placed,
    ),
    columns: sealedOptions(
      body.columns.map(({ id, html }) => ({ id: columnId(id), html })),
      placed,
    ),
  }),
  open: (answer, placed) => mapIds(answer, openMarked(placed, rowId('')), openMarked(placed, columnId(''))),
  close: (answer, placed) => mapIds(answer, closeMarked(placed, rowId('')), closeMarked(placed, columnId(''))),
  solution: solutionOf,
  keyText: (body) => words(body, solutionOf(body)),
  answerText: words,
  comments: (body, answer) =>
    body.rows.filter((row) => row.comment && !isRight(row, tickedIn(body, row, answer))).map((row) => row.comment),
  mapHtml: (body, map) => ({
    ...body,
    rows: body.rows.map((row) => ({
      ...row,
      html: map(row.html, `row:${row.id}`),
      comment: map(row.comment, `row:${row.id}:comment`),
    })),
    columns: body.columns.map((column) => ({ ...column, html: map(column.html, `column:${column.id}`) })),
  }),
}

import type { AnswerCheckRow, AnswerRow } from '../../database/tables'
import { checkVerdict, type CheckVerdict, type Helped } from '../../../core/marking'
import type { Paper } from '../../../core/paper'
import type { Edition, Rules } from '../../../core/quiz'
import { same } from '../../../core/quiz/edits/paths'
import type { Db } from '../../database/database'
import { readResponse } from '../../documents/read'
import { commentsOn, hintsOn } from '../reviews/paper-view'

/** What one question of a sitting has been helped with, as its student sees it. */
export interface ItemHelp {
  checks: number
  /** How many checks there may still be; null for as many as wanted. */
  left: number | null
  /** Of the last check. */
  verdict: CheckVerdict | null
  comments: string[]
  /** Nothing in it can be changed any more. */
  settled: boolean
  hints: string[]
  hintsLeft: number
}
export interface Help {
  rule: Rules['working']
  items: Record<string, ItemHelp>
}

type Row = Pick<AnswerRow, 'item' | 'response' | 'checks' | 'hints' | 'settled'>
interface Checked {
  rows: Row[]
  /** The last check of each. */
  last: Map<string, { response: unknown; fraction: string }>
}

async function loadChecked(db: Db, attempt: string): Promise<Checked> {
  const rows = await db.rows<Row>('SELECT item, response, checks, hints, settled FROM answer WHERE attempt_id = ?', [
    attempt,
  ])
  if (!rows.some(({ checks }) => checks)) return { rows, last: new Map() }
  const checks = await db.rows<AnswerCheckRow>('SELECT * FROM answer_check WHERE attempt_id = ? ORDER BY number', [
    attempt,
  ])
  return {
    rows,
    last: new Map(checks.map((row) => [row.item, { response: readResponse(row.response), fraction: row.fraction }])),
  }
}

/** What each answer of an attempt was helped with, for its marks. */
export async function helpedIn(db: Db, attempt: string): Promise<Map<string, Helped>> {
  const { rows, last } = await loadChecked(db, attempt)
  return new Map(
    rows.flatMap(({ item, response, checks, hints }): [string, Helped][] =>
      checks || hints
        ? [
            [
              item,
              {
                checks,
                hints,
                changedSince:
                  checks > 0 && response !== null && !same(readResponse(response), last.get(item)!.response),
              },
            ],
          ]
        : [],
    ),
  )
}

/** The help that a sitting's rules allow, with what was asked of it; null where they allow none. */
export async function helpFor(
  db: Db,
  attempt: { id: string; language: string | null },
  { working: rule, counts }: Rules,
  paper: Paper,
  edition: Edition,
): Promise<Help | null> {
  if (counts === 'survey' || (!rule.check && !rule.hints)) return null
  const { rows, last } = await loadChecked(db, attempt.id)
  const places = new Map(paper.items.map((item) => [item.id, item]))
  return {
    rule,
    items: Object.fromEntries(
      rows.map((row): [string, ItemHelp] => {
        const place = places.get(row.item)!
        const found = last.get(row.item)
        // What was said of an answer is not said of another one.
        const checked = found && same(readResponse(row.response), found.response) ? found : undefined
        const hints = rule.hints ? hintsOn(edition, place, attempt.language) : []
        return [
          row.item,
          {
            checks: row.checks,
            left: rule.tries === null ? null : Math.max(0, rule.tries - row.checks),
            verdict: checked ? checkVerdict(checked.fraction) : null,
            comments:
              checked && rule.check && rule.comments
                ? commentsOn(edition, place, checked.response, attempt.language)
                : [],
            settled: Boolean(row.settled),
            hints: hints.slice(0, row.hints),
            hintsLeft: Math.max(0, hints.length - row.hints),
          },
        ]
      }),
    ),
  }
}

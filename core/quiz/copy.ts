import { DateTime } from 'luxon'
import { fromLocal, toLocal } from '../kit/local-time'
import type { Instant } from '../kit/time'
import { facetNames } from '../release/names'
import { usualRules } from '../rules'
import { ofOneQuiz } from '../rules/sets'
import type { Content, Quiz, Row, Rules } from './schema'
import { gives, questionsOf } from './walk'

/** An instant so many days later by the school's clock: nine in the evening stays nine in the evening (semantics, head). */
export function daysLater(at: Instant, days: number, zone: string): Instant {
  const local = toLocal(at, zone)
  const moved = DateTime.fromISO(local, { zone: 'utc' }).plus({ days }).toFormat("yyyy-MM-dd'T'HH:mm")
  const rest = Date.parse(at) % 60_000
  return rest ? new Date(Date.parse(fromLocal(moved, zone)) + rest).toISOString() : fromLocal(moved, zone)
}

/** Rules on other days; what was closed at once by hand is open again. */
export function movedRules(rules: Rules, days: number, zone: string): Rules {
  const move = <T extends Instant | null>(at: T): T => (at === null ? at : (daysLater(at, days, zone) as T))
  const release = Object.fromEntries(
    facetNames.map((name) => {
      const facet = rules.release[name]
      const { from } = facet
      return [
        name,
        {
          ...facet,
          from: from.at === 'instant' ? { ...from, instant: move(from.instant) } : from,
          until: move(facet.until),
        },
      ]
    }),
  ) as Rules['release']
  return {
    ...rules,
    release,
    link: null,
    windows: withoutLink(rules).map((window) => ({
      ...window,
      opens: move(window.opens),
      closes: move(window.closes),
      due: move(window.due),
      latestStart: move(window.latestStart),
      closedAt: null,
      password: null,
    })),
  }
}

/** Windows without those who came by the quiz's link: a copy has no link before it is given one. */
function withoutLink({ windows, link }: Rules): Rules['windows'] {
  if (!link) return windows
  return windows
    .map((window) => ({ ...window, classes: window.classes.filter((each) => each !== link.audience) }))
    .filter(({ classes, groups, students }) => classes.length + groups.length + students.length > 0)
}

/** Content without some questions: rows that would be left empty go, and none draws more than it still holds. */
export function withoutQuestions(content: Content, gone: ReadonlySet<string>): Content {
  if (!gone.size) return content
  return {
    ...content,
    sections: content.sections.map((section) => ({
      ...section,
      rows: section.rows.flatMap((row): Row[] => {
        const left = questionsOf(row).filter((question) => !gone.has(question))
        if (!gives(row)) return [row]
        if (row.type === 'pool' && row.condition) return [row]
        if (!left.length) return []
        return row.type === 'question' ? [row] : [{ ...row, questions: left, draw: Math.min(row.draw, left.length) }]
      }),
    })),
  }
}

export interface CopyAs {
  title: string
  /** With its rules, windows and classes; without them a new quiz's usual ones. */
  withRules: boolean
  /** Days by which its dates are moved, by the school's clock. */
  days: number
  zone: string
}

/** A quiz once more, under another title and on other days. @param gone questions that do not come along */
export function copyOf({ content, rules }: Quiz, as: CopyAs, gone: ReadonlySet<string> = new Set()): Quiz {
  return {
    content: { ...withoutQuestions(content, gone), title: as.title },
    rules: as.withRules ? movedRules(rules, as.days, as.zone) : usualRules,
  }
}

/** Rules without what belongs to those who work in the quiz: their windows and classes, and its password. */
export const withoutOwn = (rules: Rules): Rules => ({
  ...rules,
  ...Object.fromEntries(ofOneQuiz.map((name) => [name, usualRules[name]])),
})

import type { StandinKeeperChoiceRow, StandinKeeperFaultRow, StandinKeeperGrantRow } from '../../database/tables'
import { plus, type Instant } from '../../../core/kit/time'
import { fromSql, toSql } from '../../database/codec'
import type { Database } from '../../database/database'
import { federation, federationCorrections } from './federation'
import type { Delivery, Grant, Keeper, ListedBank } from './keeper'
import { weatherBook } from './weather-book'

const day = 24 * 60 * 60 * 1000

interface KeptBank extends ListedBank {
  text: string
  corrections: Record<number, string>
  /** Milliseconds from asking until its people have said yes. */
  decidesIn: number
  publishedAt: Instant
}

const parted = (text: string) => text.split(/\n---\n/)
const bank = (about: Omit<KeptBank, 'questions'>): KeptBank => ({ ...about, questions: parted(about.text).length })

const kept: KeptBank[] = [
  bank({
    bank: 'harrow-bay',
    name: 'Shore-based theory',
    keeper: 'Harrow Bay Federation of Sailing Schools',
    about: 'Rules of the road, safety and buoyage for courses on land. Granted at once to every school.',
    days: 365,
    decidesIn: 0,
    text: federation,
    corrections: federationCorrections,
    publishedAt: '2026-01-12T09:00:00.000Z',
  }),
  bank({
    bank: 'weather-book',
    name: 'Weather at sea, the questions of the book',
    keeper: 'Lantern and Lee, publishers',
    about: 'For schools that teach with the book. Granted when somebody at the publisher has looked at it.',
    days: 180,
    decidesIn: 60_000,
    text: weatherBook,
    corrections: {},
    publishedAt: '2026-03-02T09:00:00.000Z',
  }),
]

const itemName = (place: number) => `item-${place}`
/** Invented, always the same: how many other schools have chosen an item. */
const others = (name: string, place: number) =>
  ([...name].reduce((sum, letter) => sum + letter.charCodeAt(0), 0) * 31 + place * 17) % 48

/** A small stand-in for a keeper of banks. What it remembers stands in tables of its own, so that every process sees the same. */
export function standInKeeper(db: Database, now: Instant): Keeper {
  const find = (name: string) => kept.find((each) => each.bank === name)
  async function grant(name: string, school: string): Promise<Grant | null> {
    const found = find(name)
    const row =
      found &&
      (await db.one<Pick<StandinKeeperGrantRow, 'asked_at'>>(
        'SELECT asked_at FROM standin_keeper_grant WHERE bank = ? AND school = ?',
        [name, school],
      ))
    if (!found || !row) return null
    const decided = plus(fromSql(row.asked_at), found.decidesIn)
    return { until: decided <= now ? plus(decided, found.days * day) : null }
  }
  return {
    banks: async () =>
      kept.map(({ bank: name, name: title, keeper, about, questions, days }) => ({
        bank: name,
        name: title,
        keeper,
        about,
        questions,
        days,
      })),
    grant,
    async ask(name, school) {
      const present = await grant(name, school)
      if (present && (present.until === null || present.until > now)) return present
      await db.run('REPLACE INTO standin_keeper_grant (bank, school, asked_at) VALUES (?, ?, ?)', [
        name,
        school,
        toSql(now),
      ])
      return (await grant(name, school)) ?? { until: null }
    },
    async deliver(name, school): Promise<Delivery | null> {
      const [found, given] = [find(name), await grant(name, school)]
      if (!found || !given?.until || given.until <= now) return null
      const [choices, faults] = await Promise.all([
        db.rows<Pick<StandinKeeperChoiceRow, 'item'> & { n: number }>(
          'SELECT item, COUNT(*) AS n FROM standin_keeper_choice WHERE bank = ? GROUP BY item',
          [name],
        ),
        db.rows<Pick<StandinKeeperFaultRow, 'item'>>('SELECT DISTINCT item FROM standin_keeper_fault WHERE bank = ?', [
          name,
        ]),
      ])
      const chosen = new Map(choices.map((row) => [row.item, Number(row.n)]))
      const reported = new Set(faults.map((row) => row.item))
      const parts = parted(found.text)
      const isCorrected = (place: number) => reported.has(itemName(place)) && found.corrections[place] !== undefined
      const withoutHeading = (text: string) => text.replace(/^# .*\n/, '')
      // A correction keeps its place, so that the headings above it still hold.
      const text = parts
        .map((part, i) =>
          isCorrected(i + 1)
            ? `${/^\s*(# .*\n)/.exec(part)?.[1] ?? ''}${withoutHeading(found.corrections[i + 1]!)}`
            : part,
        )
        .join('\n---\n')
      return {
        file: new TextEncoder().encode(text),
        fileName: `${name}.md`,
        items: parts.map((_, i) => ({
          item: itemName(i + 1),
          version: isCorrected(i + 1) ? 2 : 1,
          publishedAt: found.publishedAt,
          chosen: others(name, i) + (chosen.get(itemName(i + 1)) ?? 0),
        })),
      }
    },
    async chose(name, school, item) {
      await db.run('INSERT IGNORE INTO standin_keeper_choice (bank, item, school) VALUES (?, ?, ?)', [
        name,
        item,
        school,
      ])
    },
    async report(name, school, item, _version, words) {
      await db.run('INSERT INTO standin_keeper_fault (bank, item, school, said_at, words) VALUES (?, ?, ?, ?, ?)', [
        name,
        item,
        school,
        toSql(now),
        words,
      ])
    },
  }
}

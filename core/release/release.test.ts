import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { at, sampleRules, sampleStudent, sampleWindow } from '../../tests/fixtures/core'
import { beforeAll, endAt, iso, minute, ms, never, plus } from '../kit/time'
import { usualRules } from '../quiz'
import { scheduleFor } from '../schedule'
import {
  facetNames,
  instantOf,
  leaks,
  visibleFacets,
  type FacetName,
  type Moment,
  type ReleaseContext,
  type ReleaseRules,
} from '.'

const context = (over: Partial<ReleaseContext> = {}): ReleaseContext => ({
  handedInAt: at('10:00'),
  markedAt: at('10:05'),
  passed: true,
  attemptsUsedAt: null,
  due: at('11:00'),
  classEnd: endAt(at('12:00')),
  everyoneEnd: endAt(at('20:00')),
  releasedAt: null,
  againUntil: { is: 'beforeAll' },
  viewed: [],
  ...over,
})
const rules = (name: FacetName, from: Moment, over: object = {}): ReleaseRules => ({
  ...usualRules.release,
  [name]: { from, until: null, once: false, ifPassed: false, ...over },
})
const moments: [Moment, string | null][] = [
  [{ at: 'never' }, null],
  [{ at: 'handIn', offset: 0 }, at('10:00')],
  [{ at: 'marked', offset: 10 }, at('10:15')],
  [{ at: 'attemptsUsed', offset: 0 }, at('12:00')],
  [{ at: 'due', offset: 0 }, at('11:00')],
  [{ at: 'windowClosed', offset: 60 }, at('13:00')],
  [{ at: 'everyoneDone', offset: 0 }, at('20:00')],
  [{ at: 'teacher' }, null],
  [{ at: 'instant', instant: at('15:00') }, at('15:00')],
]

describe('visibleFacets', () => {
  it.each(moments)('%j is at %s', (moment, expected) => expect(instantOf(moment, context())).toBe(expected))
  it('nobody is waited for where nobody is left: handing in is enough', () => {
    const alone = context({ classEnd: beforeAll, everyoneEnd: beforeAll })
    for (const at of ['windowClosed', 'everyoneDone', 'attemptsUsed'] as const)
      expect(instantOf({ at, offset: 0 }, alone)).toBe(alone.handedInAt)
  })
  it('changes at the instant it names, and not before', () => {
    const hours = fc.integer({ min: 8, max: 22 })
    const instants = hours.map((hour) => at(`${String(hour).padStart(2, '0')}:00`))
    const rule = fc.record({
      from: fc.constantFrom(...moments).map(([moment]) => moment),
      until: fc.option(instants, { nil: null }),
      once: fc.boolean(),
      ifPassed: fc.boolean(),
    })
    let changes = 0
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom(...facetNames), rule), instants, fc.boolean(), (own, now, passed) => {
        const all = { ...usualRules.release, ...own } as ReleaseRules
        const seen = (when: string) =>
          facetNames.map((name) => visibleFacets(all, context({ passed, viewed: ['grade'] }), when).facets[name].shown)
        const { changesAt } = visibleFacets(all, context({ passed, viewed: ['grade'] }), now)
        const minutes = Array.from({ length: 24 * 4 }, (_, i) => plus(now, (i + 1) * 15 * minute))
        const first = minutes.find((when) => String(seen(when)) !== String(seen(now))) ?? null
        if (first) changes++
        expect(changesAt).toBe(first)
      }),
    )
    expect(changes).toBeGreaterThan(10)
  })
  it('never shows a facet before its moment, and from it on does', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...facetNames),
        fc.constantFrom(...moments),
        fc.integer({ min: -720, max: 720 }),
        (name, [moment, expected], offset) => {
          const now = plus(at('12:00'), offset * minute)
          expect(visibleFacets(rules(name, moment), context(), now).facets[name].shown).toBe(
            expected !== null && now >= expected,
          )
        },
      ),
    )
  })
  it('tells the next instant at which something changes', () => {
    const all = Object.fromEntries(
      facetNames.map((name, i) => [
        name,
        {
          from: { at: 'instant', instant: at(`1${i}:00`) },
          until: null,
          once: false,
          ifPassed: false,
          wrongOnly: false,
        },
      ]),
    ) as unknown as ReleaseRules
    let now = at('09:00')
    for (let i = 0; i < facetNames.length; i++) {
      const { changesAt } = visibleFacets(all, context(), now)
      expect(changesAt).toBe(at(`1${i}:00`))
      expect(visibleFacets(all, context(), iso(ms(changesAt!) - 1)).facets[facetNames[i]!].shown).toBe(false)
      now = changesAt!
    }
    expect(visibleFacets(all, context(), now).changesAt).toBeNull()
  })
  it('shows nothing of an attempt that is under way', () => {
    const { facets } = visibleFacets(
      rules('key', { at: 'instant', instant: at('09:00') }),
      context({ handedInAt: null }),
      at('23:00'),
    )
    expect(Object.values(facets).some((facet) => facet.shown)).toBe(false)
  })
  it('until, once and “only when passed” each hide it', () => {
    const shown = (over: object, given: Partial<ReleaseContext> = {}) =>
      visibleFacets(rules('key', { at: 'handIn', offset: 0 }, over), context(given), at('12:00')).facets.key.shown
    expect([
      shown({}),
      shown({ until: at('12:00') }),
      shown({ until: at('12:01') }),
      shown({ once: true }),
      shown({ once: true }, { viewed: ['key'] }),
      shown({ ifPassed: true, wrongOnly: false }, { passed: false }),
      shown({ ifPassed: true, wrongOnly: false }, { passed: null }),
    ]).toEqual([true, false, true, true, false, false, false])
  })
  it('is recomputed: what was released is hidden again when the end moves away', () => {
    const key = rules('key', { at: 'everyoneDone', offset: 0 })
    expect(visibleFacets(key, context({ everyoneEnd: endAt(at('11:00')) }), at('12:00')).facets.key.shown).toBe(true)
    expect(visibleFacets(key, context({ everyoneEnd: endAt(at('13:00')) }), at('12:00')).facets.key.shown).toBe(false)
    expect(visibleFacets(key, context({ everyoneEnd: never }), at('12:00')).facets.key.shown).toBe(false)
  })
})

describe('leaks', () => {
  const saturday = {
    ...sampleWindow,
    id: 'w2',
    classes: ['sat'],
    opens: at('09:30', '2030-05-18'),
    closes: at('12:00', '2030-05-18'),
  }
  const withRelease = (moment: Moment, attempts = {}) =>
    sampleRules({
      limit: 45,
      grace: 1,
      windows: [sampleWindow, saturday],
      release: {
        ...rules('key', moment),
        marks: { ...usualRules.release.marks },
        comments: { ...usualRules.release.comments },
      },
      attempts: {
        count: 1,
        wait: 0,
        draw: 'fresh',
        untilPassed: false,
        untilShare: null,
        cost: 0,
        again: false,
        ...attempts,
      },
    })
  const find = (r: ReturnType<typeof withRelease>) =>
    leaks(
      r,
      [
        ['p1', 'tue'],
        ['p2', 'tue'],
        ['p3', 'sat'],
        ['p4', 'sat'],
      ].map(([id, group]) => ({
        classes: [group!],
        schedule: scheduleFor(r, sampleStudent({ id, classes: [group!] })),
      })),
    )
  it('the first class’s key gives the paper to the second', () => {
    // A start at 11:59 ends at 12:44, with a minute of grace.
    expect(find(withRelease({ at: 'windowClosed', offset: 0 }))).toEqual([
      {
        facet: 'key',
        viewers: ['p1', 'p2'],
        at: at('12:45'),
        sitters: ['p3', 'p4'],
        until: at('12:46', '2030-05-18'),
        own: false,
      },
    ])
  })
  it('when everyone is done nothing leaks', () =>
    expect(find(withRelease({ at: 'everyoneDone', offset: 0 }))).toEqual([]))
  it('on handing in it leaks to one’s own class, and to one’s own next attempt', () => {
    const [first] = find(withRelease({ at: 'handIn', offset: 0 }, { count: 2 }))
    expect(first).toMatchObject({ facet: 'key', at: at('09:00'), own: true })
    expect(first!.sitters).toEqual(['p1', 'p2', 'p3', 'p4'])
  })
  it('never and by hand are not foreseen', () =>
    expect([...find(withRelease({ at: 'never' })), ...find(withRelease({ at: 'teacher' }))]).toEqual([]))
})

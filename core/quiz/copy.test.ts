import { describe, expect, it } from 'vitest'
import {
  groupRow,
  names,
  poolRow,
  questionRow,
  sampleContent,
  sampleRules,
  sampleWindow,
} from '../../tests/fixtures/core'
import { usualRules } from '../rules'
import { blankNeed } from '../rules/needs'
import { ofOneQuiz } from '../rules/sets'
import { noAccommodation } from './accommodation'
import { copyOf, daysLater, withoutOwn } from './copy'
import { quiz as schema } from './schema'

const zone = 'Europe/Amsterdam'
const rules = sampleRules()
const original = {
  content: sampleContent([
    questionRow('q1'),
    poolRow('p', ['q2', 'q3', 'q4'], 3),
    groupRow('g', ['q5', 'q6']),
    { type: 'text', id: 't', html: '<p>Rest</p>' },
  ]),
  rules: {
    ...rules,
    windows: [
      {
        ...sampleWindow,
        opens: '2030-10-22T17:00:00.000Z',
        closes: '2030-10-22T19:00:00.000Z',
        due: null,
        latestStart: '2030-10-22T18:00:00.000Z',
        closedAt: '2030-10-22T19:00:00.000Z',
      },
    ],
    release: {
      ...rules.release,
      key: { ...rules.release.key, from: { at: 'instant' as const, instant: '2030-10-23T06:00:00.000Z' }, until: null },
    },
  },
}

describe('days later by the school’s clock', () => {
  it.each([
    // Summer time ends on 27 October 2030: seven in the evening stays seven in the evening.
    ['2030-10-22T17:00:00.000Z', 7, '2030-10-29T18:00:00.000Z'],
    ['2030-03-25T18:00:00.000Z', 7, '2030-04-01T17:00:00.000Z'],
    // 02:30 on 31 March 2030 does not exist and moves forward; seconds stay.
    ['2030-03-24T01:30:05.250Z', 7, '2030-03-31T01:30:05.250Z'],
    ['2030-01-31T10:00:00.000Z', -31, '2029-12-31T10:00:00.000Z'],
    ['2030-05-14T09:00:00.000Z', 0, '2030-05-14T09:00:00.000Z'],
  ])('%s and %i days is %s', (at, days, moved) => {
    expect(daysLater(at, days, zone)).toBe(moved)
  })
})

describe('a copy', () => {
  it('with its rules is on other days, open again, under another title', () => {
    const copy = copyOf(original, { title: 'Again', withRules: true, days: 7, zone })
    expect(copy.content).toEqual({ ...original.content, title: 'Again' })
    expect(copy.rules.windows[0]).toMatchObject({
      opens: '2030-10-29T18:00:00.000Z',
      closes: '2030-10-29T20:00:00.000Z',
      latestStart: '2030-10-29T19:00:00.000Z',
      due: null,
      groups: [],
      students: [],
      closedAt: null,
      password: null,
    })
    expect(copy.rules.release.key.from).toEqual({ at: 'instant', instant: '2030-10-30T07:00:00.000Z' })
    expect(copy.rules.release.score).toEqual(original.rules.release.score)
    expect(schema.safeParse(copy).success).toBe(true)
  })
  it('without its rules has those of a new quiz', () => {
    expect(copyOf(original, { title: 'Bare', withRules: false, days: 7, zone }).rules).toEqual(usualRules)
  })
  it('leaves out questions that do not come along, and rows that would be empty', () => {
    const gone = new Set(['q1', 'q3', 'q5', 'q6'])
    const { content } = copyOf(original, { title: 'Part', withRules: false, days: 0, zone }, gone)
    expect(content.sections[0]!.rows).toEqual([poolRow('p', ['q2', 'q4'], 2), original.content.sections[0]!.rows[3]])
    expect(
      copyOf(original, { title: 'None', withRules: false, days: 0, zone }, new Set(names('q', 6))).content.sections[0]!
        .rows,
    ).toHaveLength(1)
  })
})

it('who may only look at a quiz gets no rule of it that names anybody, nor its password', () => {
  const need = { ...blankNeed({ id: 'n', students: ['SECRET'], groups: ['SECRET'] }, noAccommodation), factor: 2 }
  const own = sampleRules({ windows: [{ ...sampleWindow, students: ['SECRET'] }], needs: [need], password: 'SECRET' })
  const given = withoutOwn(own)
  expect(JSON.stringify(given)).not.toContain('SECRET')
  for (const name of ofOneQuiz) expect(given[name]).toEqual(usualRules[name])
  expect(given.limit).toBe(own.limit)
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { groupRow, names, poolRow, questionRow, sampleContent } from '../../tests/fixtures/core'
import { usualRules } from '../rules'
import {
  apart,
  copySection,
  intoPool,
  mergeUp,
  moveTo,
  pointsEach,
  replaceQuestion,
  rowsFor,
  splitAt,
  spreadPoints,
  takeOut,
} from './arrange'
import { applyEdit, type Edit } from './edits'
import type { Quiz, Row } from './schema'
import { allRows, pointsOf, questionsUsed } from './walk'

const quizOf = (rows: Row[], more: Row[] = []): Quiz => {
  const content = sampleContent(rows)
  const second = { ...content.sections[0]!, id: 'second', title: 'Second', rows: more }
  return { content: { ...content, sections: [...content.sections, second] }, rules: usualRules }
}
let made = 0
const newId = () => `new${++made}`
const applied = (quiz: Quiz, edit: Edit | null) => {
  const { quiz: after, inverse } = applyEdit(quiz, edit!)
  // Whatever is arranged can be taken back as one step.
  expect(applyEdit(after, inverse).quiz).toEqual(quiz)
  return after
}
const kinds = (quiz: Quiz) => quiz.content.sections.map(({ rows }) => rows.map((row) => row.type))

const quiz = quizOf(
  [
    questionRow('q1', { points: 2 }),
    { type: 'text', id: 't', html: '<p>Next</p>' },
    questionRow('q2'),
    poolRow('p', names('x', 4), 2, { title: 'Levels' }),
  ],
  [questionRow('q3'), groupRow('g', ['q4', 'q5'])],
)

describe('rows', () => {
  it('become a pool in the place of the first, and a pool becomes rows', () => {
    const pooled = applied(quiz, intoPool(quiz, ['r-q1', 't', 'r-q2', 'p'], newId))
    expect(kinds(pooled)).toEqual([
      ['pool', 'text'],
      ['question', 'stimulus'],
    ])
    expect(pooled.content.sections[0]!.rows[0]).toMatchObject({
      title: 'Levels',
      questions: ['q1', 'q2', ...names('x', 4)],
      draw: 3,
      points: 2,
    })
    const [pool] = allRows(pooled.content)
    const again = applied(pooled, apart(pooled, pool!.id, newId))
    expect(kinds(again)[0]).toEqual([...Array.from({ length: 6 }, () => 'question'), 'text'])
    expect(questionsUsed(again.content).sort()).toEqual(questionsUsed(quiz.content).sort())
    expect(intoPool(quiz, ['r-q1', 't'], newId)).toBeNull()
  })
  it('of two sections move together, and are taken out together', () => {
    const moved = applied(quiz, moveTo(quiz, ['r-q1', 'p', 'g'], 'second'))
    expect(moved.content.sections[1]!.rows.map(({ id }) => id)).toEqual(['r-q3', 'g', 'r-q1', 'p'])
    const left = applied(quiz, takeOut(quiz, ['r-q1', 'g', 't']))
    expect(allRows(left.content).map(({ id }) => id)).toEqual(['r-q2', 'p', 'r-q3'])
    expect(takeOut(quiz, [])).toBeNull()
  })
})

describe('points', () => {
  it('are set for many at once', () => {
    const after = applied(quiz, pointsEach(quiz, ['r-q1', 'p', 't', 'r-q2'], 3))
    expect(allRows(after.content).map((row) => ('points' in row ? row.points : null))).toEqual([3, null, 3, 3, 1, 1])
  })
  it('spread to a total exactly, wherever some row takes single hundredths, in proportion to what they were', () => {
    const rows = fc.array(
      fc.record({ points: fc.integer({ min: 0, max: 400 }), draw: fc.integer({ min: 1, max: 4 }) }),
      { minLength: 1, maxLength: 8 },
    )
    fc.assert(
      fc.property(rows, fc.integer({ min: 1, max: 20_000 }), (drawn, hundredths) => {
        const made = drawn.map(({ points, draw }, i) =>
          draw === 1
            ? questionRow(`q${i}`, { points: points / 100 })
            : poolRow(`p${i}`, names(`x${i}-`, 5), draw, { points: points / 100 }),
        )
        const before = quizOf(made)
        const total = hundredths / 100
        const { edit, left } = spreadPoints(
          before,
          made.map(({ id }) => id),
          total,
        )
        const after = edit ? applied(before, edit) : before
        expect(pointsOf(allRows(after.content))).toBeCloseTo(total - left, 9)
        expect(left).toBeGreaterThanOrEqual(0)
        // What is left is less than what any row could still take.
        expect(left).toBeLessThan(Math.min(...drawn.map(({ draw }) => draw)) / 100)
        if (drawn.every(({ draw }) => draw === 1)) expect(left).toBe(0)
        const now = pointsOf(made)
        if (now > 0)
          allRows(after.content).forEach((row, i) => {
            if ('points' in row)
              expect(Math.abs(row.points - ((drawn[i]!.points / 100) * total) / now)).toBeLessThan(0.0301)
          })
      }),
    )
  })
})

describe('another question in the place of one', () => {
  it('stands where it stood: in a row, which follows the newest again, and in a pool', () => {
    const pinned = quizOf([questionRow('q1', { version: 2, points: 3 }), poolRow('p', ['a', 'b', 'c'], 2)])
    const [row] = allRows(applied(pinned, replaceQuestion(pinned, 'q1', 'new')).content)
    expect(row).toMatchObject({ id: 'r-q1', question: 'new', version: null, points: 3 })
    const pool = allRows(applied(pinned, replaceQuestion(pinned, 'b', 'new')).content)[1]
    expect(pool).toMatchObject({ questions: ['a', 'new', 'c'], draw: 2 })
    expect(replaceQuestion(pinned, 'other', 'new')).toBeNull()
  })
})

describe('sections', () => {
  it('are copied with ids of their own, merged upwards and split before a row', () => {
    const [first] = quiz.content.sections
    const copied = applied(quiz, copySection(quiz, first!.id, newId))
    expect(copied.content.sections.map(({ title }) => title)).toEqual([
      first!.title,
      `${first!.title} (copy)`,
      'Second',
    ])
    const ids = allRows(copied.content).map(({ id }) => id)
    expect(new Set(ids).size).toBe(ids.length)
    const merged = applied(quiz, mergeUp(quiz, 'second'))
    expect(merged.content.sections).toHaveLength(1)
    expect(allRows(merged.content)).toEqual(allRows(quiz.content))
    expect(mergeUp(quiz, first!.id)).toBeNull()
    const split = applied(quiz, splitAt(quiz, 'r-q2', newId))
    expect(split.content.sections.map(({ rows }) => rows.length)).toEqual([2, 2, 2])
    expect(allRows(split.content)).toEqual(allRows(quiz.content))
    expect(splitAt(quiz, 'r-q1', newId)).toBeNull()
  })
})

describe('rows for chosen questions', () => {
  const chosen = (id: string, stimulus: string | null = null) => ({ id, points: 2, stimulus })
  it('keep their order; those on one stimulus come as one group where the first of them stands', () => {
    const list = [chosen('a'), chosen('b', 's'), chosen('c', 't'), chosen('d', 's'), chosen('e', 's')]
    expect(rowsFor(list, null, newId)).toMatchObject([
      { type: 'question', question: 'a', points: 2 },
      { type: 'stimulus', stimulus: 's', questions: ['b', 'd', 'e'], draw: 3, points: 2 },
      { type: 'question', question: 'c' },
    ])
    expect(rowsFor([chosen('a')], 5, newId)).toMatchObject([{ points: 5 }])
    expect(rowsFor([], null, newId)).toEqual([])
  })
})

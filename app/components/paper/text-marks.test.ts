/** Highlights: joining and taking out, against painting characters one by one. */
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { toggled, type Stretch } from './text-marks'

const painted = (marks: readonly Stretch[]) => {
  const letters = new Set<number>()
  for (const [from, to] of marks) for (let i = from; i < to; i++) letters.add(i)
  return letters
}

it('is joined with what it touches; selected within one it is taken out', () => {
  expect(toggled([[0, 4]], [4, 6])).toEqual([[0, 6]])
  expect(
    toggled(
      [
        [0, 4],
        [8, 9],
      ],
      [2, 8],
    ),
  ).toEqual([[0, 9]])
  expect(toggled([[0, 9]], [3, 5])).toEqual([
    [0, 3],
    [5, 9],
  ])
  expect(toggled([[0, 9]], [0, 9])).toEqual([])
})

it('paints or clears exactly what was selected, and stretches never touch', () => {
  let cleared = 0
  const stretch = fc
    .tuple(fc.nat(30), fc.integer({ min: 1, max: 12 }))
    .map(([from, long]): Stretch => [from, from + long])
  fc.assert(
    fc.property(fc.array(stretch, { maxLength: 12 }), (all) => {
      let marks: Stretch[] = []
      for (const each of all) {
        const before = painted(marks)
        const letters = [...painted([each])]
        const isIn = letters.every((letter) => before.has(letter))
        if (isIn) cleared++
        marks = toggled(marks, each)
        const after = painted(marks)
        for (const letter of letters) expect(after.has(letter)).toBe(!isIn)
        for (let letter = 0; letter < 50; letter++)
          if (!letters.includes(letter)) expect(after.has(letter)).toBe(before.has(letter))
        for (let i = 1; i < marks.length; i++) expect(marks[i - 1]![1]).toBeLessThan(marks[i]![0])
      }
    }),
  )
  expect(cleared).toBeGreaterThan(20)
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { contains, middle, type Shape } from './shapes'

const star: Shape = {
  is: 'polygon',
  points: [
    { x: 0, y: 0 },
    { x: 40, y: 10 },
    { x: 80, y: 0 },
    { x: 60, y: 60 },
    { x: 20, y: 60 },
  ],
}

describe('contains', () => {
  it('counts corners and edges as inside, and a notch as outside', () => {
    expect(
      [
        { x: 0, y: 0 },
        { x: 40, y: 10 },
        { x: 20, y: 5 },
        { x: 40, y: 60 },
        { x: 40, y: 30 },
      ].map((at) => contains(star, at)),
    ).toEqual([true, true, true, true, true])
    expect(
      [
        { x: 40, y: 9 },
        { x: 81, y: 0 },
        { x: 0, y: 60 },
        { x: 40, y: 61 },
      ].map((at) => contains(star, at)),
    ).toEqual([false, false, false, false])
  })
  it('a rectangle is the polygon of its corners', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 50 }), fc.integer({ min: 0, max: 50 }), (x, y) => {
        const rectangle: Shape = { is: 'rectangle', x: 10, y: 10, width: 20, height: 30 }
        const polygon: Shape = {
          is: 'polygon',
          points: [
            { x: 10, y: 10 },
            { x: 30, y: 10 },
            { x: 30, y: 40 },
            { x: 10, y: 40 },
          ],
        }
        expect(contains(rectangle, { x, y })).toBe(contains(polygon, { x, y }))
      }),
    )
  })
  it('the middle lies within, even of a shape that is hollow there', () => {
    const ring: Shape = {
      is: 'polygon',
      points: [
        { x: 0, y: 0 },
        { x: 90, y: 0 },
        { x: 90, y: 20 },
        { x: 10, y: 20 },
        { x: 10, y: 90 },
        { x: 0, y: 90 },
      ],
    }
    for (const shape of [star, ring, { is: 'circle', x: 5, y: 5, r: 1 } as Shape])
      expect(contains(shape, middle(shape))).toBe(true)
  })
})

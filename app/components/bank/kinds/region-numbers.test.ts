import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { shape as shapeSchema, type Shape } from '../../../../core/kit/shapes'
import { shapeFrom, shapeNumbers } from './region-numbers'

const place = fc.integer({ min: 0, max: 2000 })
const size = fc.integer({ min: 1, max: 2000 })
const shapes: fc.Arbitrary<Shape> = fc.oneof(
  fc.record({ is: fc.constant('circle' as const), x: place, y: place, r: size }),
  fc.record({ is: fc.constant('rectangle' as const), x: place, y: place, width: size, height: size }),
  fc.record({
    is: fc.constant('polygon' as const),
    points: fc.array(fc.record({ x: place, y: place }), { minLength: 3, maxLength: 12 }),
  }),
)

describe('shapes in numbers', () => {
  it('what is written comes back, whatever the shape', () => {
    fc.assert(
      fc.property(shapes, (shape) => {
        expect(shapeFrom(shape.is, shapeNumbers(shape))).toEqual(shape)
      }),
    )
  })
  it('what is read is a shape that core knows, or nothing', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('circle' as const, 'rectangle' as const, 'polygon' as const),
        fc.string(),
        (is, text) => {
          const read = shapeFrom(is, text)
          if (read) expect(shapeSchema.safeParse(read).success).toBe(true)
        },
      ),
    )
  })
  it.each([
    ['circle', '10, 20,  5', { is: 'circle', x: 10, y: 20, r: 5 }],
    ['rectangle', ' 0 0 12.5 8 ', { is: 'rectangle', x: 0, y: 0, width: 12.5, height: 8 }],
    ['circle', '10 20', null],
    ['circle', '10 20 0', null],
    ['circle', '10 -20 5', null],
    ['rectangle', '1 2 3 four', null],
    ['polygon', '0 0 10 0', null],
    ['polygon', '0 0 10 0 10', null],
    ['polygon', '', null],
  ] as const)('%s from “%s”', (is, text, expected) => expect(shapeFrom(is, text)).toEqual(expected))
})

import { z } from 'zod'

/** Regions in picture coordinates: pixels of the picture as it was kept, from the top left. */
const place = z.number().min(0).max(20_000)
const size = z.number().min(1).max(20_000)
export const point = z.strictObject({ x: place, y: place })
export type Point = z.infer<typeof point>

export const shape = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('circle'), x: place, y: place, r: size }),
  z.strictObject({ is: z.literal('rectangle'), x: place, y: place, width: size, height: size }),
  z.strictObject({
    is: z.literal('polygon'),
    points: z.array(point).min(3, 'A polygon has at least three corners.').max(60),
  }),
])
export type Shape = z.infer<typeof shape>

/** Whether a point lies in a shape; the border is inside (semantics §2). */
export function contains(shape: Shape, { x, y }: Point): boolean {
  switch (shape.is) {
    case 'circle':
      return (x - shape.x) ** 2 + (y - shape.y) ** 2 <= shape.r ** 2
    case 'rectangle':
      return x >= shape.x && x <= shape.x + shape.width && y >= shape.y && y <= shape.y + shape.height
    case 'polygon':
      return inPolygon(shape.points, { x, y })
  }
}

/** Even–odd rule, with points on an edge counted as inside. */
function inPolygon(corners: readonly Point[], { x, y }: Point): boolean {
  let inside = false
  for (let i = 0, j = corners.length - 1; i < corners.length; j = i++) {
    const [a, b] = [corners[i]!, corners[j]!]
    const cross = (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x)
    if (
      cross === 0 &&
      x >= Math.min(a.x, b.x) &&
      x <= Math.max(a.x, b.x) &&
      y >= Math.min(a.y, b.y) &&
      y <= Math.max(a.y, b.y)
    )
      return true
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside
  }
  return inside
}

/** The middle of a shape's bounds, for a label or a model answer where it lies inside. */
export function middle(shape: Shape): Point {
  if (shape.is === 'circle') return { x: shape.x, y: shape.y }
  if (shape.is === 'rectangle') return { x: shape.x + shape.width / 2, y: shape.y + shape.height / 2 }
  const bounds = (values: number[]) => (Math.min(...values) + Math.max(...values)) / 2
  const centre = { x: bounds(shape.points.map((each) => each.x)), y: bounds(shape.points.map((each) => each.y)) }
  return contains(shape, centre) ? centre : shape.points[0]!
}

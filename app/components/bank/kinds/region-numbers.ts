import type { Shape } from '~~/core/kit/shapes'

/** What the numbers of a shape mean, in their order. */
export const numbersWanted: Record<Shape['is'], string> = {
  circle: 'middle across, middle down, radius',
  rectangle: 'left, top, width, height',
  polygon: 'across and down of each corner',
}

/** The numbers of a shape, in pixels, as a line that can be typed. */
export function shapeNumbers(shape: Shape): string {
  switch (shape.is) {
    case 'circle':
      return `${shape.x} ${shape.y} ${shape.r}`
    case 'rectangle':
      return `${shape.x} ${shape.y} ${shape.width} ${shape.height}`
    case 'polygon':
      return shape.points.map(({ x, y }) => `${x} ${y}`).join(' ')
  }
}

/** The shape that a typed line means, or null where it does not fit. Numbers stand apart by spaces or commas. */
export function shapeFrom(is: Shape['is'], text: string): Shape | null {
  const values = text
    .trim()
    .split(/[\s,]+/)
    .map(Number)
  if (!values.every((value) => Number.isFinite(value) && value >= 0)) return null
  const [a, b, c, d] = values as [number, number, number, number]
  switch (is) {
    case 'circle':
      return values.length === 3 && c >= 1 ? { is, x: a, y: b, r: c } : null
    case 'rectangle':
      return values.length === 4 && c >= 1 && d >= 1 ? { is, x: a, y: b, width: c, height: d } : null
    case 'polygon':
      return values.length >= 6 && values.length % 2 === 0
        ? { is, points: values.flatMap((x, i) => (i % 2 ? [] : [{ x, y: values[i + 1]! }])) }
        : null
  }
}

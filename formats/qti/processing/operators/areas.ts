import { Fraction } from '../../../../core/kit/exact'
import type { XmlElement } from '../../../xml'
import { NotProven } from '../not-proven'
import { numberOf, truth, type Point } from '../values'
import type { Operators } from './operator'

const squared = (a: Fraction) => a.mul(a)

/** On the edge from one corner to the next. */
function onEdge([x, y]: Point, [ax, ay]: Point, [bx, by]: Point): boolean {
  const turn = bx
    .sub(ax)
    .mul(y.sub(ay))
    .sub(by.sub(ay).mul(x.sub(ax)))
  const along = x
    .sub(ax)
    .mul(x.sub(bx))
    .add(y.sub(ay).mul(y.sub(by)))
  return turn.equals(0) && along.compare(0) <= 0
}

/** By how often a ray to the right crosses the border (even–odd rule of HTML's image maps). */
function inPolygon(at: Point, corners: readonly Point[]): boolean {
  let inside = false
  for (const [i, a] of corners.entries()) {
    const b = corners[(i + 1) % corners.length]!
    if (onEdge(at, a, b)) return true
    const crosses = a[1].compare(at[1]) > 0 !== b[1].compare(at[1]) > 0
    if (crosses && at[0].compare(b[0].sub(a[0]).mul(at[1].sub(a[1])).div(b[1].sub(a[1])).add(a[0])) < 0)
      inside = !inside
  }
  return inside
}

/** Whether a point lies in an area (QTI 2.1 §5: shape and coords as in HTML); the border is inside. @throws NotProven */
export function isInside(at: Point, { attributes }: XmlElement): boolean {
  const n = (attributes.coords ?? '')
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(numberOf)
  switch (attributes.shape) {
    case 'default':
      return true
    case 'circle': {
      const [x, y, r] = n
      if (!x || !y || !r) break
      return (
        squared(at[0].sub(x))
          .add(squared(at[1].sub(y)))
          .compare(squared(r)) <= 0
      )
    }
    case 'ellipse': {
      const [x, y, h, v] = n
      if (!x || !y || !h || !v || h.equals(0) || v.equals(0)) break
      return (
        squared(at[0].sub(x).div(h))
          .add(squared(at[1].sub(y).div(v)))
          .compare(1) <= 0
      )
    }
    case 'rect': {
      const [left, top, right, bottom] = n
      if (!left || !top || !right || !bottom) break
      return (
        at[0].compare(left) >= 0 && at[0].compare(right) <= 0 && at[1].compare(top) >= 0 && at[1].compare(bottom) <= 0
      )
    }
    case 'poly':
      if (n.length < 6 || n.length % 2) break
      return inPolygon(
        at,
        n.flatMap((x, i) => (i % 2 ? [] : [[x, n[i + 1]!] as const])),
      )
  }
  throw new NotProven('An area of it is none that is known here.')
}

export const areas: Operators = {
  inside: (node, [value = null]) =>
    value === null ? null : truth(value.of.some((each) => Array.isArray(each) && isInside(each as Point, node))),
}

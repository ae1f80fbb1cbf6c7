import type { Shape } from '../../../../core/kit/shapes'
import { childrenOf, textOf, type XmlElement } from '../../../xml'
import { casesOf } from '../../scoring/terms'
import {
  creditOf,
  declared,
  found,
  hundredths,
  idsFor,
  wholeKey,
  namesBack,
  numeric,
  refuse,
  shapeOf,
  worthBy,
  type Context,
  type Declaration,
  type Found,
} from '../reading'

const lost = 'An area of it has no like here and is left out.'

/** The picture that is marked, with what is common to both ways of marking. */
function pictureOf(node: XmlElement) {
  const picture = [...childrenOf(node, 'object'), ...childrenOf(node, 'img')][0]
  if (!picture) return refuse('There is no picture to mark.')
  return {
    picture: picture.attributes.data ?? picture.attributes.src ?? '',
    alt: picture.attributes.alt ?? textOf(picture).trim(),
    width: Math.round(numeric(picture.attributes.width)),
    height: Math.round(numeric(picture.attributes.height)),
    spots: Math.max(1, Math.min(20, numeric(node.attributes.maxChoices, 1) || 20)),
  }
}

export function hotspotOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const picture = pictureOf(node)
  const places = childrenOf(node, 'hotspotChoice')
  const ids = idsFor(places.map((each) => each.attributes.identifier ?? ''))
  const key = wholeKey(context, response)
  const whole = key !== null
  const worth = worthBy(context, response)
  const read = places.flatMap((each, i) => {
    const shape = shapeOf(each, picture)
    if (!shape) context.notes.add(lost)
    const name = each.attributes.identifier ?? ''
    return shape
      ? [
          {
            id: ids.get(name)!,
            shape,
            label: each.attributes.hotspotLabel ?? `Place ${i + 1}`,
            worth: whole ? Number(key.includes(name)) : worth([name]),
          },
        ]
      : []
  })
  const names = namesBack(ids)
  const body = regionsOf(read, whole)
  const spots = Math.min(picture.spots, places.length)
  return found(
    'spot',
    { ...picture, ...body, by: 'place', spots: whole ? Math.max(1, key.length) : spots },
    whole ? worth(key) : topSum(read, spots),
    ({ chosen }: { chosen?: string[] }) => ({ [response.identifier]: (chosen ?? []).flatMap(names) }),
  )
}

const topSum = (read: readonly { worth: number }[], n: number) =>
  read
    .map(({ worth }) => worth)
    .filter((worth) => worth > 0)
    .sort((a, b) => b - a)
    .slice(0, n)
    .reduce((sum, worth) => sum + worth, 0)

interface Area {
  id: string
  shape: Shape
  label: string
  worth: number
}

/** Regions with what they earn; what every wrong one costs is said once. */
function regionsOf(read: readonly Area[], whole: boolean, missed?: number) {
  const most = Math.max(0, ...read.map(({ worth }) => worth))
  const wrong = read.filter(({ worth }) => worth <= 0).map(({ worth }) => worth)
  const cost = missed ?? (new Set(wrong).size === 1 ? wrong[0]! : 0)
  return {
    rule: whole ? 'all' : 'share',
    wrongCost: whole || most === 0 ? 0 : Math.min(10, Math.max(0, hundredths(-cost / most))),
    regions: read.map(({ worth, ...region }) => {
      const credit = creditOf(worth, most)
      const plain = credit === 1 || worth === cost
      return { ...region, right: credit === 1, comment: '', ...(plain ? {} : { credit }) }
    }),
  }
}

export function selectPointOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const picture = pictureOf(node)
  const { areas, missed } = areasOf(context, response, picture)
  const read = areas.flatMap(({ shape, worth }, i) => {
    if (!shape) context.notes.add(lost)
    return shape ? [{ id: `r${i + 1}`, shape, label: '', worth }] : []
  })
  if (!read.some(({ worth }) => worth > 0)) return refuse('No area of it says where a mark is right.')
  const spots = Math.min(picture.spots, Math.max(1, picture.spots === 20 ? read.length : picture.spots))
  return found(
    'spot',
    { ...picture, ...regionsOf(read, false, missed), by: 'point', spots },
    topSum(read, spots),
    ({ points }: { points?: { x: number; y: number }[] }) => ({
      [response.identifier]: (points ?? []).map(({ x, y }) => `${x} ${y}`),
    }),
  )
}

/** Areas by the mapping, or by conditions of the item's own that look whether the mark is inside. */
function areasOf(
  context: Context,
  response: Declaration,
  size: { width: number; height: number },
): { areas: { shape: Shape | null; worth: number }[]; missed: number } {
  const own = context.score?.terms.filter((term) => term.responses.includes(response.identifier)) ?? []
  const [term] = own
  const cases = own.flatMap((each) => casesOf(each)?.cases ?? [])
  if (cases.length && cases.every(({ condition }) => condition.name === 'inside'))
    return {
      areas: cases.map(({ condition, worth }) => ({ shape: shapeOf(condition, size), worth })),
      missed: casesOf(term!)?.otherwise ?? 0,
    }
  const factor = own.length === 1 && term!.node.name === 'mapResponsePoint' ? term!.factor : 1
  return {
    areas: response.areas.map(({ shape, value }) => ({ shape, worth: value * factor })),
    missed: response.wrong * factor,
  }
}

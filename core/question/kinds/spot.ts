import { z } from 'zod'
import { certain, gathered, type Chances } from '../../kit/chances'
import { choose, share } from '../../kit/counting'
import { Fraction, clamp, exact, sum } from '../../kit/exact'
import { contains, middle, point, shape, type Point } from '../../kit/shapes'
import { mediaSource } from '../allowed-html'
import { html } from '../html-schema'
import type { Kind } from './kind'
import { wrongCost } from './credits'
import { closeIds, id, openIds } from './options'

export const spotBody = z.strictObject({
  picture: z.union([z.literal(''), z.string().regex(mediaSource, 'The picture is not one that was put into Thistle.')]),
  /** What it shows, for those who cannot see it; without giving the key away. */
  alt: z.string().trim().max(1000),
  /** Pixels of the picture. */
  width: z.int().min(0).max(20_000),
  height: z.int().min(0).max(20_000),
  regions: z
    .array(
      z.strictObject({
        id,
        shape,
        right: z.boolean(),
        /** What marking it earns, as a share of what a right region earns; left out, all of it, or nothing where it is wrong. */
        credit: z.number().min(-1).max(1).multipleOf(0.01).optional(),
        /** What it is called, for the key in words and for students who choose among named places. */
        label: z.string().trim().max(80).default(''),
        comment: html.default(''),
      }),
    )
    .max(40, 'A picture has at most 40 regions.'),
  /** Students mark a place of their own, or choose among the regions, which are then shown to them. */
  by: z.enum(['point', 'place']).default('point'),
  /** How many places are asked for. */
  spots: z.int().min(1).max(20).default(1),
  /** A share for every place, or everything only for all of them and no wrong one. */
  rule: z.enum(['share', 'all']).default('share'),
  /** What a wrong place takes away, as a share of what a right one earns. Of no meaning to “all”. */
  wrongCost,
})
export type SpotBody = z.infer<typeof spotBody>

export const spotAnswer = z.strictObject({
  points: z.array(point).max(20).optional(),
  chosen: z.array(z.string().max(24)).max(20).optional(),
})
export type SpotAnswer = z.infer<typeof spotAnswer>

type Region = SpotBody['regions'][number]

/** What marking a region earns, as a share of what a right one earns. */
const creditOf = (region: Region) => exact(region.credit ?? (region.right ? 1 : 0))
/** Regions that a mark can be counted for; what is drawn beside them is for comments, and a miss. */
const counted = (body: SpotBody) => body.regions.filter((region) => region.right || region.credit !== undefined)
const earning = (body: SpotBody) =>
  body.regions.filter((region) => creditOf(region).compare(0) > 0).sort((a, b) => creditOf(b).compare(creditOf(a)))

/**
 * Regions that are met, each once, and how many marks met none. A point goes to the first region that holds it, as rings lie
 * around a middle (QTI mapResponsePoint).
 */
function found(body: SpotBody, answer: SpotAnswer): { hit: Region[]; missed: number } {
  const regions = counted(body)
  if (body.by === 'place') {
    const chosen = new Set((answer.chosen ?? []).slice(0, body.spots))
    return {
      hit: regions.filter((region) => chosen.has(region.id)),
      missed: body.regions.filter((region) => chosen.has(region.id) && !regions.includes(region)).length,
    }
  }
  const held = (answer.points ?? [])
    .slice(0, body.spots)
    .map((at) => regions.find((region) => contains(region.shape, at)))
  return {
    hit: [...new Set(held.filter((region) => region !== undefined))],
    missed: held.filter((region) => region === undefined).length,
  }
}

const named = (body: SpotBody, ids: readonly string[]) =>
  body.regions.flatMap((region, i) => (ids.includes(region.id) ? [region.label || `place ${i + 1}`] : [])).join(' · ')
const inWords = (at: Point, body: SpotBody) =>
  `${Math.round((at.x / Math.max(1, body.width)) * 100)} % across, ${Math.round((at.y / Math.max(1, body.height)) * 100)} % down`

/** The greatest sum of credits: of so many regions as places are asked for. */
const greatest = (body: SpotBody) => sum(earning(body).slice(0, body.spots).map(creditOf))

function ofPlaces(body: SpotBody, earned: Fraction, missed: number): Fraction {
  const most = greatest(body)
  if (most.equals(0)) return new Fraction(0)
  if (body.rule === 'all') return new Fraction(earned.equals(most) && missed === 0 ? 1 : 0)
  return clamp(new Fraction(0), earned.sub(exact(body.wrongCost).mul(missed)).div(most), new Fraction(1))
}

/** Ways of meeting regions, by how many marks are used and what they earn in hundredths. */
type Ways = Map<string, number>
const waysAt = (used: number, earned: number) => `${used},${earned}`
const readWays = (ways: Ways) =>
  [...ways].map(([key, weight]) => {
    const [used, earned] = key.split(',').map(Number) as [number, number]
    return { used, earned, weight }
  })
const hundredthsOf = (region: Region) => Math.round(creditOf(region).valueOf() * 100)

/** As many of the named places as are asked for, any of them. */
function guessesByName(body: SpotBody): Chances {
  const chosen = Math.min(body.spots, body.regions.length)
  const regions = counted(body)
  let ways: Ways = new Map([[waysAt(0, 0), 1]])
  for (const region of regions) {
    const next = new Map(ways)
    for (const { used, earned, weight } of readWays(ways)) {
      const to = waysAt(used + 1, earned + hundredthsOf(region))
      if (used < chosen) next.set(to, (next.get(to) ?? 0) + weight)
    }
    ways = next
  }
  const all = choose(body.regions.length, chosen)
  return gathered(
    readWays(ways).map(({ used, earned, weight }) => [
      ofPlaces(body, new Fraction(earned, 100), chosen - used),
      share(BigInt(weight) * choose(body.regions.length - regions.length, chosen - used), all),
    ]),
  )
}

/** A picture is looked at in so many places across and down: a region's share is known to about one in so many. */
const across = 200

/** Shares of the picture that each counted region covers; where two overlap, the place is the first one's. */
function areas(body: SpotBody): number[] {
  const regions = counted(body)
  const found = regions.map(() => 0)
  for (let i = 0; i < across; i++)
    for (let j = 0; j < across; j++) {
      const at = { x: ((i + 0.5) * body.width) / across, y: ((j + 0.5) * body.height) / across }
      const hit = regions.findIndex((region) => contains(region.shape, at))
      if (hit >= 0) found[hit]! += 1 / across ** 2
    }
  return found
}

/** Points anywhere on the picture, each by itself: a multinomial, by generating functions over the regions. */
function guessesByPoint(body: SpotBody): Chances {
  if (!body.width || !body.height) return certain(0)
  const found = areas(body)
  const missing = Math.max(0, 1 - found.reduce((a, b) => a + b, 0))
  const { spots } = body
  const factorial = (n: number): number => (n < 2 ? 1 : n * factorial(n - 1))
  let ways: Ways = new Map([[waysAt(0, 0), 1]])
  for (const [i, region] of counted(body).entries()) {
    const next = new Map(ways)
    for (const { used, earned, weight } of readWays(ways))
      for (let here = 1; used + here <= spots; here++) {
        const to = waysAt(used + here, earned + hundredthsOf(region))
        next.set(to, (next.get(to) ?? 0) + (weight * found[i]! ** here) / factorial(here))
      }
    ways = next
  }
  return gathered(
    readWays(ways).map(({ used, earned, weight }) => {
      const missed = spots - used
      const chance = (factorial(spots) * weight * missing ** missed) / factorial(missed)
      return [ofPlaces(body, new Fraction(earned, 100), missed), chance] as const
    }),
  )
}

/** A place on a picture (QTI selectPointInteraction, or hotspotInteraction where the places are shown). */
export const spot: Kind<SpotBody, SpotAnswer> = {
  name: 'spot',
  label: 'Spot on a picture',
  body: spotBody,
  answer: spotAnswer,
  blank: () => ({
    picture: '',
    alt: '',
    width: 0,
    height: 0,
    regions: [],
    by: 'point',
    spots: 1,
    rule: 'share',
    wrongCost: 0,
  }),
  faults(body) {
    const faults: string[] = []
    if (!body.picture) return ['There is no picture yet. Choose one.']
    if (!body.alt) faults.push('Say what the picture shows, for those who cannot see it.')
    const right = earning(body).length
    if (right && !body.regions.some((region) => region.right && creditOf(region).compare(0) > 0))
      faults.push('No region earns full credit. Mark one as right.')
    if (!right) faults.push('No region is right. Draw one on the picture.')
    else if (right < body.spots)
      faults.push(`${body.spots} places are asked for, but only ${right} ${right === 1 ? 'is' : 'are'} right.`)
    if (body.by === 'place' && body.regions.some((region) => !region.label))
      faults.push('Name every place: students choose by name as well.')
    if (body.by === 'place' && body.regions.length < 2) faults.push('Give at least two places to choose from.')
    return faults
  },
  options: (body) => (body.by === 'place' ? body.regions.map(({ id }) => ({ id, fixed: true })) : []),
  score(body, answer) {
    const { hit, missed } = found(body, answer)
    return {
      fraction: ofPlaces(body, sum(hit.map(creditOf)), missed),
      parts: body.regions
        .filter((region) => region.right)
        .map((region) => ({ part: region.id, right: hit.includes(region) })),
    }
  },
  excess(body, answer) {
    const given = body.by === 'place' ? new Set(answer.chosen).size : (answer.points?.length ?? 0)
    if (given <= body.spots) return null
    return body.spots === 1 ? 'Only one place can be marked here.' : `At most ${body.spots} places can be marked here.`
  },
  isEmpty: (answer) => !answer.points?.length && !answer.chosen?.length,
  guessable: () => null,
  guesses: (body) => (body.by === 'place' ? guessesByName(body) : guessesByPoint(body)),
  seal(body, placed) {
    const { picture, alt, width, height, spots } = body
    if (body.by === 'point') return { asks: 'spot', picture, alt, width, height, spots }
    const regionOf = new Map(body.regions.map((region) => [region.id, region]))
    return {
      asks: 'places',
      picture,
      alt,
      width,
      height,
      spots,
      places: placed.flatMap(({ id, option }) => {
        const region = regionOf.get(option)
        return region ? [{ id, label: region.label, shape: region.shape }] : []
      }),
    }
  },
  open: (answer, placed) => (answer.chosen ? { chosen: openIds(answer.chosen, placed) } : answer),
  close: (answer, placed) => (answer.chosen ? { chosen: closeIds(answer.chosen, placed) } : answer),
  solution(body) {
    const right = earning(body).slice(0, body.spots)
    return body.by === 'place'
      ? { chosen: right.map((region) => region.id) }
      : { points: right.map((region) => middle(region.shape)) }
  },
  keyText: (body) =>
    named(
      body,
      body.regions.filter((region) => region.right).map((region) => region.id),
    ),
  answerText: (body, answer) =>
    answer.chosen ? named(body, answer.chosen) : (answer.points ?? []).map((at) => inWords(at, body)).join(' · '),
  comments(body, answer) {
    const chosen = new Set(answer.chosen ?? [])
    return body.regions
      .filter(
        (region) =>
          region.comment &&
          (body.by === 'place'
            ? chosen.has(region.id)
            : (answer.points ?? []).some((at) => contains(region.shape, at))),
      )
      .map((region) => region.comment)
  },
  mapHtml: (body, map) => ({
    ...body,
    regions: body.regions.map((region) => ({ ...region, comment: map(region.comment, `region:${region.id}:comment`) })),
  }),
}

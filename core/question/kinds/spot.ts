import { z } from 'zod'
import { certain, gathered, type Chances } from '../../kit/chances'
import { choose, share } from '../../kit/counting'
import { Fraction, atLeast, exact } from '../../kit/exact'
import { contains, middle, point, shape, type Point } from '../../kit/shapes'
import { mediaSource } from '../allowed-html'
import { html } from '../html-schema'
import type { Kind } from './kind'
import { closeIds, openIds } from './options'

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
        id: z.string().regex(/^[a-zA-Z0-9_-]{1,24}$/),
        shape,
        right: z.boolean(),
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
  /** What a wrong place takes away, as a share of what a right one earns. */
  wrongCost: z.number().min(0).max(1).multipleOf(0.01).default(0),
})
export type SpotBody = z.infer<typeof spotBody>

export const spotAnswer = z.strictObject({
  points: z.array(point).max(20).optional(),
  chosen: z.array(z.string().max(24)).max(20).optional(),
})
export type SpotAnswer = z.infer<typeof spotAnswer>

/** Places found: each right region once, whatever falls into it (QTI mapResponsePoint), and how many missed all of them. */
function found(body: SpotBody, answer: SpotAnswer): { hit: string[]; missed: number } {
  const right = body.regions.filter((region) => region.right)
  if (body.by === 'place') {
    const chosen = new Set((answer.chosen ?? []).slice(0, body.spots))
    return {
      hit: right.filter((region) => chosen.has(region.id)).map((region) => region.id),
      missed: body.regions.filter((region) => !region.right && chosen.has(region.id)).length,
    }
  }
  const points = (answer.points ?? []).slice(0, body.spots)
  return {
    hit: right.filter((region) => points.some((at) => contains(region.shape, at))).map((region) => region.id),
    missed: points.filter((at) => !right.some((region) => contains(region.shape, at))).length,
  }
}

const asked = (body: SpotBody) => Math.min(body.spots, body.regions.filter((region) => region.right).length)
const named = (body: SpotBody, ids: readonly string[]) =>
  body.regions.flatMap((region, i) => (ids.includes(region.id) ? [region.label || `place ${i + 1}`] : [])).join(' · ')
const inWords = (at: Point, body: SpotBody) =>
  `${Math.round((at.x / Math.max(1, body.width)) * 100)} % across, ${Math.round((at.y / Math.max(1, body.height)) * 100)} % down`

function ofPlaces(body: SpotBody, hits: number, missed: number): Fraction {
  const places = asked(body)
  const earned = new Fraction(Math.min(hits, places)).sub(exact(body.wrongCost).mul(missed))
  return places === 0 ? new Fraction(0) : atLeast(0, earned.div(places))
}

/** As many of the named places as are asked for, any of them. */
function guessesByName(body: SpotBody): Chances {
  const right = body.regions.filter((region) => region.right).length
  const chosen = Math.min(body.spots, body.regions.length)
  const all = choose(body.regions.length, chosen)
  return gathered(
    Array.from({ length: chosen + 1 }, (_, hits) => [
      ofPlaces(body, hits, chosen - hits),
      share(choose(right, hits) * choose(body.regions.length - right, chosen - hits), all),
    ]),
  )
}

/** A picture is looked at in so many places across and down: a region's share is known to about one in so many. */
const across = 200

/** Shares of the picture that each right region covers; where two overlap, the place is the first one's. */
function areas(body: SpotBody): number[] {
  const right = body.regions.filter((region) => region.right)
  const found = right.map(() => 0)
  for (let i = 0; i < across; i++)
    for (let j = 0; j < across; j++) {
      const at = { x: ((i + 0.5) * body.width) / across, y: ((j + 0.5) * body.height) / across }
      const hit = right.findIndex((region) => contains(region.shape, at))
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
  // ways[used][hits]: weight of placing so many points in the regions so far, with so many regions hit.
  let ways = Array.from({ length: spots + 1 }, (_, used) =>
    Array.from({ length: spots + 1 }, (__, hits) => (used === 0 && hits === 0 ? 1 : 0)),
  )
  for (const area of found) {
    const next = ways.map((row) => [...row])
    for (let used = 0; used <= spots; used++)
      for (let hits = 0; hits < spots; hits++)
        for (let here = 1; used + here <= spots; here++)
          next[used + here]![hits + 1]! += (ways[used]![hits]! * area ** here) / factorial(here)
    ways = next
  }
  return gathered(
    ways.flatMap((row, used) =>
      row.map((weight, hits) => {
        const missed = spots - used
        const chance = (factorial(spots) * weight * missing ** missed) / factorial(missed)
        return [ofPlaces(body, hits, missed), chance] as const
      }),
    ),
  )
}

/** A place on a picture (QTI selectPointInteraction, or hotspotInteraction where the places are shown). */
export const spot: Kind<SpotBody, SpotAnswer> = {
  name: 'spot',
  label: 'Spot on a picture',
  body: spotBody,
  answer: spotAnswer,
  blank: () => ({ picture: '', alt: '', width: 0, height: 0, regions: [], by: 'point', spots: 1, wrongCost: 0 }),
  faults(body) {
    const faults: string[] = []
    if (!body.picture) return ['There is no picture yet. Choose one.']
    if (!body.alt) faults.push('Say what the picture shows, for those who cannot see it.')
    const right = body.regions.filter((region) => region.right).length
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
      fraction: ofPlaces(body, hit.length, missed),
      parts: body.regions
        .filter((region) => region.right)
        .map((region) => ({ part: region.id, right: hit.includes(region.id) })),
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
    const right = body.regions.filter((region) => region.right).slice(0, body.spots)
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

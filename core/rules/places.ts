import { z } from 'zod'
import { count } from '../kit/phrases'
import { slot } from './pieces'
import type { Rule } from './rule'

/** Whether somebody finds no place: all have begun that may, and they have not. The one place that decides it. @param taken how many have begun */
export const noPlaceFor = (places: number | null, taken: number, hasBegun: boolean): boolean =>
  places !== null && !hasBegun && taken >= places

/** How many people may sit it at most: whoever begins first has a place. Null for as many as come. */
export const places: Rule<number | null> = {
  title: 'places',
  chapter: 'who',
  schema: z
    .int('Places are a whole number.')
    .min(1, 'At least one may sit it.')
    .max(100_000, 'There are at most 100,000 places.')
    .nullable(),
  usual: null,
  sentences: (value) => [
    {
      key: 'places',
      pieces: [
        'Of all of them ',
        slot('Places', ['rules', 'places'], value, value === null ? 'everybody' : `at most ${value}`, {
          sort: 'number',
          unit: 'people may sit it',
          min: 1,
          max: 100_000,
          step: 1,
          none: 'Everybody may sit it',
        }),
        ' may sit it.',
      ],
    },
  ],
  told: (value) =>
    value === null ? [] : [`There ${value === 1 ? 'is' : 'are'} ${count(value, 'place')}: who begins first has one.`],
  words: (value) => (value === null ? 'no bound' : String(value)),
}

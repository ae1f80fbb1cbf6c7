import { z } from 'zod'
import { id } from '../question/schema'

/** What a displayed percentage from a boundary on is called: "B" from 70. */
export const scaleBand = z.strictObject({
  /** Percent. */
  from: z
    .number('A boundary is a number of percent.')
    .min(0, 'A boundary is at least 0 %.')
    .max(100, 'A boundary is at most 100 %.')
    .multipleOf(0.01, 'Boundaries go in hundredths of a percent.'),
  label: z.string().trim().min(1, 'Give each band its name.').max(40, 'The name of a band has at most 40 characters.'),
})
export type ScaleBand = z.infer<typeof scaleBand>

const falling = (bands: readonly ScaleBand[]) => [...bands].sort((a, b) => b.from - a.from)

/** What is wrong with bands taken together, in a sentence; null for nothing. */
export function scaleFault(bands: readonly ScaleBand[]): string | null {
  const sorted = falling(bands)
  const lowest = sorted.at(-1)
  if (!lowest) return 'A scale has at least one band.'
  if (lowest.from > 0) return `Below ${lowest.from} % there is no band. Let the lowest begin at 0 %.`
  const twice = sorted.find((each, i) => sorted[i - 1]?.from === each.from)
  if (twice) return `Two bands begin at ${twice.from} %. Each begins at a boundary of its own.`
  const alike = sorted.find((each, i) => sorted.findIndex(({ label }) => label === each.label) < i)
  return alike ? `Two bands are called “${alike.label}”. Give each its own name.` : null
}

export const scaleBands = z
  .array(scaleBand)
  .max(40, 'A scale has at most 40 bands.')
  .superRefine((bands, context) => {
    const fault = scaleFault(bands)
    if (fault) context.addIssue({ code: 'custom', message: fault })
  })

/** How a grade is told (semantics §1). A quiz keeps the bands of its scale: a scale that is changed changes no grade that was told. */
export const scale = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('percent') }),
  z.strictObject({ by: z.literal('points') }),
  z.strictObject({ by: z.literal('passed') }),
  z.strictObject({ by: z.literal('bands'), id, name: z.string().min(1).max(80), bands: scaleBands }),
])
export type Scale = z.infer<typeof scale>

/** A scale that a school keeps. */
export interface SchoolScale {
  id: string
  name: string
  bands: ScaleBand[]
}

/** The band of a displayed percentage. @param percent "72.5": what people read decides, so that the two never disagree */
export function bandOf(bands: readonly ScaleBand[], percent: string): string {
  const reached = falling(bands).find(({ from }) => Number(percent) >= from)
  return (reached ?? falling(bands).at(-1)!).label
}

/**
 * A grade as its scale tells it: "72.5 %", "14.5 of 20 points", "B", "passed". Null without a grade.
 * @param possible the points possible as people read them
 */
export function gradeText(
  grade: { percent: string | null; points: string | null; passed: boolean | null },
  told: Scale,
  possible: string | null,
): string | null {
  if (grade.percent === null) return null
  switch (told.by) {
    case 'percent':
      return `${grade.percent} %`
    case 'points':
      return grade.points === null || possible === null ? `${grade.percent} %` : `${grade.points} of ${possible} points`
    case 'passed':
      // Without a pass mark nobody passes or fails.
      return grade.passed === null ? `${grade.percent} %` : grade.passed ? 'passed' : 'not passed'
    case 'bands':
      return bandOf(told.bands, grade.percent)
  }
}

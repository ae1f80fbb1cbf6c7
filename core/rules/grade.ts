import { z } from 'zod'
import { id } from '../question/schema'
import { exact, pointsText } from '../kit/exact'
import { count, list } from '../kit/phrases'
import { scale, type Scale, type ScaleBand, type SchoolScale } from '../marking/scale'
import { look, stop, type Found } from '../quiz/check/check'
import { addTo, removeFrom, setAt } from '../quiz/edits/make'
import { same } from '../quiz/edits/paths'
import type { Quiz } from '../quiz/schema'
import { allRows, pointsOf } from '../quiz/walk'
import { makesGrade } from './counts'
import { choice, slot } from './pieces'
import type { Option, Piece, Rule } from './rule'
import { percent } from './values'

export const gradeMethods = ['highest', 'latest', 'first', 'average', 'lowest'] as const
export type GradeMethod = (typeof gradeMethods)[number]
export interface PassMark {
  by: 'percent' | 'points'
  value: number
}
export interface SectionPass {
  /** Ids are one a quiz: `passMarkId` of the section. */
  id: string
  section: string
  percent: number
}
export const passMarkId = (section: string): string => `pass-${section}`
export interface GradeRule {
  method: GradeMethod
  decimals: number
  pass: PassMark | null
  /** How the grade is told. */
  scale: Scale
  /** Pass marks of single sections, in percent of their points (semantics §1). */
  sections: SectionPass[]
}

const methodWords: Record<GradeMethod, string> = {
  highest: 'the highest attempt',
  latest: 'the latest attempt',
  first: 'the first attempt',
  average: 'the average of all attempts',
  lowest: 'the lowest attempt',
}

/** "60 %", "12 points". */
export function passWords(pass: PassMark): string {
  return pass.by === 'percent' ? `${pointsText(pass.value)} %` : `${pointsText(pass.value)} points`
}
const passOr = (pass: PassMark | null) => (pass ? passWords(pass) : 'nothing: there is no pass mark')

const decimalsWords = (decimals: number) => (decimals === 0 ? 'no decimals' : count(decimals, 'decimal'))
const path = (name: keyof GradeRule) => ['rules', 'grade', name]

function passChecks(pass: PassMark | null, quiz: Quiz): Found {
  const possible = exact(pointsOf(allRows(quiz.content)))
  const most = pass?.by === 'percent' ? exact(100) : possible
  if (!pass || possible.equals(0) || exact(pass.value).compare(most) <= 0) return []
  const reachable = passWords({ ...pass, value: most.valueOf() })
  return [
    stop(
      'pass-out-of-reach',
      'rules',
      'Nobody can pass',
      `The pass mark is ${passWords(pass)}, and at most ${reachable} can be reached.`,
      { label: `Lower it to ${reachable}`, edit: setAt(quiz, path('pass'), { ...pass, value: most.valueOf() }) },
    ),
  ]
}

const scaleNames = { percent: 'percent', points: 'points', passed: 'passed or not passed' }
const scaleWords = (told: Scale): string => (told.by === 'bands' ? told.name : scaleNames[told.by])

/** The school's scales, and the one of the quiz as it is kept there. */
function scaleOptions(told: Scale, scales: readonly SchoolScale[]): Option[] {
  const own = told.by === 'bands' && !scales.some((each) => same(asScale(each), told)) ? [told] : []
  return [
    ...(['percent', 'points', 'passed'] as const).map((by) => ({ value: { by }, label: scaleNames[by] })),
    ...[...own, ...scales.map(asScale)].map((each) => ({ value: each, label: scaleWords(each) })),
  ]
}
const asScale = ({ id, name, bands }: SchoolScale): Scale => ({ by: 'bands', id, name, bands })

/** "A from 85 %, B from 70 %, C below that". */
function bandsInWords(bands: readonly ScaleBand[]): string[] {
  return [...bands]
    .sort((a, b) => b.from - a.from)
    .map(({ label, from }) => (from ? `${label} from ${pointsText(from)} %` : `${label} below that`))
}

function scaleChecks(told: Scale, pass: PassMark | null, quiz: Quiz, scales: readonly SchoolScale[]): Found {
  if (told.by === 'passed' && pass === null)
    return [
      look(
        'scale-without-pass',
        'rules',
        'Nobody is told whether they passed',
        'The grade is told as passed or not, and there is no pass mark: students read percent.',
        { label: 'Pass from 60 %', edit: setAt(quiz, path('pass'), { by: 'percent', value: 60 }) },
      ),
    ]
  const now = told.by === 'bands' ? scales.find(({ id }) => id === told.id) : undefined
  if (!now || same(asScale(now), told)) return []
  return [
    look(
      'scale-changed',
      'rules',
      'The school’s scale has changed',
      `“${now.name}” has other bands by now than this quiz tells grades by.`,
      { label: 'Take the new bands', edit: setAt(quiz, path('scale'), asScale(now)) },
    ),
  ]
}

type Sections = { content: { sections: readonly { id: string; title: string }[] } }
const titleOf = (section: string, { content }: Sections): string | undefined =>
  content.sections.find((each) => each.id === section)?.title

const sectionPath = path('sections')
/** Sections of which some are to be passed: one alone is the quiz. */
const passable = ({ content }: Quiz) =>
  content.sections.length < 2 ? [] : content.sections.filter((section) => pointsOf(section.rows) > 0)

function sectionOffers(sections: readonly SectionPass[], quiz: Quiz): Piece[] {
  const without = passable(quiz).filter((section) => !sections.some((each) => each.section === section.id))
  if (!without.length) return []
  const edit = addTo(
    sectionPath,
    sections.at(-1)?.id ?? null,
    without.map((section) => ({ id: passMarkId(section.id), section: section.id, percent: 50 })),
  )
  return [' ', { offer: sections.length ? 'the other sections as well' : 'pass marks of sections as well', edit }]
}

/** “Beside that, 50 % in “Tides” …”, of sections that there are. */
function sectionSentence(sections: readonly SectionPass[], quiz: Quiz) {
  const there = sections.filter(({ section }) => titleOf(section, quiz) !== undefined)
  if (!there.length) return []
  const pieces = there.flatMap(({ id: mark, section, percent: needed }, index): Piece[] => {
    const title = titleOf(section, quiz)!
    return [
      index ? ', ' : '',
      slot(`Pass mark of ${title}`, [...sectionPath, mark, 'percent'], needed, `${needed} %`, {
        sort: 'number',
        unit: '% of its points',
        min: 0.5,
        max: 100,
        step: 0.5,
      }),
      ` in “${title}” `,
      { offer: `not in “${title}”`, edit: removeFrom(quiz, sectionPath, [mark]) },
    ]
  })
  return [{ key: 'sections', pieces: ['Beside that it takes ', ...pieces, '.'] }]
}

const sectionWords = (sections: readonly SectionPass[], quiz: Sections): string =>
  list(sections.map((each) => `${each.percent} % in “${titleOf(each.section, quiz) ?? 'a section that is gone'}”`)) ||
  'none'

function sectionChecks(sections: readonly SectionPass[], quiz: Quiz): Found {
  const there = new Set(passable(quiz).map((section) => section.id))
  const idle = sections.filter((each) => !there.has(each.section)).map((each) => each.id)
  if (!idle.length) return []
  return [
    look(
      'section-pass-idle',
      'rules',
      'A pass mark of a section that gives no points',
      'A section that is gone, or in which nothing gives points, has a pass mark: it keeps nobody from passing.',
      { label: 'Take it out', edit: removeFrom(quiz, sectionPath, idle) },
    ),
  ]
}

/** Which attempt counts, how the grade is rounded, and what passes (semantics §6, §1). */
export const grade: Rule<GradeRule> = {
  title: 'grade',
  chapter: 'marks',
  schema: z.strictObject({
    method: z.enum(gradeMethods),
    decimals: z.int().min(0).max(3),
    pass: z
      .strictObject({ by: z.enum(['percent', 'points']), value: z.number().min(0).max(100_000).multipleOf(0.001) })
      .nullable(),
    scale,
    sections: z
      .array(z.strictObject({ id, section: id, percent: percent.min(0.5, 'A pass mark is at least half a percent.') }))
      .max(40, 'There are at most 40 sections.'),
  }),
  usual: { method: 'highest', decimals: 1, pass: { by: 'percent', value: 60 }, scale: { by: 'percent' }, sections: [] },
  sentences: (value, { quiz, scales }) => [
    ...(quiz.rules.attempts.count === 1
      ? []
      : [
          {
            key: 'method',
            pieces: [
              choice(
                'Grading method',
                path('method'),
                value.method,
                gradeMethods.map((method) => ({ value: method, label: methodWords[method] })),
              ),
              ' counts.',
            ],
          },
        ]),
    {
      key: 'decimals',
      pieces: [
        'The grade has ',
        choice(
          'Decimals',
          path('decimals'),
          value.decimals,
          [0, 1, 2, 3].map((decimals) => ({ value: decimals, label: decimalsWords(decimals) })),
        ),
        ' and is told as ',
        choice('Scale', path('scale'), value.scale, scaleOptions(value.scale, scales), scaleWords(value.scale)),
        '.',
      ],
    },
    ...(!makesGrade(quiz.rules.counts)
      ? []
      : [
          {
            key: 'pass',
            pieces: [
              'To pass takes ',
              choice(
                'Pass mark',
                path('pass'),
                value.pass,
                (['percent', 'points'] as const)
                  .map((by) => ({
                    value: { by, value: 60 },
                    label: by === 'percent' ? '% of the points' : 'points',
                    fill: {
                      key: 'value',
                      sort: 'number' as const,
                      label: `Pass mark in ${by}`,
                      min: 0,
                      max: by === 'percent' ? 100 : 100_000,
                      step: 0.5,
                    },
                  }))
                  .concat([{ value: null, label: 'nothing: there is no pass mark' } as never]),
                passOr(value.pass),
              ),
              '.',
              ...sectionOffers(value.sections, quiz),
            ],
          },
          ...sectionSentence(value.sections, quiz),
        ]),
  ],
  told: (value, { schedule, quiz }) => [
    ...(value.scale.by === 'bands' ? [`The grade is told as ${list(bandsInWords(value.scale.bands))}.`] : []),
    ...(value.pass && makesGrade(quiz.rules.counts) ? [`To pass takes ${passWords(value.pass)}.`] : []),
    ...(makesGrade(quiz.rules.counts)
      ? value.sections.flatMap(({ section, percent: needed }) => {
          const title = titleOf(section, quiz)
          return title === undefined ? [] : [`To pass, you need ${needed} % in “${title}”.`]
        })
      : []),
    ...(schedule.attempts.count === 1 ? [] : [`Of your attempts, ${methodWords[value.method]} counts.`]),
  ],
  checks({ pass, scale: told, sections }, quiz, { scales }) {
    return [...passChecks(pass, quiz), ...scaleChecks(told, pass, quiz, scales), ...sectionChecks(sections, quiz)]
  },
  words: (value) => `${methodWords[value.method]}, ${passOr(value.pass)}`,
  changed(before, after, { quiz }) {
    const parts: [keyof GradeRule, string, (value: GradeRule) => string][] = [
      ['method', 'what counts', (value) => methodWords[value.method]],
      ['decimals', 'decimals', (value) => String(value.decimals)],
      ['scale', 'grade told as', (value) => scaleWords(value.scale)],
      ['sections', 'pass marks of sections', (value) => sectionWords(value.sections, quiz)],
      ['pass', 'pass mark', (value) => (value.pass ? passWords(value.pass) : 'none')],
    ]
    return parts
      .filter(([name]) => !same(before[name], after[name]))
      .map(([, title, words]) => `${title} ${words(before)} → ${words(after)}`)
  },
}

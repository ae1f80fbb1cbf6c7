import { completed, kinds, type Question } from '../../core/question'
import { objectiveId } from '../objectives'

/** Short ways to write the demo bank. Each gives a question and its place in the bank. */
export interface DemoQuestion {
  id: string
  question: Question
}

/** About a question: id, objective's code, difficulty 1–5, expected seconds. */
export type About = [id: string, objective: string, difficulty: number, seconds: number]

interface Extra {
  right?: string
  wrong?: string
  general?: string
  points?: number
  tags?: string[]
  source?: string
  name?: string
}

const paragraph = (text: string) => (text.startsWith('<') ? text : `<p>${text}</p>`)

function common([, objective, difficulty, seconds]: About, stem: string, extra: Extra) {
  return {
    internalName: extra.name ?? '',
    language: 'en',
    stem: paragraph(stem),
    points: extra.points ?? 1,
    seconds,
    difficulty,
    objectives: [objectiveId(objective)],
    tags: extra.tags ?? [],
    source: extra.source ?? '',
    levels: { taxonomy: `v${Math.min(4, difficulty)}` } as Record<string, string>,
    fields: { course: difficulty > 3 ? 'coastal' : 'inshore' } as Record<string, string>,
    comments: { right: extra.right ?? '', wrong: extra.wrong ?? '', general: extra.general ?? '' },
  }
}

const ids = 'abcdefghij'
/** A distractor, with a comment for who chooses it. */
type Option = string | [html: string, comment: string]
const html = (option: Option) => (typeof option === 'string' ? option : option[0])
const comment = (option: Option) => (typeof option === 'string' ? '' : option[1])

export function choice(about: About, stem: string, right: string, wrong: Option[], extra: Extra = {}): DemoQuestion {
  const options = [right, ...wrong].map((option, i) => ({
    id: ids[i]!,
    html: html(option),
    comment: comment(option),
    fixed: html(option).startsWith('None of'),
    credit: i === 0 ? 1 : 0,
  }))
  return {
    id: about[0],
    question: completed({
      ...common(about, stem, extra),
      kind: 'choice',
      body: { options, inOrder: false },
    } as Question),
  }
}

type ChoicesRule = Extract<Question, { kind: 'choices' }>['body']['rule']

export function choices(
  about: About,
  stem: string,
  rule: ChoicesRule,
  right: Option[],
  wrong: Option[],
  extra: Extra = {},
): DemoQuestion {
  const options = [...right, ...wrong].map((option, i) => ({
    id: ids[i]!,
    html: html(option),
    comment: comment(option),
    fixed: false,
    right: i < right.length,
    credit: i < right.length ? 1 : -1,
  }))
  return {
    id: about[0],
    question: completed({
      ...common(about, stem, extra),
      kind: 'choices',
      body: { options, inOrder: false, rule, lower: 0, upper: null, tellHowMany: rule === 'all' },
    } as Question),
  }
}

export function truth(about: About, stem: string, isTrue: boolean, extra: Extra = {}): DemoQuestion {
  const options = [
    ['true', 'True', isTrue],
    ['false', 'False', !isTrue],
  ] as const
  return {
    id: about[0],
    question: completed({
      ...common(about, stem, extra),
      kind: 'trueFalse',
      body: {
        options: options.map(([id, text, right]) => ({
          id,
          html: text,
          comment: '',
          fixed: true,
          credit: right ? 1 : 0,
        })),
        inOrder: true,
      },
    } as Question),
  }
}

type Near = Extract<Question, { kind: 'number' }>['body']['answers'][number]['near']
export const within = (tolerance: string): Near => ({ by: 'absolute', tolerance })

export function number(
  about: About,
  stem: string,
  label: string,
  value: string,
  near: Near,
  unit: string,
  extra: Extra & { unitAsked?: boolean } = {},
): DemoQuestion {
  return {
    id: about[0],
    question: completed({
      ...common(about, stem, extra),
      kind: 'number',
      body: {
        answers: [{ value, near, credit: 1, comment: '' }],
        label,
        unit,
        unitAsked: extra.unitAsked ?? false,
        style: 'point',
      },
    } as Question),
  }
}

type How = Extract<Question, { kind: 'text' }>['body']['answers'][number]['how']

export function text(
  about: About,
  stem: string,
  answers: [How, string, number?][],
  extra: Extra & { label?: string } = {},
): DemoQuestion {
  return {
    id: about[0],
    question: completed({
      ...common(about, stem, extra),
      kind: 'text',
      body: {
        answers: answers.map(([how, accepted, credit = 1]) => ({ how, text: accepted, credit, comment: '' })),
        caseMatters: false,
        accentsMatter: false,
        label: extra.label ?? '',
        longest: 60,
      },
    } as Question),
  }
}

type BodyOf<K extends Question['kind']> = Extract<Question, { kind: K }>['body']

/** A question of any kind, with the body as its kind describes it; what is left out is blank. */
export function of<K extends Question['kind']>(
  kind: K,
  about: About,
  stem: string,
  body: Partial<BodyOf<K>>,
  extra: Extra & Partial<Question> = {},
): DemoQuestion {
  const { right: _r, wrong: _w, general: _g, name: _n, ...more } = extra
  return {
    id: about[0],
    question: completed({ ...common(about, stem, extra), ...more, kind, body } as unknown as Question),
  }
}

/** Steps in their right order. */
export const order = (
  about: About,
  stem: string,
  lines: string[],
  { rule = 'moves', ...extra }: Extra & { rule?: BodyOf<'ordering'>['rule'] } = {},
) =>
  of(
    'ordering',
    about,
    stem,
    { rule, items: lines.map((line, i) => ({ id: ids[i]!, html: line, comment: '' })) },
    extra as Extra,
  )

/** Pairs, and partners that are left over. */
export const match = (about: About, stem: string, pairs: [string, string][], spare: string[] = [], extra: Extra = {}) =>
  of(
    'matching',
    about,
    stem,
    {
      items: pairs.map(([left], i) => ({ id: ids[i]!, html: left, comment: '', target: ids[i]! })),
      wrongCost: 0,
      targets: [...pairs.map(([, right]) => right), ...spare].map((right, i) => ({ id: ids[i]!, html: right })),
    },
    extra,
  )

/** Rows with the columns that are right in each. */
export const tick = (
  about: About,
  stem: string,
  columns: string[],
  rows: Record<string, string[]>,
  extra: Extra = {},
) =>
  of(
    'grid',
    about,
    stem,
    {
      columns: columns.map((html, i) => ({ id: `c${i}`, html })),
      rows: Object.entries(rows).map(([html, right], i) => ({
        id: `r${i}`,
        html,
        comment: '',
        right: right.map((name) => `c${columns.indexOf(name)}`),
      })),
    },
    extra,
  )

/** Groups with what belongs to each; what belongs to none stands under ''. */
export const sort = (about: About, stem: string, groups: Record<string, string[]>, extra: Extra = {}) => {
  const names = Object.keys(groups).filter(Boolean)
  return of(
    'sorting',
    about,
    stem,
    {
      targets: names.map((name, i) => ({ id: `g${i}`, html: name })),
      wrongCost: 0.5,
      items: Object.entries(groups)
        .flatMap(([name, things]) =>
          things.map((thing) => ({ thing, target: name ? `g${names.indexOf(name)}` : null })),
        )
        .map(({ thing, target }, i) => ({ id: `t${i}`, html: thing, comment: '', target })),
    },
    extra,
  )
}

/**
 * A text whose gaps stand in brackets: [word] is typed, [3.9 ± 0.1 m] a number, [right | wrong | wrong] a list.
 */
export function fill(about: About, stem: string, source: string, extra: Extra = {}): DemoQuestion {
  const gaps: BodyOf<'gaps'>['gaps'] = []
  const text = source.replace(/\[([^\]]+)\]/g, (_whole, inner: string) => {
    const id = `g${gaps.length + 1}`
    const parts = inner.split('|').map((part) => part.trim())
    const read = /^(-?[\d.]+)(?: ± ([\d.]+))?(?: (.+))?$/.exec(inner)
    if (parts.length > 1)
      gaps.push({
        id,
        weight: 1,
        as: 'list',
        body: {
          ...kinds.choice.blank(),
          options: parts.map((html, i) => ({ id: ids[i]!, html, comment: '', fixed: false, credit: i === 0 ? 1 : 0 })),
        },
      })
    else if (read)
      gaps.push({
        id,
        weight: 1,
        as: 'number',
        body: {
          ...kinds.number.blank(),
          unit: read[3] ?? '',
          answers: [{ value: read[1]!, near: within(read[2] ?? '0'), credit: 1, comment: '' }],
        },
      })
    else
      gaps.push({
        id,
        weight: 1,
        as: 'text',
        body: {
          ...kinds.text.blank(),
          slips: inner.length > 6 ? 1 : 0,
          answers: [{ how: 'is', text: inner, credit: 1, comment: '' }],
        },
      })
    return `<span data-gap="${id}">${parts[0]}</span>`
  })
  return of('gaps', about, stem, { text: `<p>${text}</p>`, gaps }, extra)
}

type VaryOf = NonNullable<Question['vary']>
/** Variables in short: a list, a range "4..6 by 0.5", or "= computed". */
export const varies = (variables: Record<string, string | string[]>, ...conditions: string[]): VaryOf => ({
  conditions,
  variables: Object.entries(variables).map(([name, over]) => {
    if (Array.isArray(over)) return { name, over: { by: 'list' as const, values: over } }
    if (over.startsWith('=')) return { name, over: { by: 'computed' as const, as: over.slice(1).trim() } }
    const [, from, to, step] = /^(\S+)\.\.(\S+) by (\S+)$/.exec(over)!
    return { name, over: { by: 'range' as const, from: from!, to: to!, step: step! } }
  }),
})

/** A number that varies from paper to paper. */
export const varyingNumber = (
  about: About,
  stem: string,
  label: string,
  key: string,
  near: Near,
  unit: string,
  vary: VaryOf,
  extra: Extra = {},
) =>
  of(
    'number',
    about,
    stem,
    { answers: [{ value: `{= ${key}}`, near, credit: 1, comment: '' }], label, unit, unitAsked: false, style: 'point' },
    { ...extra, vary } as Extra,
  )

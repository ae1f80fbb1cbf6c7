import { completed, type Question } from '../../core/question'
import { objectiveId } from '../objectives'

/** Short ways to write the demo bank. Each gives a question and its place in the bank. */
export interface DemoQuestion { id: string, question: Question }

/** About a question: id, objective's code, difficulty 1–5, expected seconds. */
export type About = [id: string, objective: string, difficulty: number, seconds: number]

interface Extra { right?: string, wrong?: string, general?: string, points?: number, tags?: string[], source?: string, name?: string }

const paragraph = (text: string) => (text.startsWith('<') ? text : `<p>${text}</p>`)

function common([, objective, difficulty, seconds]: About, stem: string, extra: Extra) {
  return {
    internalName: extra.name ?? '', language: 'en', stem: paragraph(stem), points: extra.points ?? 1, seconds, difficulty,
    objectives: [objectiveId(objective)], tags: extra.tags ?? [], source: extra.source ?? '',
    comments: { right: extra.right ?? '', wrong: extra.wrong ?? '', general: extra.general ?? '' },
  }
}

const ids = 'abcdefghij'
/** A distractor, with a comment for who chooses it. */
type Option = string | [html: string, comment: string]
const html = (option: Option) => (typeof option === 'string' ? option : option[0])
const comment = (option: Option) => (typeof option === 'string' ? '' : option[1])

export function choice(about: About, stem: string, right: string, wrong: Option[], extra: Extra = {}): DemoQuestion {
  const options = [right, ...wrong].map((option, i) => ({ id: ids[i]!, html: html(option), comment: comment(option), fixed: html(option).startsWith('None of'), credit: i === 0 ? 1 : 0 }))
  return { id: about[0], question: completed({ ...common(about, stem, extra), kind: 'choice', body: { options, inOrder: false } } as Question) }
}

type ChoicesRule = Extract<Question, { kind: 'choices' }>['body']['rule']

export function choices(about: About, stem: string, rule: ChoicesRule, right: Option[], wrong: Option[], extra: Extra = {}): DemoQuestion {
  const options = [...right, ...wrong].map((option, i) => ({ id: ids[i]!, html: html(option), comment: comment(option), fixed: false, right: i < right.length, credit: i < right.length ? 1 : -1 }))
  return { id: about[0], question: completed({ ...common(about, stem, extra), kind: 'choices', body: { options, inOrder: false, rule, lower: 0, upper: null, tellHowMany: rule === 'all' } } as Question) }
}

export function truth(about: About, stem: string, isTrue: boolean, extra: Extra = {}): DemoQuestion {
  const options = [['true', 'True', isTrue], ['false', 'False', !isTrue]] as const
  return { id: about[0], question: completed({ ...common(about, stem, extra), kind: 'trueFalse', body: { options: options.map(([id, text, right]) => ({ id, html: text, comment: '', fixed: true, credit: right ? 1 : 0 })), inOrder: true } } as Question) }
}

type Near = Extract<Question, { kind: 'number' }>['body']['answers'][number]['near']
export const within = (tolerance: string): Near => ({ by: 'absolute', tolerance })

export function number(about: About, stem: string, label: string, value: string, near: Near, unit: string, extra: Extra & { unitAsked?: boolean } = {}): DemoQuestion {
  return { id: about[0], question: completed({ ...common(about, stem, extra), kind: 'number', body: { answers: [{ value, near, credit: 1, comment: '' }], label, unit, unitAsked: extra.unitAsked ?? false, style: 'point' } } as Question) }
}

type How = Extract<Question, { kind: 'text' }>['body']['answers'][number]['how']

export function text(about: About, stem: string, answers: [How, string, number?][], extra: Extra & { label?: string } = {}): DemoQuestion {
  return {
    id: about[0],
    question: completed({ ...common(about, stem, extra), kind: 'text', body: { answers: answers.map(([how, accepted, credit = 1]) => ({ how, text: accepted, credit, comment: '' })), caseMatters: false, accentsMatter: false, label: extra.label ?? '', longest: 60 } } as Question),
  }
}

import { kindOf, plainText, type Question } from '../core/question'
import { languageName } from '../core/question/language-name'

/** What of a question only some formats carry; each with the words for what is there, or null. */
const features = {
  hints: (question: Question) => {
    const n = question.hints.length
    return n === 0 ? null : n === 1 ? 'a hint' : `${n} hints`
  },
  translations: ({ translations }: Question) => {
    const languages = Object.keys(translations)
    return languages.length ? `its text in ${languages.map(languageName).join(', ')}` : null
  },
  stimulus: ({ stimulus }: Question) => (stimulus === null ? null : 'that it shares a stimulus with others'),
  vary: ({ vary }: Question) => (vary ? 'that its values vary: it goes out with those of one paper' : null),
  tools: ({ tools }: Question) => (tools.length ? `that a ${tools.join(' and ')} is allowed` : null),
  levels: ({ levels }: Question) => (Object.keys(levels).length ? 'its thinking levels' : null),
  fields: ({ fields, grade }: Question) =>
    Object.values(fields).some(Boolean) || grade ? 'its grade level and the school’s own fields' : null,
  source: ({ source }: Question) => (source ? `where it comes from (“${source}”)` : null),
  difficulty: () => null,
  comments: ({ comments, body }: Question) =>
    Object.values(comments).some(Boolean) || /"comment":"[^"]/.test(JSON.stringify(body)) ? 'comments' : null,
  partComments: ({ body }: Question) =>
    /"comment":"[^"]/.test(JSON.stringify(body)) ? 'comments on single options or answers' : null,
  maths: (question: Question) => (/data-latex=/.test(JSON.stringify(question)) ? 'maths as such' : null),
  media: (question: Question) =>
    /\/api\/media\//.test(JSON.stringify(question)) ? 'pictures, sounds, films and documents' : null,
  plays: (question: Question) =>
    /data-plays=/.test(JSON.stringify(question)) ? 'how often a sound or film may be played' : null,
  units: (question: Question) => {
    const bodies =
      question.kind === 'number'
        ? [question.body]
        : question.kind === 'gaps'
          ? question.body.gaps.flatMap((gap) => (gap.as === 'number' ? [gap.body] : []))
          : []
    return bodies.some(({ unitAsked }) => unitAsked) ? 'that the unit has to be written, and is converted' : null
  },
  slips: (question: Question) => {
    const bodies =
      question.kind === 'text'
        ? [question.body]
        : question.kind === 'gaps'
          ? question.body.gaps.flatMap((gap) => (gap.as === 'text' ? [gap.body] : []))
          : []
    return bodies.some(({ slips }) => slips > 0) ? 'that slips of typing are forgiven' : null
  },
  orderRule: (question: Question) =>
    question.kind === 'ordering' && question.body.rule === 'moves'
      ? 'that a part of the order earns a share: there it is the whole order or nothing'
      : null,
  rubric: ({ body }: Question) =>
    'rubric' in body && body.rubric.length ? 'its rubric as one that is marked by: it stands there as text' : null,
  scoring: (question: Question) => scoringWords(question),
  keyless: ({ keyless }: Question) => (keyless ? 'that it has no key' : null),
} as const
export type Feature = keyof typeof features

/** Ways of scoring that a line or a list has no words for. */
function scoringWords(question: Question): string | null {
  switch (question.kind) {
    case 'choice':
    case 'trueFalse':
    case 'yesNo':
      return question.body.options.some(({ credit }) => credit !== 0 && credit !== 1)
        ? 'credits of single options'
        : null
    case 'choices':
      return question.body.rule === 'share' ? null : 'how its options are scored'
    case 'number':
      return question.body.answers.some(({ credit, near }) => credit !== 1 || near.by === 'between') ||
        new Set(question.body.answers.map(({ near }) => JSON.stringify(near))).size > 1
        ? 'what each accepted number earns, and how near it has to be'
        : null
    case 'text':
      return question.body.answers.some(({ how, credit }) => how !== 'is' || credit !== 1) ||
        question.body.caseMatters ||
        question.body.accentsMatter
        ? 'how its answers are compared, and what each earns'
        : null
    case 'ordering':
      return question.body.rule === 'moves' ? null : 'how its order is scored'
    case 'matching':
      return question.body.wrongCost ||
        question.body.rule !== 'share' ||
        question.body.items.some(({ weight }) => weight)
        ? 'how its pairs are scored'
        : null
    default:
      return null
  }
}

/** What a reader of a file will not see of one question. */
export interface Unseen {
  id: string
  title: string
  what: string[]
}

/** What of a question a format has no place for, in words. @param carries what it has a place for */
export function unseenIn(question: Question, carries: ReadonlySet<Feature>): string[] {
  return (Object.keys(features) as Feature[]).flatMap((name) => {
    const words = carries.has(name) ? null : features[name](question)
    return words === null ? [] : [words]
  })
}

/** What it is called for the person who is asked. */
export const titleOf = (question: Question): string =>
  question.internalName || plainText(question.stem).slice(0, 80) || kindOf(question.kind).label

import { diffWordsWithSpace } from 'diff'
import { plainText } from './allowed-html'
import { kindOf } from './kinds'
import type { Question } from './schema'
import { textsOf } from './texts'

/** One part of a question that differs between two versions; the pieces read in order make the old and the new text. */
export interface Difference {
  part: string
  pieces: { text: string; was: boolean; is: boolean }[]
}

/** A text's key in words for people: "option b", "comment when right". */
function partName(key: string): string {
  const names: Record<string, string> = {
    stem: 'question',
    right: 'comment when right',
    wrong: 'comment when not right',
    general: 'comment in any case',
    text: 'text with gaps',
  }
  return names[key] ?? key.replace(/:comment$/, ', comment').replace(':', ' ')
}

const told = (value: unknown): string =>
  value === true ? 'yes' : value === false ? 'no' : value === null ? 'none' : String(value)
const spaced = (name: string) => name.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase()
/** What texts show already. */
const inTexts = new Set(['html', 'comment', 'text', 'id', 'words', 'title', 'model'])
/** What the key says in words. */
const inKey = new Set(['value', 'near', 'credit', 'right', 'target', 'shape', 'how'])

/** Rules of scoring, tolerances, layouts: each under its place, such as "answers 2 credit". */
function settings(value: unknown, words: (id: string) => string, place: string[] = []): [string, string][] {
  if (Array.isArray(value)) return value.flatMap((each, i) => settings(each, words, [...place, String(i + 1)]))
  if (value === null || typeof value !== 'object') return [[place.join(' '), told(value)]]
  // Credits are kept by the ids of what they are for.
  if (place.at(-1) === 'credits')
    return Object.entries(value).map(([id, each]) => [`${place.join(' ')}, ${words(id)}`, told(each)])
  return Object.entries(value).flatMap(([name, each]) =>
    inTexts.has(name) || inKey.has(name) ? [] : settings(each, words, [...place, spaced(name)]),
  )
}

/** What the places of pairs and the columns of a grid are called. */
function placeWords(body: Question['body']): (id: string) => string {
  const places = 'targets' in body ? body.targets : 'columns' in body ? body.columns : []
  const words = new Map(places.map(({ id, html }) => [id, plainText(html)]))
  return (id) => words.get(id) ?? id
}

/** Everything of a question that people read, by part. */
function parts(question: Question): Map<string, string> {
  const texts = new Map([...textsOf(question)].map(([key, html]) => [partName(key), plainText(html)]))
  const about = {
    key: kindOf(question.kind).keyText(question.body),
    kind: question.kind,
    points: String(question.points),
    'expected time': `${question.seconds} s`,
    difficulty: String(question.difficulty),
    'internal name': question.internalName,
    tags: question.tags.join(', '),
    source: question.source,
    language: question.language,
    tools: question.tools.join(', '),
    'grade level': question.grade,
    'thinking levels': Object.values(question.levels).join(', '),
    'own fields': Object.values(question.fields).join(', '),
    stimulus: question.stimulus ?? '',
    objectives: question.objectives.join(', '),
    variables: question.vary
      ? question.vary.variables
          .map(({ name, over }) => `${name}: ${Object.values(over).flat().join(' ')}`)
          .concat(question.vary.conditions)
          .join('; ')
      : '',
  }
  for (const [name, value] of Object.entries(about)) texts.set(name, value)
  for (const [place, value] of settings(question.body, placeWords(question.body))) texts.set(place, value)
  for (const [language, translated] of Object.entries(question.translations))
    for (const [key, html] of Object.entries(translated)) texts.set(`${partName(key)} in ${language}`, plainText(html))
  // The key's words may leave out how near, or how much each earns: told where the words are the same.
  texts.set('key, in full', keyInFull(question.body))
  return texts
}

/** The parts of a key, one after another. */
function keyInFull(value: unknown, name = ''): string {
  if (Array.isArray(value))
    return value
      .map((each) => keyInFull(each))
      .filter(Boolean)
      .join('; ')
  if (value === null || typeof value !== 'object') return inKey.has(name) ? `${name} ${told(value)}` : ''
  return Object.entries(value)
    .map(([inner, each]) =>
      inKey.has(inner) && typeof each === 'object' && each !== null
        ? `${inner} ${Object.values(each).map(told).join(' ')}`
        : keyInFull(each, inner),
    )
    .filter(Boolean)
    .join(', ')
}

/** What differs from one version of a question to another, part by part, word by word. */
export function differences(before: Question, after: Question): Difference[] {
  const [old, fresh] = [parts(before), parts(after)]
  if (old.get('key') !== fresh.get('key')) {
    old.delete('key, in full')
    fresh.delete('key, in full')
  }
  return [...new Set([...old.keys(), ...fresh.keys()])].flatMap((part): Difference[] => {
    const [was, is] = [old.get(part) ?? '', fresh.get(part) ?? '']
    return was === is
      ? []
      : [
          {
            part,
            pieces: diffWordsWithSpace(was, is).map(({ value, added, removed }) => ({
              text: value,
              was: !added,
              is: !removed,
            })),
          },
        ]
  })
}

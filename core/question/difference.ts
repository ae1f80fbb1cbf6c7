import { diffWordsWithSpace } from 'diff'
import { plainText } from './html'
import { kindOf } from './kinds'
import type { Question } from './schema'
import { textsOf } from './texts'

/** One part of a question that differs between two versions; the pieces read in order make the old and the new text. */
export interface Difference { part: string, pieces: { text: string, was: boolean, is: boolean }[] }

/** A text's key in words for people: "option b", "comment when right". */
function partName(key: string): string {
  const names: Record<string, string> = { stem: 'question', right: 'comment when right', wrong: 'comment when not right', general: 'comment in any case', text: 'text with gaps' }
  return names[key] ?? key.replace(/:comment$/, ', comment').replace(':', ' ')
}

/** Everything of a question that people read, by part. */
function parts(question: Question): Map<string, string> {
  const texts = new Map([...textsOf(question)].map(([key, html]) => [partName(key), plainText(html)]))
  const about = {
    'key': kindOf(question.kind).keyText(question.body), 'kind': question.kind, 'points': String(question.points), 'expected time': `${question.seconds} s`, 'difficulty': String(question.difficulty), 'internal name': question.internalName,
    'tags': question.tags.join(', '), 'source': question.source, 'language': question.language, 'tools': question.tools.join(', '), 'objectives': question.objectives.join(', '),
    'variables': question.vary ? question.vary.variables.map(({ name, over }) => `${name}: ${Object.values(over).flat().join(' ')}`).concat(question.vary.conditions).join('; ') : '',
  }
  for (const [name, value] of Object.entries(about)) texts.set(name, value)
  // What texts and key leave out: rules of scoring, tolerances, layouts. Told as settings, so that no change goes unseen.
  texts.set('settings', JSON.stringify(question.body, (name, value: unknown) => (['html', 'comment', 'text', 'id'].includes(name) && typeof value === 'string' ? undefined : value)).replace(/["{}]/g, ' ').replace(/\s+/g, ' ').trim())
  return texts
}

/** What differs from one version of a question to another, part by part, word by word. */
export function differences(before: Question, after: Question): Difference[] {
  const [old, fresh] = [parts(before), parts(after)]
  return [...new Set([...old.keys(), ...fresh.keys()])].flatMap((part): Difference[] => {
    const [was, is] = [old.get(part) ?? '', fresh.get(part) ?? '']
    return was === is ? [] : [{ part, pieces: diffWordsWithSpace(was, is).map(({ value, added, removed }) => ({ text: value, was: !added, is: !removed })) }]
  })
}

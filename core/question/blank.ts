import { kinds, type KindName } from './kinds'
import type { Question } from './schema'

/** A fresh question of a kind, to begin writing with. */
export function blankQuestion(kind: KindName): Question {
  return {
    kind,
    body: kinds[kind].blank(),
    internalName: '',
    language: 'en',
    stem: '',
    points: 1,
    seconds: 60,
    difficulty: 3,
    objectives: [],
    tags: [],
    source: '',
    comments: { right: '', wrong: '', general: '' },
    hints: [],
    tools: [],
    keyless: false,
    vary: null,
    translations: {},
    stimulus: null,
    grade: '',
    levels: {},
    fields: {},
  } as Question
}

/** A question as an earlier release of Thistle kept it, with what has been added to its description since. */
export function completed(kept: Question): Question {
  const blank = blankQuestion(kept.kind)
  return { ...blank, ...kept, body: { ...blank.body, ...kept.body } } as Question
}

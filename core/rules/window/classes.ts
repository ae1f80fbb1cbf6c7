import { z } from 'zod'
import { id } from '../../question/schema'
import { list } from '../../kit/phrases'
import { stop } from '../../quiz/check/check'
import { removeFrom, together } from '../../quiz/edits/make'
import type { Path } from '../../quiz/edits/edit'
import type { Audience } from '../../schedule/assigned'
import { slot } from '../pieces'
import type { Slot, WindowRule } from '../rule'
import { namesOf, whoWords } from './who'

const kinds = ['classes', 'groups', 'students'] as const
const titles = { classes: 'Classes', groups: 'Groups', students: 'Students' }

/** The control of who is meant: classes where there are any to choose, groups and students. */
export function whoSlot(path: Path, who: Omit<Audience, 'classes'> & Partial<Audience>, words: string): Slot {
  const of = (kind: (typeof kinds)[number], also?: Slot[]) => {
    const value = who[kind] ?? []
    const others = kinds.reduce((sum, each) => sum + (each === kind ? 0 : (who[each]?.length ?? 0)), 0)
    return slot(titles[kind], [...path, kind], value, words, { sort: 'people', of: kind, others }, also)
  }
  const shown = kinds.filter((kind) => who[kind] !== undefined)
  return {
    ...of(
      shown[0]!,
      shown.map((kind) => of(kind)),
    ),
    name: 'Who',
  }
}

/** For which classes a window is; with the groups and students whom it is for as well. */
export const classes: WindowRule<string[]> = {
  title: 'classes',
  schema: z.array(id).max(60),
  usual: [],
  pieces: (_value, window, { names }) => [
    whoSlot(['rules', 'windows', window.id], window, whoWords(window, names)),
    ' may start ',
  ],
  checks(_value, window, quiz, { names }) {
    const path = ['rules', 'windows']
    const gone = kinds.flatMap((kind) =>
      window[kind].filter((each) => !names.has(each)).map((each) => ({ kind, each })),
    )
    if (!gone.length) return []
    const left = kinds.reduce((sum, kind) => sum + window[kind].length, 0) - gone.length
    const what = list([
      ...new Set(gone.map(({ kind }) => ({ classes: 'a class', groups: 'a group', students: 'a student' })[kind])),
    ])
    return [
      stop(
        `gone:${window.id}`,
        'rules',
        `A window is for ${what} that is gone`,
        'Choose anew who sits in this window.',
        left
          ? {
              label: 'Take that out',
              edit: together(gone.map(({ kind, each }) => removeFrom(quiz, [...path, window.id, kind], [each])))!,
            }
          : { label: 'Take the window out', edit: removeFrom(quiz, path, [window.id]) },
      ),
    ]
  },
  words: (value, { names }) => list(namesOf(value, names, 'a class that is gone')) || 'none',
}

/** Groups within classes: whoever is in one has its windows in place of their class's (semantics §5). */
export const groups: WindowRule<string[]> = {
  title: 'groups',
  schema: z.array(id).max(60),
  usual: [],
  pieces: () => [],
  words: (value, { names }) => list(namesOf(value, names, 'a group that is gone')) || 'none',
}

/** Single students: they have these windows in place of those of their groups and classes (semantics §5). */
export const students: WindowRule<string[]> = {
  title: 'students',
  schema: z.array(id).max(500),
  usual: [],
  pieces: () => [],
  words: (value, { names }) => list(namesOf(value, names, 'somebody who is gone')) || 'none',
}

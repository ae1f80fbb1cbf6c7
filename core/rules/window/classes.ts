import { z } from 'zod'
import { list } from '../../kit/phrases'
import { stop } from '../../quiz/check/check'
import { removeFrom } from '../../quiz/edits/make'
import { id } from '../../question/schema'
import { slot } from '../pieces'
import type { Reading, WindowRule } from '../rule'

/** Names of classes for a sentence. */
export const classWords = (ids: readonly string[], classNames: Reading['classNames']) =>
  list(ids.map((each) => classNames.get(each) ?? 'a class that is gone'))

/** For which classes a window is. */
export const classes: WindowRule<string[]> = {
  title: 'classes',
  schema: z.array(id).min(1, 'A window is for at least one class.').max(60),
  usual: [],
  pieces: (value, window, { classNames }) => [
    slot('Classes', ['rules', 'windows', window.id, 'classes'], value, classWords(value, classNames), {
      sort: 'people',
    }),
    ' may start ',
  ],
  checks(value, window, quiz, { classNames }) {
    const gone = value.filter((each) => !classNames.has(each))
    if (!gone.length) return []
    const path = ['rules', 'windows']
    return [
      stop(
        `gone:${window.id}`,
        'rules',
        'A window is for a class that is gone',
        'Choose the classes of this window anew.',
        gone.length < value.length
          ? { label: 'Take that class out', edit: removeFrom(quiz, [...path, window.id, 'classes'], gone) }
          : { label: 'Take the window out', edit: removeFrom(quiz, path, [window.id]) },
      ),
    ]
  },
  words: (value, { classNames }) => classWords(value, classNames),
}

import { z } from 'zod'
import { sentenceTime } from '../kit/phrases'
import { slot } from './pieces'
import type { Control, Rule } from './rule'
import { whoWords } from './window/who'

/** What a student has to know to start in a window: its own password, or that of the quiz. */
export const passwordIn = (
  {
    password: ofQuiz,
    windows,
  }: { password: string | null; windows: readonly { id: string; password: string | null }[] },
  window: string,
): string | null => windows.find(({ id }) => id === window)?.password ?? ofQuiz

const text = (none: string): Control => ({ sort: 'text', longest: 80, none, fresh: true })

function passwordWords(ofQuiz: string | null, windows: readonly { password: string | null }[]): string {
  const own = windows.filter(({ password: each }) => each !== null).length
  if (!own) return ofQuiz ? `the password “${ofQuiz}”` : 'no password'
  const sessions = own === windows.length ? 'the password of their session' : 'in some sessions a password of its own'
  return ofQuiz && own < windows.length ? `${sessions}, else “${ofQuiz}”` : sessions
}

/** What a student has to know to start; null for nothing. The record never repeats it. */
export const password: Rule<string | null> = {
  title: 'password',
  chapter: 'sitting',
  schema: z.string().trim().min(1, 'A password has at least one character.').max(80).nullable(),
  usual: null,
  sentences: (value, { quiz, names, zone }) => [
    {
      key: 'password',
      pieces: [
        'To start, they need ',
        slot(
          'Password',
          ['rules', 'password'],
          value,
          passwordWords(value, quiz.rules.windows),
          text('No password'),
          quiz.rules.windows.map((window) =>
            slot(
              `For ${whoWords(window, names)}, ${sentenceTime(window.opens, zone)}`,
              ['rules', 'windows', window.id, 'password'],
              window.password,
              window.password ?? 'none of its own',
              text('None of its own'),
            ),
          ),
        ),
        '.',
      ],
    },
  ],
  told: (value, { schedule }) =>
    value === null && !schedule.windows.some((window) => window.password)
      ? []
      : ['You need a password to start; your teacher gives it to you.'],
  words: (value) => (value === null ? 'none' : 'set'),
  changed: (before, after) =>
    before && after
      ? ['password changed']
      : [`password ${before === null ? 'none' : 'set'} → ${after === null ? 'none' : 'set'}`],
}

import { z } from 'zod'
import { bestForms, type BestForm } from '../marking/best'
import { choice } from './pieces'
import type { Rule } from './rule'

const labels: Record<BestForm, string> = {
  names: 'by their names',
  initials: 'by their initials',
  place: 'each only with their own place',
}

/** How best results are told, where they are (facet "Best results"). */
export const best: Rule<BestForm> = {
  title: 'best results',
  chapter: 'release',
  schema: z.enum(bestForms),
  usual: 'initials',
  sentences: (value, { quiz }) =>
    quiz.rules.release.best.from.at === 'never'
      ? []
      : [
          {
            key: 'best',
            pieces: [
              'Best results are told ',
              choice(
                'Best results are told',
                ['rules', 'best'],
                value,
                bestForms.map((each) => ({ value: each, label: labels[each] })),
              ),
              '.',
            ],
          },
        ],
  told: (value, { quiz }) =>
    quiz.rules.release.best.from.at === 'never' || value === 'place'
      ? []
      : [`The best results are shown to those of your class, ${labels[value]}.`],
  words: (value) => labels[value],
}

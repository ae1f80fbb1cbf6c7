import type { Question, Stimulus } from '../../core/question'
import { choice, number, text, within, type DemoQuestion } from './write'

/** What questions of the demo bank share. Places, forecast and tide table are invented. */
export const stimuli: { id: string; stimulus: Stimulus }[] = [
  {
    id: 'st-forecast',
    stimulus: {
      name: 'Inshore forecast, Gannet Head to Sound Sands',
      language: 'en',
      source: '',
      html: '<p><strong>Gannet Head to Sound Sands.</strong> Issued at 0600, for the 24 hours from then.</p><p>Wind: west 4 or 5, backing south-west and increasing 6 to gale 8 later.<br>Weather: fair at first; rain spreading from the west by midday.<br>Visibility: good, becoming moderate or poor in rain.<br>Sea: smooth or slight, becoming rough in the entrance.</p><p>Outlook for the 24 hours after: south-west 7 to gale 8, veering west and easing 5.</p>',
      translations: {
        nl: '<p><strong>Gannet Head tot Sound Sands.</strong> Uitgegeven om 0600, voor de 24 uur daarna.</p><p>Wind: west 4 of 5, krimpend naar zuidwest en toenemend, 6 tot storm 8 later.<br>Weer: eerst droog; tegen de middag regen vanuit het westen.<br>Zicht: goed, in regen matig of slecht.<br>Zee: vlak of licht golvend, in de ingang ruw.</p><p>Verwachting voor de 24 uur daarna: zuidwest 7 tot storm 8, ruimend naar west en afnemend 5.</p>',
      },
    },
  },
  {
    id: 'st-table',
    stimulus: {
      name: 'Tide table of Gannet Harbour, three days',
      language: 'en',
      source: '',
      translations: {},
      html: '<p><strong>Gannet Harbour.</strong> Times in local time, heights in metres above chart datum.</p><table><tbody><tr><th scope="col">Day</th><th scope="col">Low</th><th scope="col">High</th><th scope="col">Low</th><th scope="col">High</th></tr><tr><th scope="row">Monday</th><td>0145 · 1.2</td><td>0805 · 4.8</td><td>1410 · 1.0</td><td>2030 · 5.0</td></tr><tr><th scope="row">Tuesday</th><td>0235 · 0.9</td><td>0850 · 5.1</td><td>1455 · 0.7</td><td>2115 · 5.3</td></tr><tr><th scope="row">Wednesday</th><td>0320 · 0.6</td><td>0935 · 5.4</td><td>1540 · 0.5</td><td>2200 · 5.5</td></tr></tbody></table>',
    },
  },
]

const on = (
  stimulus: string,
  { id, question }: DemoQuestion,
  translations: Question['translations'] = {},
): DemoQuestion => ({ id, question: { ...question, stimulus, translations } as Question })
const forecast = (question: DemoQuestion, nl?: Record<string, string>) => on('st-forecast', question, nl ? { nl } : {})
const table = (question: DemoQuestion) => on('st-table', question)

export const onStimuli: DemoQuestion[] = [
  forecast(
    choice(['q-f-direction', '5.2', 1, 40], 'From where does the wind blow at the end of the 24 hours?', 'South-west', [
      'West',
      ['North-west', 'That would be veering.'],
      'South-east',
    ]),
    {
      stem: '<p>Waar komt de wind aan het einde van de 24 uur vandaan?</p>',
      'option:a': 'Zuidwest',
      'option:b': 'West',
      'option:c': 'Noordwest',
      'option:d': 'Zuidoost',
    },
  ),
  forecast(
    number(
      ['q-f-force', '5.2', 1, 35],
      'What is the greatest force that the 24 hours may bring?',
      'Force',
      '8',
      within('0'),
      '',
    ),
    { stem: '<p>Wat is de grootste windkracht in deze 24 uur?</p>' },
  ),
  forecast(
    choice(['q-f-backing', '5.2', 2, 40], 'The wind backs. Which way does its direction change?', 'Against the clock', [
      'With the clock',
      ['It stays and grows stronger', 'That is increasing.'],
    ]),
  ),
  forecast(
    text(
      ['q-f-visibility', '5.2', 2, 45],
      'What is the worst visibility to expect, in the word of the forecast?',
      [
        ['is', 'poor'],
        ['begins', 'poor in rain'],
      ],
      { label: 'Visibility' },
    ),
  ),
  table(
    number(
      ['q-t-range', '1.2', 1, 60],
      'What is the range of the tide on Monday morning, from low to high water?',
      'Range',
      '3.6',
      within('0'),
      'm',
    ),
  ),
  table(
    choice(['q-t-springs', '1.2', 2, 60], 'Which day is nearest to springs?', 'Wednesday', ['Monday', 'Tuesday'], {
      general: 'The range grows from day to day; it is greatest at springs.',
    }),
  ),
  table(
    number(
      ['q-t-sill', '1.3', 3, 90],
      'A sill dries 1.5 m. What depth is over it at high water on Tuesday evening?',
      'Depth',
      '3.8',
      within('0.05'),
      'm',
    ),
  ),
  table(
    number(
      ['q-t-duration', '1.3', 3, 90],
      'How long does the tide fall on Wednesday, from the first high to the second low water? In minutes.',
      'Time',
      '365',
      within('0'),
      'min',
    ),
  ),
]

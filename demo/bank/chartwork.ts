import { choice, choices, number, text, truth, within } from './write'

const maths = (tex: string) => `<span data-type="inline-math" data-latex="${tex}"></span>`

export const chartwork = [
  choice(
    ['q-minute', '2.1', 1, 30],
    'On which scale of a Mercator chart do you measure distance?',
    'The latitude scale, at the height of the boat',
    [
      ['The longitude scale', 'A minute of longitude shrinks towards the poles.'],
      'Any scale of the chart',
      'The compass rose',
    ],
  ),
  truth(['q-mile', '2.1', 1, 25], 'One minute of latitude is one sea mile.', true),
  text(
    ['q-rock-symbol', '2.1', 3, 40],
    'A cross with a dot in each of its four corners marks what on a chart? Name the danger.',
    [
      ['contains', 'awash'],
      ['is', 'rock', 0.5],
    ],
    { general: 'A rock that is awash at chart datum.' },
  ),
  choices(
    ['q-fix', '2.1', 3, 60],
    'Which of these make a good three-point fix?',
    'share',
    [
      'Charted marks that are well apart in bearing',
      'Marks that are near rather than far',
      'The bearing that changes fastest taken last',
    ],
    ['A floating mark as the main one', 'Two marks on opposite bearings and no third'],
  ),
  number(
    ['q-variation', '2.2', 3, 90],
    'You steer 085° by compass. Deviation is 3° E and variation 6° W. What is your true heading?',
    'True heading',
    '82',
    within('0.5'),
    '°',
    { points: 2, wrong: 'East is added, west is taken away, from compass to true.' },
  ),
  number(
    ['q-true-compass', '2.2', 4, 100],
    'The true course is 212°. Variation is 4° W and deviation 2° W. What course do you steer by compass?',
    'Compass course',
    '218',
    within('0.5'),
    '°',
    { points: 2 },
  ),
  truth(['q-deviation', '2.2', 2, 30], 'Deviation changes with the heading of the boat.', true, {
    right: 'Which is why there is a card for it.',
  }),
  choice(
    ['q-variation-source', '2.2', 2, 40],
    'Where do you find the variation for your position?',
    'On the compass rose of the chart',
    ['On the deviation card', 'In the tide table', 'In the list of lights'],
    { wrong: 'It belongs to the place, not to the boat.' },
  ),
  number(
    ['q-speed', '2.3', 2, 60],
    `<p>You run 7.5 sea miles in 75 minutes. What is your speed over the ground? Recall ${maths('v = s / t')}.</p>`,
    'Speed',
    '6',
    within('0.05'),
    'kn',
    { unitAsked: true, right: '7.5 ÷ 1.25 = 6 knots.', wrong: 'Bring the minutes to hours first.' },
  ),
  number(
    ['q-time', '2.3', 2, 70],
    'How many minutes does it take to run 4.2 sea miles at 5.6 knots?',
    'Time',
    '45',
    within('0.5'),
    'min',
    { points: 1 },
  ),
  number(
    ['q-distance', '2.3', 2, 60],
    'At 4.8 knots through still water, how far do you get in 50 minutes?',
    'Distance',
    '4.0',
    { by: 'figures', digits: 2 },
    'nm',
  ),
  number(
    ['q-metres', '2.3', 3, 70],
    'How many metres does a boat cover in one minute at 6 knots, to three significant figures?',
    'Distance',
    '185.2',
    { by: 'figures', digits: 3 },
    'm',
    { right: 'One tenth of a sea mile.' },
  ),
  number(
    ['q-tide-eta', '2.3', 4, 120],
    'You log 5.0 knots with a fair stream of 1.5 knots dead astern. In how many hours do you cover 26 sea miles over the ground?',
    'Time',
    '4',
    within('0.02'),
    'h',
    { points: 2 },
  ),
]

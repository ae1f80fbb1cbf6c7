import { fill, match, of, order, sort, tick } from './write'

const picture = (name: string, alt: string, width = 360) => `<img src="demo:${name}" alt="${alt}" width="${width}">`
const inlet = {
  picture: 'demo:inlet',
  alt: 'A small chart: Gannet Head to the north with an anchor and a light, soundings in the inlet, a drying bank to the east, a rock, Sound Sands to the south',
  width: 480,
  height: 320,
}
const region = (id: string, x: number, y: number, r: number, label: string, right = true, comment = '') => ({
  id,
  shape: { is: 'circle' as const, x, y, r },
  right,
  label,
  comment,
})

// Rules are facts of the International Regulations for Preventing Collisions at Sea, 1972; symbols those of INT 1. People and places are invented.
export const everyKind = [
  fill(
    ['q-g-datum', '1.1', 2, 90],
    'Fill in the gaps.',
    'Depths on a chart are measured from [chart datum]; heights of land from [MHWS | chart datum | mean sea level]. Charted depth plus height of tide is the [depth] of water.',
  ),
  fill(
    ['q-g-springs', '1.2', 2, 90],
    'Fill in the gaps.',
    'Springs come about [2 ± 0.5] days after new and [full] moon; the range is then [greatest | smallest | average].',
  ),
  fill(
    ['q-g-rule', '1.3', 3, 150],
    'Low water 1.2 m at 0700, high water 4.8 m at 1300.',
    'The range is [3.6 ± 0 m]. By the rule of twelfths the height is [1.5 ± 0.05 m] at 0800 and [3 ± 0.05 m] at 1000.',
  ),
  fill(
    ['q-g-crossing', '3.1', 2, 75],
    '',
    'When two power-driven vessels are crossing, the one that has the other on her own [starboard | port] side keeps out of the way and, if she can, avoids crossing [ahead | astern | abeam] of the other.',
    { source: 'COLREG rule 15' },
  ),
  fill(
    ['q-g-bearing', '2.2', 3, 90],
    '',
    'With a variation of 4° west and a deviation of 2° east, a compass bearing of 100° is [98 ± 0 °] true.',
  ),
  match(
    ['q-m-lights', '3.2', 3, 90],
    'Which vessel shows which lights, seen from ahead at night?',
    [
      ['Power-driven, under 50 m', 'One white over red and green'],
      ['Sailing', 'Red and green alone'],
      ['Trawling', 'Green over white, red and green'],
      ['Fishing otherwise', 'Red over white, red and green'],
    ],
    ['Two white in a line, red and green'],
  ),
  match(
    ['q-m-sounds', '3.3', 2, 75],
    'What does each signal mean?',
    [
      ['One short blast', 'I am altering my course to starboard'],
      ['Two short blasts', 'I am altering my course to port'],
      ['Three short blasts', 'I am operating astern propulsion'],
      ['Five short blasts', 'I am in doubt about what you intend'],
    ],
    ['I am aground'],
    { source: 'COLREG rule 34' },
  ),
  match(
    ['q-m-cardinals', '4.2', 2, 75],
    'Which quick flashes belong to which mark?',
    [
      ['North', 'without a break'],
      ['East', 'three'],
      ['South', 'six and a long one'],
      ['West', 'nine'],
    ],
    ['two'],
    { source: 'IALA Maritime Buoyage System' },
  ),
  match(
    ['q-m-beaufort', '5.2', 3, 90],
    'Which name belongs to which force?',
    [
      ['4', 'moderate breeze'],
      ['6', 'strong breeze'],
      ['8', 'gale'],
      ['10', 'storm'],
    ],
    ['fresh breeze', 'hurricane'],
  ),
  match(
    ['q-m-clouds', '5.1', 3, 75],
    'What does each cloud tell of, as a rule?',
    [
      ['High, thin cirrus', 'a warm front some way off'],
      ['Thickening altostratus', 'rain within hours'],
      ['Towering cumulonimbus', 'squalls and thunder'],
    ],
    ['a settled day'],
  ),
  sort(['q-s-shapes', '4.1', 2, 75], 'Sort by the side on which you leave them, coming in, in region A.', {
    'To port': ['a red can', 'a red light', 'an even number'],
    'To starboard': ['a green cone', 'a green light', 'an odd number'],
    '': ['a yellow cross'],
  }),
  sort(
    ['q-s-give-way', '3.1', 3, 90],
    'Who gives way? A sailing vessel and each of these meet in open water.',
    {
      'The sailing vessel gives way': [
        'a vessel fishing with a trawl',
        'a vessel not under command',
        'a vessel restricted in her ability to manoeuvre',
        'a vessel that she overtakes',
      ],
      'The other gives way': ['a power-driven vessel under way', 'a sailing vessel that overtakes her'],
    },
    { source: 'COLREG rules 13 and 18' },
  ),
  sort(
    ['q-s-fog', '3.3', 3, 75],
    'Sort the signals in restricted visibility.',
    {
      'Every two minutes': ['one long blast', 'two long blasts', 'one long and two short blasts'],
      'Every minute': ['rapid ringing of a bell for five seconds', 'bell, with three strokes before and after'],
    },
    { source: 'COLREG rule 35' },
  ),
  sort(
    ['q-s-distress', '7', 2, 60],
    'Which are signals of distress?',
    {
      Distress: ['a red hand flare', 'orange smoke', 'arms raised and lowered slowly', 'SOS by light'],
      'Not distress': ['a white hand flare', 'five short flashes of a lamp'],
    },
    { source: 'COLREG annex IV' },
  ),
  tick(
    ['q-k-lights', '3.2', 3, 90],
    'Which lights does each of these vessels show at night? Tick all of them.',
    ['masthead', 'sidelights', 'stern', 'all-round white'],
    {
      'A power-driven vessel of less than 50 m under way': ['masthead', 'sidelights', 'stern'],
      'A sailing vessel of 25 m under way': ['sidelights', 'stern'],
      'A vessel of less than 50 m at anchor': ['all-round white'],
    },
    { source: 'COLREG rules 23, 25 and 30' },
  ),
  order(
    ['q-o-mayday', '7', 3, 90],
    'Put the parts of a distress call in order.',
    [
      'MAYDAY, three times',
      'The name of the vessel, three times',
      'MAYDAY, name and call sign once',
      'The position',
      'What has happened',
      'What help is needed',
      'How many are on board',
      'OVER',
    ],
    { rule: 'neighbours' },
  ),
  order(['q-o-plan', '6', 2, 75], 'Put the stages of a passage plan in order.', [
    'Appraise: gather what is known',
    'Plan: draw the tracks',
    'Execute: set out',
    'Monitor: compare and correct',
  ]),
  order(
    ['q-o-overboard', '7', 3, 90],
    'Somebody has gone overboard. What comes first, and what then?',
    [
      'Shout, and point at them',
      'Throw a lifebuoy',
      'Press the button for the position',
      'Turn the boat',
      'Bring them alongside',
      'Get them on board',
    ],
    { rule: 'moves' },
  ),
  order(
    ['q-o-beaufort', '5.2', 2, 60],
    'From the weakest to the strongest.',
    ['light breeze', 'gentle breeze', 'moderate breeze', 'fresh breeze', 'strong breeze'],
    { rule: 'exact' },
  ),
  order(['q-o-fix', '2.1', 3, 75], 'Put the steps of a three-bearing fix in order.', [
    'Choose three marks well apart',
    'Take the bearing that changes slowest first',
    'Correct the bearings to true',
    'Draw the lines',
    'Note the time beside the fix',
  ]),
  of(
    'spot',
    ['q-p-rock', '2.1', 2, 45],
    'Mark the rock that covers and uncovers dangerously: a cross with four dots.',
    {
      ...inlet,
      spots: 1,
      regions: [
        region('r1', 120, 119, 20, 'the rock'),
        region('r2', 372, 170, 36, 'the drying bank', false, 'That is a drying height, not a rock.'),
      ],
    },
  ),
  of('spot', ['q-p-anchor', '2.1', 1, 40], 'Where does the chart advise to anchor?', {
    ...inlet,
    spots: 1,
    regions: [
      {
        id: 'r1',
        shape: { is: 'rectangle', x: 208, y: 90, width: 44, height: 44 },
        right: true,
        label: 'the anchorage',
        comment: '',
      },
    ],
  }),
  of('spot', ['q-p-dry', '1.1', 3, 60], 'At chart datum, which part of the inlet lies dry? Mark it.', {
    ...inlet,
    spots: 1,
    regions: [
      {
        id: 'r1',
        shape: {
          is: 'polygon',
          points: [
            { x: 322, y: 150 },
            { x: 360, y: 140 },
            { x: 426, y: 160 },
            { x: 400, y: 190 },
            { x: 346, y: 190 },
          ],
        },
        right: true,
        label: 'the drying bank',
        comment: '',
      },
      region('r2', 210, 185, 26, 'nine metres', false, 'A plain figure is a depth below datum.'),
    ],
  }),
  of('spot', ['q-p-courses', '6', 2, 60], 'Which of these boats is on a beam reach?', {
    picture: 'demo:courses',
    alt: 'Five boats around a circle with the wind from the top: two pointing up towards it, one across, one away at an angle, one straight away',
    width: 400,
    height: 360,
    by: 'place',
    spots: 1,
    regions: [
      region('a', 278, 132, 24, 'pointing up, right', false),
      region('b', 310, 210, 24, 'across'),
      region('c', 278, 288, 24, 'away at an angle', false),
      region('d', 200, 320, 24, 'straight away', false),
      region('e', 122, 132, 24, 'pointing up, left', false),
    ],
  }),
  of('spot', ['q-p-masthead', '3.2', 3, 60], 'Mark both masthead lights.', {
    picture: 'demo:vessel',
    alt: 'A power-driven vessel seen from her port side at night, with four lights',
    width: 460,
    height: 260,
    spots: 2,
    wrongCost: 0.5,
    regions: [
      region('a', 120, 58, 16, 'the forward masthead light'),
      region('b', 330, 32, 16, 'the after masthead light'),
      region('c', 96, 180, 16, 'the sidelight', false, 'That is her port sidelight.'),
      region('d', 412, 166, 16, 'the sternlight', false, 'That is her sternlight.'),
    ],
  }),
  of(
    'yesNo',
    ['q-y-lookout', '3.1', 1, 20],
    'Does a vessel at anchor have to keep a look-out?',
    {
      options: [
        { id: 'yes', html: 'Yes', comment: '', fixed: true, credit: 1 },
        { id: 'no', html: 'No', comment: 'Rule 5 holds for every vessel, at all times.', fixed: true, credit: 0 },
      ],
      inOrder: true,
    },
    { source: 'COLREG rule 5' },
  ),
  of('yesNo', ['q-y-neaps', '1.2', 1, 20], 'Is the range at neaps greater than at springs?', {
    options: [
      { id: 'yes', html: 'Yes', comment: '', fixed: true, credit: 0 },
      { id: 'no', html: 'No', comment: '', fixed: true, credit: 1 },
    ],
    inOrder: true,
  }),
  of(
    'yesNo',
    ['q-y-sail-engine', '3.1', 2, 25],
    'A yacht has her sails set and her engine drives her. Is she a power-driven vessel under the rules?',
    {
      options: [
        { id: 'yes', html: 'Yes', comment: '', fixed: true, credit: 1 },
        { id: 'no', html: 'No', comment: 'She is: she carries a cone, point down, by day.', fixed: true, credit: 0 },
      ],
      inOrder: true,
    },
    { source: 'COLREG rules 3 and 25' },
  ),
  of(
    'short',
    ['q-h-plan', '6', 2, 90],
    'Name one thing that a passage plan needs for the case that the harbour cannot be reached.',
    { model: 'A port of refuge, with its tides and approach', longest: 90 },
  ),
  of('short', ['q-h-safe-speed', '3.1', 2, 60], 'Give one reason for which a safe speed is lower at night.', {
    model: 'Lights against the background; what is seen late; fatigue of the look-out',
    longest: 90,
  }),
  of(
    'written',
    ['q-w-squall', '5.1', 4, 420],
    'A line of cumulonimbus comes up from the west. Say what you expect, and what you do on board within the next ten minutes.',
    {
      lines: 8,
      longest: 2000,
      model:
        'Gusts that veer, rain, a fall of temperature. Reef early, harnesses, hatches, position, sea room to leeward.',
      rubric: [
        { id: 'a', title: 'What is expected', words: 'Gusts, a veer, rain and poor sight', share: 40 },
        { id: 'b', title: 'What is done', words: 'Reef, clip on, close up, fix the position', share: 40 },
        { id: 'c', title: 'In a sensible order', words: '', share: 20 },
      ],
    },
    { points: 5 },
  ),
  of(
    'written',
    ['q-w-passage', '6', 4, 600],
    'Plan the way from Gannet Sound to the next harbour, 24 miles off, for a boat of 5 knots: when do you leave, and why?',
    {
      lines: 10,
      longest: 3000,
      rubric: [
        { id: 'a', title: 'Tide', words: 'Leaves with the fair stream', share: 50 },
        { id: 'b', title: 'Daylight', words: '', share: 25 },
        { id: 'c', title: 'A way out', words: 'Names a port of refuge', share: 25 },
      ],
    },
    { points: 6 },
  ),
  of(
    'recording',
    ['q-r-mayday', '7', 3, 180],
    'Speak a distress call: yacht “Sea Thistle”, two miles south of Gannet Head, taking in water, four on board.',
    {
      seconds: 60,
      rubric: [
        { id: 'a', title: 'All parts, in order', words: '', share: 60 },
        { id: 'b', title: 'Slow and clear', words: '', share: 40 },
      ],
    },
    { points: 4 },
  ),
  of(
    'recording',
    ['q-r-report', '2.1', 2, 120],
    'Report your position by radio as a bearing and distance from Gannet Head, 3 miles to the north-east of you.',
    { seconds: 30 },
    { points: 2 },
  ),
  of(
    'choice',
    ['q-c-curve', '1.3', 3, 75],
    `<p>The curve shows a morning at Gannet Sound. From when is there 3 m or more?</p>${picture('tide-curve', 'A tide curve: low water 0.5 m at 0600, rising through 2.5 m at 1000 to 4.5 m at 1400, falling to 2 m at 1800')}`,
    {
      inOrder: true,
      layout: 'row',
      options: ['About 0830', 'About 1030', 'About 1230', 'About 1500'].map((html, i) => ({
        id: 'abcd'[i]!,
        html,
        comment: '',
        fixed: true,
        credit: i === 1 ? 1 : 0,
      })),
    },
  ),
]

import { choice, choices, number, text, truth, within } from './write'

// Facts of the IALA Maritime Buoyage System, region A; pictures are drawings of our own.
const picture = (name: string, alt: string) => `<img src="demo:${name}" alt="${alt}" width="180">`

export const buoyage = [
  choice(
    ['q-port-mark', '4.1', 1, 30],
    `<p>In region A, coming in from sea, on which side do you leave this mark?</p>${picture('port-mark', 'A red can-shaped buoy with a red can topmark')}`,
    'To port',
    ['To starboard', 'On either side', 'To the north of it'],
    { name: 'Port-hand mark, picture' },
  ),
  choice(
    ['q-starboard-mark', '4.1', 1, 30],
    'Which shape is a starboard-hand buoy in region A?',
    'A cone',
    ['A can', 'A sphere', 'Two balls'],
    { right: 'Green and conical.' },
  ),
  truth(['q-lateral-light', '4.1', 2, 30], 'In region A the light of a port-hand mark is red.', true),
  choice(
    ['q-north-card', '4.2', 2, 40],
    `<p>Which mark is this?</p>${picture('north-cardinal', 'A pillar buoy, black above yellow, with two black cones one above the other, both pointing up')}`,
    'A north cardinal mark',
    ['A south cardinal mark', 'An east cardinal mark', 'An isolated danger mark'],
    { name: 'North cardinal, picture' },
  ),
  choice(
    ['q-east-card', '4.2', 3, 45],
    `<p>On which side of this mark is the safe water?</p>${picture('east-cardinal', 'A pillar buoy, black with a yellow band, with two black cones base to base')}`,
    'East of it',
    [['West of it', 'Cones base to base: safe water lies east.'], 'North of it', 'South of it'],
    { name: 'East cardinal, picture' },
  ),
  choice(
    ['q-south-light', '4.2', 3, 45],
    'What is the light of a south cardinal mark?',
    'Six quick flashes and one long flash, white',
    ['Three quick flashes, white', 'Nine quick flashes, white', 'Two flashes, white'],
    { right: 'Like a clock face: three for east, six for south, nine for west.' },
  ),
  number(
    ['q-west-flashes', '4.2', 2, 35],
    'How many quick flashes are in one group of a west cardinal mark?',
    'Flashes',
    '9',
    within('0'),
    '',
  ),
  choices(
    ['q-cardinals-colours', '4.2', 2, 40],
    'Which colours do cardinal marks have?',
    'all',
    ['Black', 'Yellow'],
    ['Red', 'Green', 'White'],
  ),
  text(
    ['q-two-balls', '4.3', 3, 40],
    'Which kind of mark carries two black balls, one above the other?',
    [
      ['contains', 'isolated danger'],
      ['is', 'danger mark', 0.5],
    ],
    { label: 'Mark' },
  ),
  choice(['q-safe-water', '4.3', 2, 35], 'Which mark has red and white vertical stripes?', 'A safe water mark', [
    'A special mark',
    'An isolated danger mark',
    'A port-hand mark',
  ]),
]

export const weather = [
  choice(['q-isobars', '5.1', 1, 30], 'Isobars that lie close together mean …', 'strong wind', [
    'fog',
    'light wind',
    'high pressure',
  ]),
  choice(
    ['q-buys-ballot', '5.1', 3, 45],
    'In the northern hemisphere you stand with your back to the wind. Where is the low pressure?',
    'To your left',
    ['To your right', 'In front of you', 'Behind you'],
    { right: 'Buys Ballot’s law.' },
  ),
  choices(
    ['q-cold-front', '5.1', 3, 60],
    'What comes with the passing of a cold front, as a rule?',
    'share',
    ['The wind veers', 'The pressure rises', 'It grows colder'],
    ['The wind backs', 'Steady drizzle for hours'],
  ),
  truth(['q-warm-front', '5.1', 2, 30], 'High cirrus that thickens is often the first sign of a warm front.', true),
  number(
    ['q-beaufort', '5.2', 2, 40],
    'A near gale is which force on the Beaufort scale?',
    'Force',
    '7',
    within('0'),
    '',
  ),
  choice(
    ['q-soon', '5.2', 3, 40],
    'In a gale warning, what does “imminent” mean?',
    'Within 6 hours',
    ['Within 12 hours', 'Within 24 hours', 'Now'],
    { tags: ['forecast words'] },
  ),
  choice(['q-sea-breeze', '5.2', 2, 40], 'When is a sea breeze strongest on a fine summer’s day?', 'In the afternoon', [
    'At dawn',
    'At midnight',
    'In the early morning',
  ]),
]

export const passage = [
  choices(
    ['q-plan', '6', 3, 70],
    'Which belong in a passage plan for coastal waters?',
    'share',
    ['Ports of refuge', 'Tidal gates on the way', 'What the crew can manage'],
    ['The price of the berth', 'The colour of the sails'],
  ),
  choice(
    ['q-transit', '6', 2, 40],
    'Two charted marks stand in line. What does that give you?',
    'A position line',
    ['A fix', 'The variation', 'The distance off'],
    { right: 'And one that needs no compass.' },
  ),
  text(
    ['q-clearing', '6', 4, 50],
    'What do you call the bearing on a mark that you must not pass, so as to keep clear of a danger?',
    [
      ['begins', 'clearing'],
      ['is', 'danger bearing'],
    ],
  ),
  choice(['q-lee-shore', '6', 2, 40], 'Why is a lee shore dangerous?', 'The wind sets the boat towards it', [
    'There is no wind under it',
    'The stream runs away from it',
    'It has no lights',
  ]),
]

export const safety = [
  choice(['q-mayday', '7', 1, 30], 'A crew member is in grave and imminent danger. Which call do you make?', 'Mayday', [
    'Pan-pan',
    'Sécurité',
    'Roger',
  ]),
  number(
    ['q-vhf', '7', 1, 30],
    'Which VHF channel is for distress and calling by voice?',
    'Channel',
    '16',
    within('0'),
    '',
  ),
  choices(
    ['q-mob', '7', 2, 60],
    'Somebody has fallen overboard. What do you do at once?',
    'share',
    ['Shout “man overboard”', 'Throw a lifebuoy', 'Have one person point and keep looking'],
    ['Jump in after them', 'Go below to look at the chart'],
  ),
  text(
    ['q-gas', '7', 3, 40],
    'Gas that leaks from a cooker gathers in which part of the boat?',
    [
      ['contains', 'bilge'],
      ['contains', 'bottom', 0.5],
      ['contains', 'lowest', 0.5],
    ],
    { general: 'It is heavier than air.' },
  ),
  truth(['q-flare', '7', 2, 30], 'A red hand flare is held downwind, over the side.', true),
  choice(
    ['q-fire', '7', 2, 40],
    'Fire breaks out in the engine space. What do you leave shut?',
    'The engine hatch',
    ['The fuel cock', 'The gas valve', 'The radio'],
    { right: 'Opening it feeds the fire.' },
  ),
]

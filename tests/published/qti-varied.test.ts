/**
 * Items as the QTI specifications and varied authoring tools write them (1EdTech QTI 2.1/2.2/3.0 and 1.2; forms of processing from
 * memory of the specifications, words ours): each comes in proven, or what differs is told with an example. None comes in wrong
 * without a word.
 */
import { describe, expect, it } from 'vitest'
import { kindOf, questionFaults } from '../../core/question'
import { lostOf } from '../../formats/qti/proof/words'
import { readPackage } from '../../formats/qti/package/read'
import { zip } from '../../formats/zip'
import {
  add,
  base,
  choices,
  choosing,
  correct,
  correctly,
  declare,
  entry,
  itemXml,
  look,
  mapping,
  matches,
  outcome,
  rules,
  score,
  set,
  template,
  variable,
  when,
} from '../support/qti'

const abc = choices({ A: 'Alpha', B: 'Beta', C: 'Gamma' })
const picture = '<object type="image/png" data="sign.png" width="200" height="200">A map</object>'
const side = (ids: string[], most: number) =>
  `<simpleMatchSet>${ids.map((id) => `<simpleAssociableChoice identifier="${id}" matchMax="${most}">Entry ${id}</simpleAssociableChoice>`).join('')}</simpleMatchSet>`
const match = (left: string, right: string) =>
  `<matchInteraction responseIdentifier="RESPONSE" shuffle="true" maxAssociations="0"><prompt>What goes with what?</prompt>${left}${right}</matchInteraction>`
const equal = (mode: string, of: string) => `<equal ${mode}>${of}</equal>`
const member = (type: string, name: string) => `<member>${base(type, name)}${variable()}</member>`
const one = declare('single', 'identifier', correct('A'))
const typed = (type: string, key: string, processing: string) =>
  itemXml(declare('single', type, key), `<p>What is it? ${entry()}</p>`, processing)
const two = (keys: [string, string] = [correct('ebb'), correct('flood')]) =>
  `${declare('single', 'string', keys[0], 'R1')}${declare('single', 'string', keys[1], 'R2')}`
const inText = `<p>The ${entry('R1')} and the ${entry('R2')} tide.</p>`
const hotspots = (most: number) =>
  `<hotspotInteraction responseIdentifier="RESPONSE" maxChoices="${most}"><prompt>Where?</prompt>${picture}${['A', 'B', 'C'].map((id, i) => `<hotspotChoice identifier="${id}" shape="circle" coords="${20 + i * 50},50,10"/>`).join('')}</hotspotInteraction>`
const points = `<selectPointInteraction responseIdentifier="RESPONSE" maxChoices="1"><prompt>Where?</prompt>${picture}</selectPointInteraction>`
const gapMatch =
  '<gapMatchInteraction responseIdentifier="RESPONSE" shuffle="false"><prompt>Fill in.</prompt><gapText identifier="W" matchMax="1">winter</gapText><gapText identifier="S" matchMax="1">summer</gapText><p>Now <gap identifier="G1"/> then <gap identifier="G2"/>.</p></gapMatchInteraction>'

type Case = [name: string, xml: string, kind: string, points: number, key: string]
const proven: Case[] = [
  [
    'choice, by conditions of its own',
    itemXml(one, choosing(abc), rules(when([matches(), score(1)], [score(0)]))),
    'choice',
    1,
    'Alpha',
  ],
  [
    'choice, whose key differs from what is declared',
    itemXml(one, choosing(abc), rules(when([matches('RESPONSE', base('identifier', 'B')), score(1)]))),
    'choice',
    1,
    'Beta',
  ],
  [
    'choice, worth what another outcome says',
    itemXml(
      `${one}${outcome('MAXSCORE', 'single', 'float', '5')}`,
      choosing(abc),
      rules(when([matches(), set(variable('MAXSCORE'))])),
    ),
    'choice',
    5,
    'Alpha',
  ],
  [
    'choice, a wrong one costs',
    itemXml(
      one,
      choosing(abc),
      rules(when([`<isNull>${variable()}</isNull>`, score(0)], [matches(), score(1)], [score(-0.25)])),
    ),
    'choice',
    1,
    'Alpha',
  ],
  [
    'choice, ended early',
    itemXml(
      one,
      choosing(abc),
      rules(when([`<isNull>${variable()}</isNull>`, '<exitResponse/>']), when([matches(), score(1)])),
    ),
    'choice',
    1,
    'Alpha',
  ],
  [
    'choices, match_correct beside a mapping',
    itemXml(
      declare('multiple', 'identifier', correct('A', 'B') + mapping({ A: 1, B: 1, C: -1 })),
      choosing(abc, 0),
      template('match_correct'),
    ),
    'choices',
    1,
    'Alpha · Beta',
  ],
  [
    'choices, bounds of a mapping',
    itemXml(
      declare(
        'multiple',
        'identifier',
        correct('A', 'B') + mapping({ A: 1, B: 1, C: -1 }, 'lowerBound="0" upperBound="1"'),
      ),
      choosing(abc, 0),
      template('map_response'),
    ),
    'choices',
    1,
    'Alpha · Beta',
  ],
  [
    'choices, a sum by members, not below 0',
    itemXml(
      declare('multiple', 'identifier', correct('A', 'B')),
      choosing(abc, 0),
      rules(
        when([member('identifier', 'A'), add(base('float', 0.5))]),
        when([member('identifier', 'B'), add(base('float', 0.5))]),
        when([member('identifier', 'C'), add(base('float', -0.5))]),
        when([`<lt>${variable('SCORE')}${base('float', 0)}</lt>`, score(0)]),
      ),
    ),
    'choices',
    1,
    'Alpha · Beta',
  ],
  [
    'choices, these and not that',
    itemXml(
      declare('multiple', 'identifier', correct('A', 'B')),
      choosing(abc, 0),
      rules(
        when([
          `<and>${member('identifier', 'A')}${member('identifier', 'B')}<not>${member('identifier', 'C')}</not></and>`,
          score(3),
        ]),
      ),
    ),
    'choices',
    3,
    'Alpha · Beta',
  ],
  [
    'choices, these two and no more',
    itemXml(
      declare('multiple', 'identifier', correct('A', 'B')),
      choosing(abc, 0),
      rules(
        when([
          `<and>${member('identifier', 'A')}${member('identifier', 'B')}<equal toleranceMode="exact"><containerSize>${variable()}</containerSize>${base('integer', 2)}</equal></and>`,
          score(2),
        ]),
      ),
    ),
    'choices',
    2,
    'Alpha · Beta',
  ],
  [
    'ordering, each in its place of the key',
    itemXml(
      declare('ordered', 'identifier', correct('B', 'A', 'C')),
      `<orderInteraction responseIdentifier="RESPONSE" shuffle="true"><prompt>In what order?</prompt>${abc}</orderInteraction>`,
      rules(
        ...[1, 2, 3].map((n) =>
          when([
            `<match><index n="${n}">${variable()}</index><index n="${n}">${correctly()}</index></match>`,
            add(base('float', 1)),
          ]),
        ),
      ),
    ),
    'ordering',
    3,
    'Beta → Alpha → Gamma',
  ],
  [
    'grid, each row that is right as a whole',
    itemXml(
      declare('multiple', 'directedPair', correct('a x', 'b y', 'b x')),
      match(side(['a', 'b'], 2), side(['x', 'y'], 2)),
      rules(
        when([
          `<and>${member('directedPair', 'a x')}<not>${member('directedPair', 'a y')}</not></and>`,
          add(base('float', 1)),
        ]),
        when([`<and>${member('directedPair', 'b x')}${member('directedPair', 'b y')}</and>`, add(base('float', 1))]),
      ),
    ),
    'grid',
    2,
    'Entry a – Entry x · Entry b – Entry x, Entry y',
  ],
  [
    'number, about the key',
    typed(
      'float',
      correct('3.9'),
      rules(when([equal('toleranceMode="absolute" tolerance="0.1 0.1"', variable() + correctly()), score(1)])),
    ),
    'number',
    1,
    '3.9 ± 0.1',
  ],
  [
    'number, more above than below',
    typed(
      'float',
      correct('10'),
      rules(when([equal('toleranceMode="absolute" tolerance="0.5 2"', correctly() + variable()), score(1)])),
    ),
    'number',
    1,
    '10 (from 9.5, up to 12)',
  ],
  [
    'number, the answer first: the other way round',
    typed(
      'float',
      correct('10'),
      rules(
        when([
          equal('toleranceMode="absolute" tolerance="0.5 2" includeLowerBound="false"', variable() + correctly()),
          score(1),
        ]),
      ),
    ),
    'number',
    1,
    '10 (from 8, below 10.5)',
  ],
  [
    'number, relative to the answer',
    typed(
      'float',
      correct('100'),
      rules(when([equal('toleranceMode="relative" tolerance="5 5"', variable() + correctly()), score(1)])),
    ),
    'number',
    1,
    '100 (from 95.2380952381, up to 105.263157895)',
  ],
  [
    'number, a range with an open end',
    typed(
      'float',
      correct('4'),
      rules(
        when([
          `<and><gte>${variable()}${base('float', 3)}</gte><lt>${variable()}${base('float', 5)}</lt></and>`,
          score(1),
        ]),
      ),
    ),
    'number',
    1,
    '4 (from 3, below 5)',
  ],
  [
    'number, more than: what is shown as right is right',
    typed('float', '', rules(when([`<gt>${variable()}${base('float', 3)}</gt>`, score(1)]))),
    'number',
    1,
    '4 (above 3)',
  ],
  [
    'number, a whole one between two',
    typed(
      'integer',
      correct('3'),
      rules(
        when([
          `<and><gt>${variable()}${base('integer', 3)}</gt><lt>${variable()}${base('integer', 6)}</lt></and>`,
          score(1),
        ]),
      ),
    ),
    'number',
    1,
    '4 (above 3, below 6)',
  ],
  [
    'number, one of fifteen',
    typed(
      'float',
      '',
      rules(
        when([
          `<or>${Array.from({ length: 15 }, (_, i) => equal('toleranceMode="exact"', variable() + base('float', i * i))).join('')}</or>`,
          score(1),
        ]),
      ),
    ),
    'number',
    1,
    Array.from({ length: 15 }, (_, i) => i * i).join(' or '),
  ],
  [
    'number, one of two',
    typed(
      'integer',
      correct('4'),
      rules(
        when([
          `<or>${equal('toleranceMode="exact"', variable() + base('integer', 4))}${equal('toleranceMode="exact"', variable() + base('integer', -4))}</or>`,
          score(1),
        ]),
      ),
    ),
    'number',
    1,
    '4 or −4',
  ],
  [
    'number, to figures',
    typed(
      'float',
      correct('3.14159'),
      rules(
        when([
          `<equalRounded roundingMode="significantFigures" figures="3">${variable()}${correctly()}</equalRounded>`,
          score(1),
        ]),
      ),
    ),
    'number',
    1,
    '3.14159 to 3 significant figures',
  ],
  [
    'text, capitals as each entry says',
    typed(
      'string',
      correct('York') +
        '<mapping defaultValue="0"><mapEntry mapKey="York" mappedValue="1" caseSensitive="false"/><mapEntry mapKey="Lancaster" mappedValue="0.5"/></mapping>',
      template('map_response'),
    ),
    'text',
    1,
    'York',
  ],
  [
    'text, one of two',
    typed(
      'string',
      correct('ebb'),
      rules(
        when([
          `<or><match>${variable()}${base('string', 'ebb')}</match><match>${variable()}${base('string', 'ebb tide')}</match></or>`,
          score(1),
        ]),
      ),
    ),
    'text',
    1,
    'ebb or ebb tide',
  ],
  [
    'text, in a large field',
    itemXml(
      declare('single', 'string', correct('ebb')),
      '<extendedTextInteraction responseIdentifier="RESPONSE"><prompt>Say it.</prompt></extendedTextInteraction>',
      template('match_correct'),
    ),
    'text',
    1,
    'ebb',
  ],
  [
    'gaps, a sum of mappings',
    itemXml(
      two([mapping({ ebb: 1 }), mapping({ flood: 2 })]),
      inText,
      rules(set('<sum><mapResponse identifier="R1"/><mapResponse identifier="R2"/></sum>')),
    ),
    'gaps',
    3,
    'ebb · flood',
  ],
  [
    'gaps, all of them or nothing',
    itemXml(two(), inText, rules(when([`<and>${matches('R1')}${matches('R2')}</and>`, score(1)], [score(0)]))),
    'gaps',
    1,
    'ebb · flood',
  ],
  [
    'gaps, an outcome for each',
    itemXml(
      `${two()}${outcome('S1', 'single', 'float', '0')}${outcome('S2', 'single', 'float', '0')}`,
      inText,
      rules(
        when([matches('R1'), set(base('float', 1), 'S1')]),
        when([matches('R2'), set(base('float', 1), 'S2')]),
        set(`<sum>${variable('S1')}${variable('S2')}</sum>`),
      ),
    ),
    'gaps',
    2,
    'ebb · flood',
  ],
  [
    'gaps, a mean',
    itemXml(
      two(),
      inText,
      rules(
        when([matches('R1'), add(base('float', 1))]),
        when([matches('R2'), add(base('float', 1))]),
        set(`<divide>${variable('SCORE')}${base('float', 2)}</divide>`),
      ),
    ),
    'gaps',
    1,
    'ebb · flood',
  ],
  [
    'matching, all or nothing',
    itemXml(
      declare('multiple', 'directedPair', correct('a x', 'b y')),
      match(side(['a', 'b'], 1), side(['x', 'y'], 1)),
      template('match_correct'),
    ),
    'matching',
    1,
    'Entry a – Entry x · Entry b – Entry y',
  ],
  [
    'matching, pairs that weigh differently and wrong ones that cost',
    itemXml(
      declare(
        'multiple',
        'directedPair',
        correct('a x', 'b y') + mapping({ 'a x': 1, 'b y': 3 }, 'defaultValue="-1" lowerBound="0"'),
      ),
      match(side(['a', 'b'], 1), side(['x', 'y', 'z'], 1)),
      template('map_response'),
    ),
    'matching',
    4,
    'Entry a – Entry x · Entry b – Entry y',
  ],
  [
    'matching, one wrong pair that costs by itself',
    itemXml(
      declare(
        'multiple',
        'directedPair',
        correct('a x', 'b y') + mapping({ 'a x': 1, 'b y': 1, 'a y': -1 }, 'lowerBound="0"'),
      ),
      match(side(['a', 'b'], 1), side(['x', 'y', 'z'], 1)),
      template('map_response'),
    ),
    'matching',
    2,
    'Entry a – Entry x · Entry b – Entry y',
  ],
  [
    'matching, wrong pairs that take away more than there is',
    itemXml(
      declare(
        'multiple',
        'directedPair',
        correct('a x', 'b y') + mapping({ 'a x': 1, 'b y': 1 }, 'lowerBound="-1" defaultValue="-1"'),
      ),
      match(side(['a', 'b'], 1), side(['x', 'y', 'z'], 1)),
      template('map_response'),
    ),
    'matching',
    2,
    'Entry a – Entry x · Entry b – Entry y',
  ],
  [
    'sorting, two of three right ones are everything',
    itemXml(
      declare(
        'multiple',
        'directedPair',
        correct('a x', 'b y', 'c y') + mapping({ 'a x': 1, 'b y': 1, 'c y': 1 }, 'lowerBound="0" upperBound="2"'),
      ),
      match(side(['a', 'b', 'c'], 1), side(['x', 'y'], 0)),
      template('map_response'),
    ),
    'sorting',
    2,
    'Entry a – Entry x · Entry b – Entry y · Entry c – Entry y',
  ],
  [
    'sorting, a group nearby earns a third, another is as right, and a stray thing costs where it is put',
    itemXml(
      declare(
        'multiple',
        'directedPair',
        correct('a x', 'b y') +
          mapping(
            { 'a x': 0.333333, 'a z': 0.111111, 'b y': 0.666667, 'b z': 0.666667, 'c x': -0.333333 },
            'lowerBound="0" upperBound="1"',
          ),
      ),
      match(side(['a', 'b', 'c'], 1), side(['x', 'y', 'z'], 0)),
      template('map_response'),
    ),
    'sorting',
    1,
    'Entry a – Entry x · Entry b – Entry y or Entry z',
  ],
  [
    'grid, ticks that weigh and cost differently, within bounds',
    itemXml(
      declare(
        'multiple',
        'directedPair',
        correct('a x', 'a y', 'b y') +
          mapping({ 'a x': 2, 'a y': 1, 'b y': 1, 'b x': -2 }, 'lowerBound="-1" upperBound="3" defaultValue="-0.5"'),
      ),
      match(side(['a', 'b'], 0), side(['x', 'y', 'z'], 0)),
      template('map_response'),
    ),
    'grid',
    3,
    'Entry a – Entry x, Entry y · Entry b – Entry y',
  ],
  [
    'matching, several of a row',
    itemXml(
      declare(
        'multiple',
        'directedPair',
        correct('a x', 'a y', 'b y') + mapping({ 'a x': 1, 'a y': 1, 'b y': 1 }, 'defaultValue="-1" lowerBound="0"'),
      ),
      match(side(['a', 'b'], 0), side(['x', 'y'], 0)),
      template('map_response'),
    ),
    'grid',
    3,
    'Entry a – Entry x, Entry y · Entry b – Entry y',
  ],
  [
    'matching, groups on the left',
    itemXml(
      declare('multiple', 'directedPair', correct('g a', 'g b', 'h c') + mapping({ 'g a': 1, 'g b': 1, 'h c': 1 })),
      match(side(['g', 'h'], 0), side(['a', 'b', 'c'], 1)),
      template('map_response'),
    ),
    'sorting',
    3,
    'Entry a – Entry g · Entry b – Entry g · Entry c – Entry h',
  ],
  [
    'gap match, a wrong word costs',
    itemXml(
      declare(
        'multiple',
        'directedPair',
        correct('W G1', 'S G2') + mapping({ 'W G1': 1, 'S G2': 2 }, 'lowerBound="0" defaultValue="-1"'),
      ),
      gapMatch,
      template('map_response'),
    ),
    'gaps',
    3,
    'winter · summer',
  ],
  [
    'ordering, by places',
    itemXml(
      declare('ordered', 'identifier', correct('A', 'B', 'C')),
      `<orderInteraction responseIdentifier="RESPONSE" shuffle="true"><prompt>Order.</prompt>${abc}</orderInteraction>`,
      rules(
        ...['A', 'B', 'C'].map((id, i) =>
          when([
            `<match><index n="${i + 1}">${variable()}</index>${base('identifier', id)}</match>`,
            add(base('float', 1)),
          ]),
        ),
      ),
    ),
    'ordering',
    3,
    'Alpha → Beta → Gamma',
  ],
  [
    'hotspots, all of them',
    itemXml(declare('multiple', 'identifier', correct('A', 'B')), hotspots(0), template('match_correct')),
    'spot',
    1,
    'Place 1 · Place 2',
  ],
  [
    'hotspots, graded',
    itemXml(declare('single', 'identifier', mapping({ A: 2, B: 1 })), hotspots(1), template('map_response')),
    'spot',
    2,
    'Place 1',
  ],
  [
    'rings of a bullseye',
    itemXml(
      declare(
        'single',
        'point',
        '<areaMapping defaultValue="0"><areaMapEntry shape="circle" coords="100,100,10" mappedValue="3"/><areaMapEntry shape="circle" coords="100,100,30" mappedValue="2"/><areaMapEntry shape="circle" coords="100,100,60" mappedValue="1"/></areaMapping>',
      ),
      points,
      template('map_response_point'),
    ),
    'spot',
    3,
    'place 1',
  ],
  [
    'a point inside',
    itemXml(
      declare('single', 'point', correct('100 100')),
      points,
      rules(when([`<inside shape="rect" coords="90,90,110,110">${variable()}</inside>`, score(1)])),
    ),
    'spot',
    1,
    'place 1',
  ],
  [
    'hottext',
    itemXml(
      declare('single', 'identifier', correct('B')),
      '<hottextInteraction responseIdentifier="RESPONSE" maxChoices="1"><prompt>Find the slip.</prompt><p>He <hottext identifier="A">goes</hottext> to <hottext identifier="B">there</hottext>.</p></hottextInteraction>',
      template('match_correct'),
    ),
    'choice',
    1,
    'there',
  ],
  [
    'associate',
    itemXml(
      declare('multiple', 'pair', correct('A B', 'C D') + mapping({ 'A B': 1, 'C D': 1 })),
      `<associateInteraction responseIdentifier="RESPONSE" shuffle="true" maxAssociations="2"><prompt>Pair.</prompt>${['A', 'B', 'C', 'D', 'E'].map((id) => `<simpleAssociableChoice identifier="${id}" matchMax="1">W${id}</simpleAssociableChoice>`).join('')}</associateInteraction>`,
      template('map_response'),
    ),
    'matching',
    2,
    'WA – WB · WC – WD',
  ],
  [
    'slider',
    itemXml(
      declare('single', 'integer', correct('16')),
      '<sliderInteraction responseIdentifier="RESPONSE" lowerBound="0" upperBound="20" step="1"><prompt>How many?</prompt></sliderInteraction>',
      rules(when([equal('toleranceMode="absolute" tolerance="2 2"', correctly() + variable()), score(1)])),
    ),
    'number',
    1,
    '16 ± 2',
  ],
]

describe('comes in right, and is proven', () => {
  it.each(proven)('%s', (_name, xml, kind, worth, key) => {
    const { question, proofs, lost } = look(xml)
    expect([question.kind, question.points, kindOf(question.kind).keyText(question.body)]).toEqual([kind, worth, key])
    expect([proofs.map((proof) => proof?.state), lost, questionFaults(question)]).toEqual([['proven'], [], []])
  })
  it('several things at once are a question each, with what they share', () => {
    const both = `${declare('single', 'identifier', correct('A'), 'R1')}${declare('single', 'identifier', correct('B'), 'R2')}`
    const read = look(
      itemXml(
        both,
        `<p>Read this passage.</p>${choosing(abc, 1, '<prompt>First?</prompt>', 'R1')}${choosing(abc, 1, '<prompt>Second?</prompt>', 'R2')}`,
        rules(when([matches('R1'), add(base('float', 1))]), when([matches('R2'), add(base('float', 2))])),
      ),
    )
    expect(read.parts.map(({ question }) => [question.stem, question.points])).toEqual([
      ['<p>First?</p>', 1],
      ['<p>Second?</p>', 2],
    ])
    expect([read.common, read.proofs.map((proof) => proof?.state)]).toEqual([
      '<p>Read this passage.</p>',
      ['proven', 'proven'],
    ])
  })
})

describe('what cannot be had is told, with an example', () => {
  it('credits of single pairs where there are more than ten: what guessing earns could not be counted', () => {
    const names = Array.from({ length: 11 }, (_, i) => String.fromCharCode(97 + i))
    const right = names.map((name) => `${name} ${name}_`)
    const item = look(
      itemXml(
        declare(
          'multiple',
          'directedPair',
          correct(...right) +
            mapping({ ...Object.fromEntries(right.map((pair) => [pair, 1])), 'a b_': -1 }, 'lowerBound="0"'),
        ),
        match(
          side(names, 1),
          side(
            names.map((name) => `${name}_`),
            1,
          ),
        ),
        template('map_response'),
      ),
    )
    expect(item.proofs[0]).toMatchObject({ state: 'differs' })
    expect(item.notes.join()).toContain('so large a matching')
  })
  it.each([
    ['an operator of somebody’s own', rules(set(`<customOperator class="x.y">${variable()}</customOperator>`)), 'open'],
    ['no processing at all', '', 'open'],
    [
      'one of two, told of in a way that is not read: by its key alone',
      rules(
        when([
          `<anyN min="1" max="1">${['B', 'C'].map((name) => `<match>${variable()}${base('identifier', name)}</match>`).join('')}</anyN>`,
          score(1),
        ]),
      ),
      'differs',
    ],
    ['everything but the key', rules(when([`<not>${matches()}</not>`, score(1)])), 'proven'],
  ])('%s', (_name, processing, state) =>
    expect(look(itemXml(one, choosing(abc), processing)).proofs[0]?.state).toBe(state),
  )
  const pairs = declare('multiple', 'directedPair', correct('a x', 'b y'))
  const matched = (attributes: string, left = side(['a', 'b'], 1), right = side(['x', 'y', 'z'], 1)) =>
    itemXml(
      pairs,
      `<matchInteraction responseIdentifier="RESPONSE" ${attributes}><prompt>What goes with what?</prompt>${left}${right}</matchInteraction>`,
      template('match_correct'),
    )
  const several = (attributes: string) =>
    itemXml(
      declare('multiple', 'identifier', correct('A', 'B')),
      `<choiceInteraction responseIdentifier="RESPONSE" ${attributes}><prompt>Which?</prompt>${abc}</choiceInteraction>`,
      template('match_correct'),
    )
  it.each<[string, string, RegExp | null]>([
    ['any number of choices', several('maxChoices="0"'), null],
    ['a least number of choices', several('maxChoices="0" minChoices="2"'), /At least 2 have to be chosen/],
    ['all the pairs that there are', matched('maxAssociations="2"'), null],
    ['as many pairs as anybody likes', matched('maxAssociations="0"'), null],
    ['fewer pairs than there are', matched('maxAssociations="1"'), /At most one pair may be made/],
    ['a least number of pairs', matched('maxAssociations="2" minAssociations="2"'), /At least 2 pairs/],
    [
      'things that go with two of three',
      matched('maxAssociations="0"', side(['a', 'b'], 2), side(['x', 'y', 'z'], 0)),
      /How often things of it may be used/,
    ],
    ['things that go with all', matched('maxAssociations="0"', side(['a', 'b'], 3), side(['x', 'y', 'z'], 0)), null],
    [
      'groups that only go with each other',
      matched('maxAssociations="0"', side(['a', 'b'], 1).replace('matchMax', 'matchGroup="x" matchMax')),
      /Which of it may go with which/,
    ],
    [
      'a pattern of what may be typed',
      typed('string', correct('ab'), template('match_correct')).replace(
        'responseIdentifier="RESPONSE"',
        'responseIdentifier="RESPONSE" patternMask="[a-z]+"',
      ),
      /has a pattern in the file \(\[a-z\]\+\)/,
    ],
    [
      'rulers beside it',
      itemXml(one, choosing(abc), template('match_correct')).replace(
        '<itemBody>',
        '<companionMaterialsInfo><rule/></companionMaterialsInfo><itemBody>',
      ),
      /rulers/,
    ],
    [
      'other forms of it',
      itemXml(one, choosing(abc), template('match_correct')).replace(
        '</assessmentItem>',
        '<catalogInfo/></assessmentItem>',
      ),
      /catalogue of other forms/,
    ],
  ])('what the file asks of those who answer: %s', (_name, xml, told) => {
    const { notes, proofs } = look(xml)
    expect(proofs.map((each) => each?.state)).toEqual(['proven'])
    if (told) expect(notes.join(' ')).toMatch(told)
    else expect(notes).toEqual([])
  })
  it('a number in another base is not taken for one in ten', () => {
    const xml = typed('integer', correct('5'), template('match_correct'))
    expect(look(xml).question.kind).toBe('number')
    expect(() => look(xml.replace('responseIdentifier=', 'base="2" responseIdentifier='))).toThrow(/base 2/)
  })
  it('a calculator beside it is a tool of the question', () => {
    const beside =
      '<companionMaterialsInfo><calculator><calculatorType>basic</calculatorType></calculator></companionMaterialsInfo>'
    const { question, notes } = look(
      itemXml(one, choosing(abc), template('match_correct')).replace('<itemBody>', `${beside}<itemBody>`),
    )
    expect([question.tools, notes]).toEqual([['calculator'], []])
  })
  const essay = (score: string, key = '') =>
    itemXml(
      declare('single', 'string', key),
      '<extendedTextInteraction responseIdentifier="RESPONSE"><prompt>Why?</prompt></extendedTextInteraction>',
      '',
    ).replace(outcome('SCORE', 'single', 'float', '0'), score)
  it.each<[string, string, number, string]>([
    [
      'the greatest score',
      '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" normalMaximum="6"/>',
      6,
      '',
    ],
    [
      'an outcome for it',
      `${outcome('SCORE', 'single', 'float', '0')}${outcome('MAXSCORE', 'single', 'float', '4.5')}`,
      4.5,
      '',
    ],
    ['nothing', outcome('SCORE', 'single', 'float', '0'), 1, ''],
    [
      'that people score it, whatever stands there as right',
      '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" externalScored="human" normalMaximum="3"/>',
      3,
      'The moon pulls.',
    ],
  ])('what people mark is worth what the file says: %s', (_name, declared, points, model) => {
    const { question, notes } = look(essay(declared, model && correct(model)))
    expect([question.kind, question.points, notes]).toEqual(['written', points, []])
    expect((question.body as { model: string }).model).toBe(model)
  })
  it('a score from elsewhere, and an answer that is filled in beforehand, are told', () => {
    const choice = itemXml(one, choosing(abc), template('match_correct'))
    const { notes } = look(
      choice
        .replace('identifier="SCORE"', 'identifier="SCORE" externalScored="externalMachine"')
        .replace('<correctResponse>', '<defaultValue><value>B</value></defaultValue><correctResponse>'),
    )
    expect(notes.join(' ')).toMatch(/fills in an answer beforehand.*comes from elsewhere/)
  })
  it('a key that was changed after reading is found: the check can fail', async () => {
    const { prove } = await import('../../formats/qti/proof/prove')
    const { tree, parts } = look(itemXml(one, choosing(abc), template('match_correct')))
    const [part] = parts
    const turned = structuredClone(part!.question) as { body: { options: { credit: number }[] } }
    turned.body.options.reverse().forEach((option, i) => (option.credit = i === 0 ? 1 : 0))
    expect(prove({ item: tree, question: turned as never, responses: part!.responses })).toMatchObject({
      state: 'differs',
    })
  })
  it('words and pictures that no question holds are named', () => {
    const { tree, question } = look(
      itemXml(one, `<p>Look closely at the buoyage ${picture}</p>${choosing(abc)}`, template('match_correct')),
    )
    const without = { ...question, stem: '<p>Which? Look at the</p>' }
    expect(lostOf(tree, [question], [])).toEqual({ words: [], things: 0 })
    expect(lostOf(tree, [without], [])).toEqual({ words: ['closely', 'buoyage', 'map'], things: 1 })
  })
})

describe('feedback', () => {
  const said = (id: string, words: string) =>
    `<modalFeedback outcomeIdentifier="FEEDBACK" identifier="${id}" showHide="show"><p>${words}</p></modalFeedback>`
  it('is a comment where the item shows it: right, wrong, one option', () => {
    const xml = itemXml(
      `${one}${outcome('FEEDBACK', 'multiple', 'identifier')}`,
      choosing(abc),
      rules(
        when(
          [matches(), score(1) + set(base('identifier', 'x1'), 'FEEDBACK')],
          [set(base('identifier', 'x2'), 'FEEDBACK')],
        ),
        when([
          matches('RESPONSE', base('identifier', 'B')),
          set(`<multiple>${variable('FEEDBACK')}${base('identifier', 'x3')}</multiple>`, 'FEEDBACK'),
        ]),
      ),
      said('x1', 'Well seen.') + said('x2', 'Look again.') + said('x3', 'Beta is another.'),
    )
    const { question, notes, proofs } = look(xml)
    expect([question.comments.right, question.comments.wrong, question.comments.general]).toEqual([
      '<p>Well seen.</p>',
      '<p>Look again.</p>',
      '',
    ])
    expect((question.body as { options: { comment: string }[] }).options.map(({ comment }) => comment)).toEqual([
      '',
      '<p>Beta is another.</p>',
      '',
    ])
    expect([notes, proofs[0]?.state]).toEqual([[], 'proven'])
  })
})

describe('contents', () => {
  const stem = (inner: string) =>
    look(itemXml(one, `${inner}${choosing(abc)}`, template('match_correct'))).question.stem.replace('<p>Which?</p>', '')
  it.each([
    ['<p><b>Bold</b> and <i>slanted</i></p>', '<p><strong>Bold</strong> and <em>slanted</em></p>'],
    ['<h1>Head</h1>', '<h3>Head</h3>'],
    ['<div>Words<p>A paragraph</p></div>', '<p>Words</p><p>A paragraph</p>'],
    ['<dl><dt>Ebb</dt><dd>falls</dd></dl>', '<p><strong>Ebb</strong></p><p>falls</p>'],
    ['<p>At 5 <abbr>kn</abbr> in <small>light</small> <mark>air</mark>.</p>', '<p>At 5 kn in light air.</p>'],
    ['<p>It costs $5, not 6$.</p>', '<p>It costs $5, not 6$.</p>'],
    ['<p>Find $x^2$.</p>', '<p>Find <span data-type="inline-math" data-latex="x^2"></span>.</p>'],
    [
      '<p><m:math xmlns:m="http://www.w3.org/1998/Math/MathML"><m:mfrac><m:mn>1</m:mn><m:mn>2</m:mn></m:mfrac></m:math></p>',
      '<p><span data-type="inline-math" data-latex="\\frac{1}{2}"></span></p>',
    ],
    ['<rubricBlock view="candidate"><p>Use a pencil.</p></rubricBlock>', '<p>Use a pencil.</p>'],
    ['<p>a&nbsp;b &eacute; &mdash; &frac12; &amp;lt;</p>', '<p>a&nbsp;b é — ½ &amp;lt;</p>'],
    ['<p>Wh<!-- not said -->ich<?print no?> one</p>', '<p>Which one</p>'],
    [
      '<table><caption>Heights</caption><tr><td>1</td></tr></table>',
      '<p><strong>Heights</strong></p><table><tbody><tr><td>1</td></tr></tbody></table>',
    ],
  ])('%s', (inner, html) => expect(stem(inner)).toBe(html))
  it.each([
    ['<p>See <script>alert(1)</script> it</p>', /program/],
    ['<p>See <iframe src="https://x.example"/> it</p>', /page that is shown/],
    ['<p>See <svg xmlns="http://www.w3.org/2000/svg"><circle r="3"/></svg> it</p>', /drawing/],
  ])('%s is left out, and told', (inner, told) => {
    const { question, notes, lost } = look(itemXml(one, `${inner}${choosing(abc)}`, template('match_correct')))
    expect(question.stem.replace(/\s+/g, ' ')).toBe('<p>See it</p><p>Which?</p>')
    expect([notes.join(), lost]).toEqual([expect.stringMatching(told), []])
  })
  it('names of signs that nobody knows, and parts of such names, are no signs', () => {
    for (const name of ['nosuchname', 'ampx', 'nbspx', 'constructor'])
      expect(() => look(itemXml(one, `<p>a &${name}; b</p>${choosing(abc)}`, template('match_correct')))).toThrow(
        /broken/,
      )
  })
  it('lowered and raised digits are not lost; what an abbreviation stands for is told', () => {
    const body = '<p>H<sub>2</sub>O over 3 m<sup>2</sup> at 5 <abbr title="knots">kn</abbr>.</p>'
    const { lost, notes } = look(itemXml(one, body + choosing(abc), template('match_correct')))
    expect([lost, notes]).toEqual([[], ['What an abbreviation stands for is not kept: “kn: knots”.']])
  })
  it('“these two, and three in all” is nobody’s key', () => {
    const both = `${member('identifier', 'A')}${member('identifier', 'B')}`
    const three = `<equal toleranceMode="exact"><containerSize>${variable()}</containerSize>${base('integer', 3)}</equal>`
    const { proofs } = look(
      itemXml(
        declare('multiple', 'identifier', correct('A', 'B')),
        choosing(abc, 0),
        rules(when([`<and>${both}${three}</and>`, score(1)])),
      ),
    )
    expect(proofs[0]?.state).toBe('differs')
  })
  it('a sound that may be played twice stands in the text, beside what is asked', () => {
    const sound =
      '<mediaInteraction responseIdentifier="M" autostart="true" maxPlays="2" minPlays="1"><prompt>Listen.</prompt><object type="audio/mpeg" data="bell.mp3"/></mediaInteraction>'
    const { question, proofs, notes } = look(
      itemXml(one + declare('single', 'integer', '', 'M'), sound + choosing(abc), template('match_correct')),
    )
    expect([question.stem, proofs[0]?.state, notes]).toEqual([
      '<p>Listen.</p><p><audio src="bell.mp3" controls data-plays="2"></audio></p><p>Which?</p>',
      'proven',
      [
        'That a sound or film has to be played is not kept.',
        'Sounds and films that start by themselves wait for a press here.',
      ],
    ])
  })
  it('names that differ only in signs stay apart', () => {
    const xml = itemXml(
      declare('single', 'identifier', correct('a.1')),
      choosing(choices({ 'a.1': 'One', 'a-1': 'Two', 'a:1': 'Three' })),
      template('match_correct'),
    )
    const { question, proofs } = look(xml)
    expect([kindOf(question.kind).keyText(question.body), proofs[0]?.state]).toEqual(['One', 'proven'])
  })
})

describe('packages of others', () => {
  const file = (words: string) => itemXml(one, choosing(abc, 1, `<prompt>${words}</prompt>`), template('match_correct'))
  const packed = (files: Record<string, string | Uint8Array>) =>
    readPackage(
      zip(
        new Map(
          Object.entries(files).map(([name, text]) => [
            name,
            typeof text === 'string' ? new TextEncoder().encode(text) : text,
          ]),
        ),
      ),
    )
  it('bases, types that say nothing, resources without an address, capitals and escapes', () => {
    const { items } = packed({
      'imsmanifest.xml':
        '<manifest xml:base="course/"><resources xml:base="unit/"><resource identifier="a" type="webcontent"><file href="Item%20One.xml"/></resource><resource identifier="b" type="imsqti_item_xmlv2p1" href="SECOND.XML"/><resource identifier="c" type="imsqti_item_xmlv2p1" href="50%.xml"/></resources></manifest>',
      'course/unit/Item One.xml': file('First'),
      'course/unit/second.xml': file('Second'),
      'course/unit/50%.xml': file('Third'),
    })
    expect(items.map((item) => [item.problem, item.question?.stem, item.proof?.state])).toEqual([
      [null, '<p>First</p>', 'proven'],
      [null, '<p>Second</p>', 'proven'],
      [null, '<p>Third</p>', 'proven'],
    ])
  })
  it('several stimuli of one item: none is lost', () => {
    const stimulus = (id: string, words: string) =>
      `<assessmentStimulus xmlns="http://www.imsglobal.org/xsd/imsqti_v2p2" identifier="${id}" title="${id}"><stimulusBody><p>${words}</p></stimulusBody></assessmentStimulus>`
    const refs = ['a', 'b'].map((id) => `<assessmentStimulusRef identifier="${id}" href="${id}.xml"/>`).join('')
    const { items, stimuli } = packed({
      'imsmanifest.xml': `<manifest><resources>${['a', 'b'].map((id) => `<resource identifier="${id}" type="imsqti_stimulus_xmlv2p2" href="${id}.xml"/>`).join('')}<resource identifier="i" type="imsqti_item_xmlv2p2" href="i.xml"/></resources></manifest>`,
      'a.xml': stimulus('a', 'A table of tides.'),
      'b.xml': stimulus('b', 'A chart of the bay.'),
      'i.xml': file('Which?').replace('<itemBody>', `${refs}<itemBody>`),
    })
    const [item] = items
    expect([...stimuli.values()].map(({ html }) => html)).toContain('<p>A table of tides.</p>')
    expect([item!.stimulus, item!.question!.stem]).toEqual(['a', '<p>A chart of the bay.</p><p>Which?</p>'])
    expect(item!.notes.join()).toMatch(/several stimuli/)
  })
  it('processing in a file of its own is read there; a template that somebody else publishes is not taken for the standard’s', () => {
    const by = (address: string) => file('Which?').replace(/template="[^"]*"/, `template="${address}"`)
    const { items } = packed({
      'a.xml': by('../own/match_correct.xml'),
      'own/match_correct.xml': rules(when([matches('RESPONSE', base('identifier', 'B')), score(2)])),
      'items/b.xml': by('../own/match_correct.xml'),
      'c.xml': by('https://tools.example/rptemplates/match_correct'),
      'd.xml': by('rptemplates/match_correct'),
    })
    expect(
      items.map(({ place, question, proof }) => [
        place,
        question!.points,
        kindOf(question!.kind).keyText(question!.body as never),
        proof?.state,
      ]),
    ).toEqual([
      ['a.xml', 2, 'Beta', 'proven'],
      ['c.xml', 1, 'Alpha', 'open'],
      ['d.xml', 1, 'Alpha', 'proven'],
      ['items/b.xml', 2, 'Beta', 'proven'],
    ])
  })
  it('the encoding that a file declares', () => {
    const text = file('Où est la bouée ?').replace('UTF-8', 'ISO-8859-1')
    const { items } = packed({ 'a.xml': Uint8Array.from(text, (sign) => sign.charCodeAt(0)) })
    expect(items[0]!.question!.stem).toBe('<p>Où est la bouée ?</p>')
  })
  it.each([
    [
      'in order, as a whole',
      'Ordered',
      '<varequal respident="r">b</varequal><varequal respident="r">a</varequal>',
      'flood → ebb',
    ],
    ['in order, place by place', 'Ordered', null, 'flood → ebb'],
    ['less than nothing, which its least value forbids', 'Single', '<varequal respident="r">a</varequal>', 'ebb'],
  ])('1.2: %s', (_name, cardinality, whole, key) => {
    const label = (id: string, words: string) =>
      `<response_label ident="${id}"><material><mattext>${words}</mattext></material></response_label>`
    const when12 = (condition: string, value: number, action = 'Set') =>
      `<respcondition continue="Yes"><conditionvar>${condition}</conditionvar><setvar action="${action}" varname="SCORE">${value}</setvar></respcondition>`
    const processing =
      whole === null
        ? ['b', 'a']
            .map((id, i) => when12(`<varequal respident="r" index="${i + 1}">${id}</varequal>`, 1, 'Add'))
            .join('')
        : when12(whole, 2) + (cardinality === 'Single' ? when12(`<not>${whole}</not>`, -1) : '')
    const { items } = packed({
      'quiz.xml': `<questestinterop><item ident="one" title="One"><presentation><material><mattext>What falls?</mattext></material><response_lid ident="r" rcardinality="${cardinality}"><render_choice>${label('a', 'ebb')}${label('b', 'flood')}</render_choice></response_lid></presentation><resprocessing><outcomes><decvar varname="SCORE" minvalue="0" maxvalue="2"/></outcomes>${processing}</resprocessing></item></questestinterop>`,
    })
    const [item] = items
    expect([item!.problem, item!.proof?.state, item!.question?.points]).toEqual([null, 'proven', 2])
    expect(kindOf(item!.question!.kind).keyText(item!.question!.body)).toBe(key)
  })
  it('1.2: a field that is drawn for numbers, between two of them', () => {
    const { items } = packed({
      'quiz.xml':
        '<questestinterop><item ident="one" title="One"><presentation><material><mattext>How many metres?</mattext></material><response_str ident="r"><render_fib fibtype="Decimal"/></response_str></presentation><resprocessing><outcomes><decvar/></outcomes><respcondition><conditionvar><vargt respident="r">3</vargt><varlte respident="r">4</varlte></conditionvar><setvar>1</setvar></respcondition></resprocessing></item></questestinterop>',
    })
    const [item] = items
    expect([item!.problem, item!.proof?.state]).toEqual([null, 'proven'])
    expect(kindOf('number').keyText(item!.question!.body)).toBe('3.5 (above 3, up to 4)')
  })
  it('items of 1.2', () => {
    const label = (id: string, words: string) =>
      `<response_label ident="${id}"><material><mattext>${words}</mattext></material></response_label>`
    const { items } = packed({
      'quiz.xml': `<questestinterop><assessment><section><item ident="one" title="One"><presentation><material><mattext texttype="text/html">&lt;p&gt;What falls?&lt;/p&gt;</mattext></material><response_lid ident="r" rcardinality="Single"><render_choice>${label('a', 'ebb')}${label('b', 'flood')}</render_choice></response_lid></presentation><resprocessing><outcomes><decvar varname="SCORE" minvalue="0" maxvalue="4"/></outcomes><respcondition><conditionvar><varequal respident="r">a</varequal></conditionvar><setvar action="Set" varname="SCORE">4</setvar></respcondition></resprocessing></item></section></assessment></questestinterop>`,
    })
    expect(
      items.map((item) => [item.outsideId, item.question?.stem, item.question?.points, item.proof?.state]),
    ).toEqual([['one', '<p>What falls?</p>', 4, 'proven']])
  })
})

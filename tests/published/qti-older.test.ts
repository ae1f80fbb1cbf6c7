/**
 * Items and tests of QTI 1.2 as varied tools write them (IMS Question & Test Interoperability, ASI 1.2 with its selection and
 * ordering; forms from memory of the specification, words ours): each comes in proven by its own processing, or is told. The texts
 * of a file are looked for in what was read; nothing is lost without a word.
 */
import { describe, expect, it } from 'vitest'
import { kindOf, questionFaults } from '../../core/question'
import type { BundleItem } from '../../formats'
import { readPackage } from '../../formats/qti/package/read'

const words = (text: string, type = '') =>
  `<material><mattext${type && ` texttype="${type}"`}>${text}</mattext></material>`
const label = (id: string, text: string) => `<response_label ident="${id}">${words(text)}</response_label>`
const tides = label('a', 'ebb') + label('b', 'flood') + label('c', 'slack')
const list = (cardinality = 'Single', id = 'r', before = '', options = tides, more = '') =>
  `<response_lid ident="${id}" rcardinality="${cardinality}">${before}<render_choice shuffle="Yes"${more}>${options}</render_choice></response_lid>`
const field = '<response_str ident="r"><render_fib/></response_str>'
const number = '<response_num ident="r"><render_fib fibtype="Decimal"/></response_num>'
const is = (value: string, id = 'r', more = '') => `<varequal respident="${id}"${more}>${value}</varequal>`
const when = (condition: string, then: string, goesOn = 'No') =>
  `<respcondition continue="${goesOn}"><conditionvar>${condition}</conditionvar>${then}</respcondition>`
const set = (value: number, action = 'Set') => `<setvar action="${action}" varname="SCORE">${value}</setvar>`
const show = (name: string) => `<displayfeedback feedbacktype="Response" linkrefid="${name}"/>`
const feedback = (id: string, inner: string) => `<itemfeedback ident="${id}">${inner}</itemfeedback>`
const score = (least: number, most: number) =>
  `<decvar varname="SCORE" vartype="Decimal" minvalue="${least}" maxvalue="${most}"/>`
const item = (asked: string, processing: string, outcome = score(0, 2), more = '', id = 'one') =>
  `<item ident="${id}" title="One"><presentation>${words('What falls?')}${asked}</presentation>${
    processing && `<resprocessing><outcomes>${outcome}</outcomes>${processing}</resprocessing>`
  }${more}</item>`
const read = (xml: string) =>
  readPackage(
    new TextEncoder().encode(
      `<?xml version="1.0"?><!DOCTYPE questestinterop SYSTEM "ims_qtiasiv1p2.dtd"><questestinterop>${xml}</questestinterop>`,
    ),
  )
const only = (xml: string): BundleItem => read(xml).items[0]!
const keyOf = ({ question }: BundleItem) => kindOf(question!.kind).keyText(question!.body as never)

describe('items of QTI 1.2 come in as they score', () => {
  it.each<[name: string, xml: string, kind: string, points: number, key: string]>([
    ['one of several', item(list(), when(is('b'), set(2))), 'choice', 2, 'flood'],
    [
      'these and not that',
      item(list('Multiple'), when(`<and>${is('a')}${is('b')}<not>${is('c')}</not></and>`, set(2))),
      'choices',
      2,
      'ebb · flood',
    ],
    [
      'credits within bounds, whose last one ends the processing',
      item(
        list('Multiple'),
        when(is('a'), set(50, 'Add'), 'Yes') + when(is('b'), set(50, 'Add'), 'Yes') + when(is('c'), set(-100, 'Add')),
        score(0, 100),
      ),
      'choices',
      100,
      'ebb · flood',
    ],
    [
      '“other”, where what held before goes on',
      item(list(), when(is('b'), set(2), 'Yes') + when('<other/>', set(0), 'Yes')),
      'choice',
      2,
      'flood',
    ],
    [
      'what is not right is nothing, all else is all',
      item(list(), when(`<not>${is('b')}</not>`, set(0)) + when('<other/>', set(2))),
      'choice',
      2,
      'flood',
    ],
    [
      'less for a wrong one, nothing for none',
      item(
        list(),
        when('<unanswered respident="r"/>', set(0)) + when(is('b'), set(2)) + when('<other/>', set(-1)),
        score(-1, 2),
      ),
      'choice',
      2,
      'flood',
    ],
    [
      'times three',
      item(list(), when(is('b'), set(1), 'Yes') + when(is('b'), set(3, 'Multiply')), score(0, 3)),
      'choice',
      3,
      'flood',
    ],
    [
      'in order',
      item(list('Ordered'), when(is('c') + is('a') + is('b'), set(2))),
      'ordering',
      2,
      'slack → ebb → flood',
    ],
    [
      'a text, one entry of it exactly',
      item(field, when(`<or>${is('ebb')}${is('Ebb Tide', 'r', ' case="Yes"')}</or>`, set(2))),
      'text',
      2,
      'ebb or Ebb Tide',
    ],
    ['a text with half credit', item(field, when(is('ebb'), set(2)) + when(is('low'), set(1))), 'text', 2, 'ebb'],
    [
      'part of a text',
      item(field, when('<varsubstring respident="r">ebb</varsubstring>', set(2))),
      'text',
      2,
      'contains “ebb”',
    ],
    [
      'a number or its range',
      item(
        number,
        when(
          `<or>${is('4')}<and><vargte respident="r">3.8</vargte><varlte respident="r">4.2</varlte></and></or>`,
          set(2),
        ),
      ),
      'number',
      2,
      '4 or 4 (from 3.8, up to 4.2)',
    ],
    [
      'a slider',
      item(
        '<response_num ident="r"><render_slider lowerbound="1" upperbound="9" step="1"/></response_num>',
        when(is('4'), set(2)),
      ),
      'number',
      2,
      '4',
    ],
    [
      'two lists',
      item(
        list('Single', 'r1', words('First')) + list('Single', 'r2', words('Second')),
        when(is('a', 'r1'), set(1, 'Add'), 'Yes') + when(is('b', 'r2'), set(1, 'Add'), 'Yes'),
      ),
      'gaps',
      2,
      'ebb · flood',
    ],
    [
      'two fields amid their words',
      item(
        `<flow><response_str ident="r1">${words('The ')}<render_fib/></response_str><response_str ident="r2"><render_fib>${words('and the ')}<response_label ident="x"/>${words(' tide.')}</render_fib></response_str></flow>`,
        when(is('ebb', 'r1') + is('flood', 'r2'), set(2)),
      ),
      'gaps',
      2,
      'ebb · flood',
    ],
    [
      'a score by another name',
      item(
        list(),
        when(is('b'), '<setvar varname="que_score">1</setvar>'),
        '<decvar varname="que_score" maxvalue="1"/>',
      ),
      'choice',
      1,
      'flood',
    ],
  ])('%s', (_name, xml, kind, points, key) => {
    const found = only(xml)
    expect([found.problem, found.notes, found.lost]).toEqual([null, [], []])
    expect([found.question!.kind, keyOf(found), found.proof?.state]).toEqual([kind, key, 'proven'])
    expect(found.question!.points).toBe(points)
  })
  it('feedback where its conditions show it; solutions are feedback, and hints are told', () => {
    const found = only(
      item(
        list(),
        when(is('a'), show('low'), 'Yes') + when(is('b'), set(2) + show('yes')) + when('<other/>', show('no')),
        undefined,
        feedback('yes', words('Well done.')) +
          feedback('low', `<flow_mat>${words('Ebb falls.')}</flow_mat>`) +
          feedback('h', `<hint><hintmaterial>${words('Think of the moon.')}</hintmaterial></hint>`) +
          feedback('no', `<solution><solutionmaterial>${words('Neither.')}</solutionmaterial></solution>`),
      ),
    )
    const { comments, body } = found.question as Extract<typeof found.question, { kind: 'choice' }>
    expect(comments).toEqual({
      right: '<p>Well done.</p>',
      wrong: '',
      general: expect.stringContaining('moon') as string,
    })
    expect(body.options.map(({ comment }) => comment)).toEqual(['<p>Ebb falls.</p>', '', '<p>Neither.</p>'])
    expect(found.notes).toContain('Hints of it are comments here.')
  })
  it('what people mark is worth what the file says', () => {
    const essay = '<response_str ident="r"><render_fib rows="8"/></response_str>'
    const { question, notes } = only(
      item(essay, '<respcondition><conditionvar><other/></conditionvar></respcondition>', score(0, 12)),
    )
    expect([question!.kind, question!.points, notes]).toEqual(['written', 12, []])
  })
  it.each([
    ['a list', (words: string) => item(list('Single', 'r', `<flow>${words}</flow>`), when(is('b'), set(2)))],
    [
      'two lists',
      (words: string) =>
        item(list('Single', 'r1', words) + list('Single', 'r2', words), when(is('a', 'r1') + is('b', 'r2'), set(2))),
    ],
    [
      'a field',
      (words: string) =>
        item(`<response_str ident="r"><flow>${words}</flow><render_fib/></response_str>`, when(is('ebb'), set(2))),
    ],
  ])('paragraphs before %s stand there whole', (_name, made) => {
    const found = only(
      made(words('&lt;p&gt;At &lt;b&gt;springs&lt;/b&gt;&lt;/p&gt;&lt;p&gt;it is&lt;/p&gt;', 'text/html')),
    )
    expect([found.problem, found.notes, found.lost, found.proof?.state]).toEqual([null, [], [], 'proven'])
    const html = found.question!.stem + JSON.stringify(found.question!.body)
    expect(html).toContain('<strong>springs</strong>')
    expect(html).not.toMatch(/<p>\s*<p>/)
  })
  it('what is said beside stands in the text; plain words are plain', () => {
    const found = only(
      item(
        list(),
        when(is('b'), set(2)),
        undefined,
        `<rubric view="All">${words('Use the &lt;p&gt; element.', 'text/plain')}</rubric><rubric view="Tutor">${words('For tutors.')}</rubric>`,
      ),
    )
    expect(found.question!.stem).toBe('<p>Use the &lt;p&gt; element.</p><p>What falls?</p>')
    expect(found.notes.join()).toMatch(/authors, tutors/)
  })
})

describe('what of QTI 1.2 cannot be had is told', () => {
  it.each<[string, string, string | null, RegExp]>([
    [
      'several answers that are joined by nothing',
      item(field, when(is('ebb') + is('low tide'), set(2))),
      'open',
      /without saying how they belong together/,
    ],
    [
      'bounds that depend on when they hold',
      item(
        list('Multiple'),
        when(is('a'), set(2, 'Add'), 'Yes') + when(is('b'), set(2, 'Add'), 'Yes') + when(is('c'), set(1, 'Subtract')),
      ),
      'open',
      /which the standard does not say/,
    ],
    [
      'less than nothing for a blank',
      item(list(), when(is('b'), set(2)) + when('<other/>', set(-1)), score(-1, 2)),
      'differs',
      /−1/,
    ],
    ['subsets', item(list('Multiple'), when('<varsubset respident="r">a,b</varsubset>', set(2))), 'open', /varsubset/],
    ['a place in a picture', item('<response_xy ident="r"/>', when(is('1,1'), set(2))), null, /place in a picture/],
    [
      'areas of a picture',
      item('<response_lid ident="r"><render_hotspot/></response_lid>', when(is('a'), set(2))),
      null,
      /areas of a picture/,
    ],
    [
      'several words in one answer',
      item(
        '<response_str ident="r" rcardinality="Ordered"><render_fib><response_label ident="x"/><response_label ident="y"/></render_fib></response_str>',
        when(is('ebb', 'r', ' index="1"'), set(2)),
      ),
      null,
      /several words in one answer/,
    ],
    [
      'how many may be chosen',
      item(list('Multiple', 'r', '', tides, ' maxnumber="2"'), when(is('a'), set(2))),
      'proven',
      /At most 2/,
    ],
    [
      'a program in the text',
      item(`<material><matapplet>x</matapplet></material>${list()}`, when(is('b'), set(2))),
      'proven',
      /program/,
    ],
  ])('%s', (_name, xml, state, told) => {
    const found = only(xml)
    const { proof } = found
    expect(proof?.state ?? null).toBe(state)
    const said = [found.problem ?? '', ...found.notes, proof?.state === 'open' ? proof.reason : JSON.stringify(proof)]
    expect(said.join(' ')).toMatch(told)
  })
  it('a key that could not be found is a fault of the question', () => {
    const found = only(item(list('Multiple'), when('<varsubset respident="r">a,b</varsubset>', set(2))))
    expect(questionFaults(found.question!).length).toBeGreaterThan(0)
  })
})

describe('tests of QTI 1.2', () => {
  const one = (id: string, weight?: number) =>
    item(
      list(),
      when(is('b'), set(2)),
      undefined,
      weight === undefined
        ? ''
        : `<itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>cc_weighting</fieldlabel><fieldentry>${weight}</fieldentry></qtimetadatafield></qtimetadata></itemmetadata>`,
      id,
    )
  const drawing = (n: number, mixed: boolean) =>
    `<selection_ordering><selection><selection_number>${n}</selection_number></selection><order order_type="${mixed ? 'Random' : 'Sequential'}"/></selection_ordering>`
  it('their sections, draws, weights, limits and words come in', () => {
    const { tests, items } = read(
      `<assessment ident="t" title="Tides"><duration>PT45M</duration><presentation_material><flow_mat>${words('Read with care.')}</flow_mat></presentation_material>
      <section ident="s1" title="Springs">${one('i1', 3)}${one('i2')}</section>
      <section ident="s2" title="Neaps"><duration>PT10M</duration>${drawing(1, true)}${one('i3')}${one('i4')}</section></assessment>`,
    )
    expect(items.map(({ outsideId }) => outsideId)).toEqual(['i1', 'i2', 'i3', 'i4'])
    const [test] = tests
    expect([test!.title, test!.intro, test!.limit, test!.notes]).toEqual(['Tides', '<p>Read with care.</p>', 45, []])
    expect(
      test!.sections.map(({ title, limit, order, rows }) => [
        title,
        limit,
        order,
        rows.map((row) => [row.items.length, row.draw, row.points]),
      ]),
    ).toEqual([
      [
        'Springs',
        null,
        'kept',
        [
          [1, 1, 3],
          [1, 1, null],
        ],
      ],
      ['Neaps', 10, 'shuffled', [[2, 1, null]]],
    ])
    expect(test!.sections.flatMap(({ rows }) => rows.flatMap((row) => row.items))).toEqual(
      items.map(({ place }) => place),
    )
  })
  it('a draw from a bank of the same file; what is not there is told', () => {
    const { tests } = read(
      `<objectbank ident="bank">${one('i1')}${one('i2')}${one('i3')}</objectbank><assessment ident="t" title="Tides"><section ident="s" title="Draw"><selection_ordering><selection><sourcebank_ref>bank</sourcebank_ref><selection_number>2</selection_number></selection></selection_ordering><itemref linkrefid="gone"/></section></assessment>`,
    )
    expect(tests[0]!.sections[0]!.rows.map((row) => [row.items.length, row.draw])).toEqual([[3, 2]])
    expect(tests[0]!.notes).toEqual(['“gone” is not in the file and is left out.'])
  })
  it('a bank alone is no test; a section that lies within itself ends', () => {
    expect(read(`<objectbank ident="bank">${one('i1')}</objectbank>`).tests).toEqual([])
    const { tests } = read(
      `<assessment ident="t" title="T"><section ident="s">${one('i1')}<sectionref linkrefid="s"/></section></assessment>`,
    )
    expect(tests[0]!.notes.join()).toMatch(/refers to others in turn/)
  })
  it('sections that multiply by their references are refused before they grow', () => {
    const empty = `<section ident="s">${'<section ident="x"/>'.repeat(300)}</section>`
    expect(() =>
      read(
        `<assessment ident="t">${empty}<section ident="u">${'<sectionref linkrefid="s"/>'.repeat(300)}${one('i1')}</section></assessment>`,
      )
        .items.filter(({ problem }) => problem !== null)
        .forEach(({ problem }) => {
          throw new Error(problem!)
        }),
    ).toThrow(/more than 20000 items and sections/)
  })
  it('how it is scored, tried and answered by the result is told', () => {
    const { tests } = read(
      `<assessment ident="t" title="Tides"><qtimetadata><qtimetadatafield><fieldlabel>cc_maxattempts</fieldlabel><fieldentry>unlimited</fieldentry></qtimetadatafield><qtimetadatafield><fieldlabel>qmd_timelimit</fieldlabel><fieldentry>20</fieldentry></qtimetadatafield></qtimetadata><outcomes_processing scoremodel="GuessingPenalty"><outcomes><decvar varname="SCORE" cutvalue="60"/></outcomes></outcomes_processing><assessfeedback ident="f"><flow_mat>${words('You passed.')}</flow_mat></assessfeedback><section ident="s">${one('i1')}</section></assessment>`,
    )
    expect(tests[0]!.limit).toBe(20)
    const told = tests[0]!.notes.join(' ')
    for (const each of [/points add up/, /passed from 60 on/, /You passed/, /more than once \(unlimited\)/])
      expect(told).toMatch(each)
  })
})

/**
 * Items after the examples of the QTI specification (1EdTech QTI 2.1 and 2.2, Implementation Guide), rebuilt by hand from
 * memory of the standard: structure, mappings, bounds and templates are theirs as remembered, words and names are ours.
 * Each is read as it stands and scored as its processing says.
 */
import { describe, expect, it } from 'vitest'
import { instanceOf, questionFaults, scoreAnswer, type Question } from '../../core/question'
import { fromAnyVersion } from '../../formats/qti/names'
import { readItemTree } from '../../formats/qti/read'
import { readXml } from '../../formats/xml'

const template = (name: string) =>
  `<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/${name}"/>`
const declare = (cardinality: string, baseType: string, inner: string, identifier = 'RESPONSE') =>
  `<responseDeclaration identifier="${identifier}" cardinality="${cardinality}" baseType="${baseType}">${inner}</responseDeclaration>`
const correct = (...values: string[]) =>
  `<correctResponse>${values.map((value) => `<value>${value}</value>`).join('')}</correctResponse>`
const mapping = (entries: Record<string, number>, bounds = 'defaultValue="0"') =>
  `<mapping ${bounds}>${Object.entries(entries)
    .map(([key, value]) => `<mapEntry mapKey="${key}" mappedValue="${value}"/>`)
    .join('')}</mapping>`
const item = (declarations: string, body: string, processing: string, more = '') =>
  readItemTree(
    fromAnyVersion(
      readXml(`<?xml version="1.0" encoding="UTF-8"?>
<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="example" title="Example" adaptive="false" timeDependent="false">
  ${declarations}<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>
  <itemBody>${body}</itemBody>${processing}${more}</assessmentItem>`),
    ),
  )
/** A share of the greatest score that the example can give. */
const share = (question: Question, answer: unknown): number => {
  const [n, d = '1'] = scoreAnswer(question, {}, answer).fraction!.split('/')
  return Number(n) / Number(d)
}
const chosen = (...ids: string[]) => ({ chosen: ids })
const simple = (choices: Record<string, string>) =>
  Object.entries(choices)
    .map(([id, words]) => `<simpleChoice identifier="${id}">${words}</simpleChoice>`)
    .join('')

describe('choice (a single answer, match_correct)', () => {
  const { question, notes } = item(
    declare('single', 'identifier', correct('ChoiceA')),
    `<p>Look at the text in the picture.</p><choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="1"><prompt>What does it say?</prompt>${simple({ ChoiceA: 'You must stay with your luggage at all times.', ChoiceB: 'Do not let someone else look after your luggage.', ChoiceC: 'Remember your luggage when you leave.' })}</choiceInteraction>`,
    template('match_correct'),
  )
  it('is read whole', () => {
    expect([question.kind, notes, questionFaults(question)]).toEqual(['choice', [], []])
    expect(question.stem).toBe('<p>Look at the text in the picture.</p><p>What does it say?</p>')
  })
  it('gives one for the correct response, else nothing', () =>
    expect(['ChoiceA', 'ChoiceB', 'ChoiceC'].map((id) => share(question, chosen(id)))).toEqual([1, 0, 0]))
})

describe('choice_multiple (the composition of water: map_response, lowerBound 0, upperBound 2, defaultValue −2)', () => {
  const { question } = item(
    declare(
      'multiple',
      'identifier',
      `${correct('H', 'O')}${mapping({ H: 1, O: 1, Cl: -1 }, 'lowerBound="0" upperBound="2" defaultValue="-2"')}`,
    ),
    `<choiceInteraction responseIdentifier="RESPONSE" shuffle="true" maxChoices="0"><prompt>Which of the following elements are used to form water?</prompt>${simple({ H: 'Hydrogen', He: 'Helium', C: 'Carbon', O: 'Oxygen', N: 'Nitrogen', Cl: 'Chlorine' })}</choiceInteraction>`,
    template('map_response'),
  )
  it.each([
    [['H', 'O'], 2],
    [['H'], 1],
    [['H', 'O', 'Cl'], 1],
    [['H', 'O', 'He'], 0],
    [['He', 'C', 'N'], 0],
    [['Cl'], 0],
    [['H', 'Cl'], 0],
  ])('%j scores %d of 2', (ids, score) => expect(share(question, chosen(...ids))).toBeCloseTo(score / 2, 9))
  it('shuffles as it says', () => expect((question.body as { inOrder: boolean }).inOrder).toBe(false))
})

describe('text_entry (map_response, one answer whole, another half)', () => {
  const { question } = item(
    declare('single', 'string', `${correct('York')}${mapping({ York: 1, york: 0.5 })}`),
    '<p>Identify the missing word.</p><blockquote><p>Now is the winter of our discontent, made glorious summer by this sun of <textEntryInteraction responseIdentifier="RESPONSE" expectedLength="15"/>.</p></blockquote>',
    template('map_response'),
  )
  it.each([
    ['York', 1],
    ['york', 0.5],
    ['Leicester', 0],
  ])('%s scores %d', (text, score) => expect(share(question, { text })).toBe(score))
})

describe('inline_choice (match_correct)', () => {
  const { question } = item(
    declare('single', 'identifier', correct('Y')),
    '<p>Made glorious summer by this sun of <inlineChoiceInteraction responseIdentifier="RESPONSE" shuffle="false"><inlineChoice identifier="G">Gloucester</inlineChoice><inlineChoice identifier="L">Lancaster</inlineChoice><inlineChoice identifier="Y">York</inlineChoice></inlineChoiceInteraction>.</p>',
    template('match_correct'),
  )
  it('is a text with one gap that is a list', () =>
    expect([question.kind, questionFaults(question)]).toEqual(['gaps', []]))
  it('scores by its correct response', () =>
    expect(['Y', 'G'].map((id) => share(question, { gaps: { g1: id } }))).toEqual([1, 0]))
})

describe('gap_match (map_response with pairs of a word and its gap, lowerBound 0)', () => {
  const { question, notes } = item(
    declare(
      'multiple',
      'directedPair',
      `${correct('W G1', 'Su G2')}${mapping({ 'W G1': 1, 'Su G2': 2 }, 'lowerBound="0" defaultValue="-1"')}`,
    ),
    '<gapMatchInteraction responseIdentifier="RESPONSE" shuffle="false"><prompt>Identify the missing words.</prompt><gapText identifier="W" matchMax="1">winter</gapText><gapText identifier="Sp" matchMax="1">spring</gapText><gapText identifier="Su" matchMax="1">summer</gapText><gapText identifier="A" matchMax="1">autumn</gapText><blockquote><p>Now is the <gap identifier="G1"/> of our discontent, made glorious <gap identifier="G2"/> by this sun.</p></blockquote></gapMatchInteraction>',
    template('map_response'),
  )
  it('is a text with gaps; each weighs what its pair is worth', () => {
    expect([question.kind, question.stem]).toEqual(['gaps', '<p>Identify the missing words.</p>'])
    expect((question.body as { gaps: { weight: number }[] }).gaps.map((gap) => gap.weight)).toEqual([1, 2])
    expect(notes).toEqual(['How often a word may be used is limited in the file; here every gap takes any word.'])
  })
  it.each([
    [{ g1: 'W', g2: 'Su' }, 3],
    [{ g1: 'W' }, 1],
    [{ g2: 'Su' }, 2],
    [{ g1: 'Su', g2: 'W' }, 0],
  ])('%j scores %d of 3', (gaps, score) => expect(share(question, { gaps })).toBeCloseTo(score / 3, 9))
})

describe('order (match_correct, cardinality ordered)', () => {
  const { question } = item(
    declare('ordered', 'identifier', correct('DriverC', 'DriverA', 'DriverB')),
    `<orderInteraction responseIdentifier="RESPONSE" shuffle="true"><prompt>They finished on the podium. Put them in their order.</prompt>${simple({ DriverA: 'The first', DriverB: 'The second', DriverC: 'The third' })}</orderInteraction>`,
    template('match_correct'),
  )
  it.each([
    [['DriverC', 'DriverA', 'DriverB'], 1],
    [['DriverA', 'DriverB', 'DriverC'], 0],
    [['DriverC', 'DriverB', 'DriverA'], 0],
  ])('%j scores %d', (order, score) => expect(share(question, { order })).toBe(score))
})

describe('match (map_response: pairs that weigh differently)', () => {
  const set = (choices: Record<string, number>) =>
    `<simpleMatchSet>${Object.entries(choices)
      .map(
        ([id, most]) =>
          `<simpleAssociableChoice identifier="${id}" matchMax="${most}">Entry ${id}</simpleAssociableChoice>`,
      )
      .join('')}</simpleMatchSet>`
  const { question, notes } = item(
    declare(
      'multiple',
      'directedPair',
      `${correct('C R', 'D M', 'L M', 'P T')}${mapping({ 'C R': 1, 'D M': 0.5, 'L M': 0.5, 'P T': 1 })}`,
    ),
    `<matchInteraction responseIdentifier="RESPONSE" shuffle="true" maxAssociations="4"><prompt>Match the characters to the plays.</prompt>${set({ C: 1, D: 1, L: 1, P: 1 })}${set({ M: 4, R: 4, T: 4 })}</matchInteraction>`,
    template('map_response'),
  )
  it('is sorting, with what each pair counts', () => {
    expect([question.kind, notes]).toEqual(['sorting', []])
    expect(share(question, { pairs: { D: 'M' } })).toBeCloseTo(0.5 / 3, 9)
  })
  it('all pairs right are everything, none are nothing', () => {
    expect(share(question, { pairs: { C: 'R', D: 'M', L: 'M', P: 'T' } })).toBe(1)
    expect(share(question, { pairs: { C: 'M', D: 'R', L: 'T', P: 'R' } })).toBe(0)
  })
})

const picture = '<object type="image/png" data="sign.png" width="206" height="280">A map</object>'
describe('hotspot and select_point', () => {
  it('hotspot: match_correct on the place chosen', () => {
    const { question } = item(
      declare('single', 'identifier', correct('A')),
      `<hotspotInteraction responseIdentifier="RESPONSE" maxChoices="1"><prompt>Which one?</prompt>${picture}<hotspotChoice shape="circle" coords="77,115,8" identifier="A"/><hotspotChoice shape="circle" coords="118,184,8" identifier="B"/><hotspotChoice shape="circle" coords="150,235,8" identifier="C"/></hotspotInteraction>`,
      template('match_correct'),
    )
    expect(['A', 'B'].map((id) => share(question, chosen(id)))).toEqual([1, 0])
  })
  it('select_point: map_response_point, the border inside', () => {
    const { question } = item(
      declare(
        'single',
        'point',
        '<correctResponse><value>102 113</value></correctResponse><areaMapping defaultValue="0"><areaMapEntry shape="circle" coords="102,113,16" mappedValue="1"/></areaMapping>',
      ),
      `<selectPointInteraction responseIdentifier="RESPONSE" maxChoices="1"><prompt>Mark it.</prompt>${picture}</selectPointInteraction>`,
      template('map_response_point'),
    )
    expect(
      [
        [102, 113],
        [118, 113],
        [119, 113],
        [10, 10],
      ].map(([x, y]) => share(question, { points: [{ x, y }] })),
    ).toEqual([1, 1, 0, 0])
  })
})

describe('extended_text and upload', () => {
  it('wait for a person, who is told what the scorer is to know', () => {
    const { question } = item(
      declare('single', 'string', ''),
      '<rubricBlock view="scorer"><p>Look for a greeting.</p></rubricBlock><p>Write a postcard.</p><extendedTextInteraction responseIdentifier="RESPONSE" expectedLength="200"><prompt>What do you say?</prompt></extendedTextInteraction>',
      '',
    )
    expect([
      question.kind,
      (question.body as { model: string }).model,
      scoreAnswer(question, {}, { text: 'Hello' }).fraction,
    ]).toEqual(['written', 'Look for a greeting.', null])
    expect(question.stem).not.toContain('greeting')
  })
})

describe('response conditions of an item’s own', () => {
  const branch = (name: string, value: string, score: number, tolerance = 'toleranceMode="exact"') =>
    `<${name}><equal ${tolerance}><variable identifier="RESPONSE"/><baseValue baseType="float">${value}</baseValue></equal><setOutcomeValue identifier="SCORE"><baseValue baseType="float">${score}</baseValue></setOutcomeValue></${name}>`
  it('a number with branches: whole, then nearly', () => {
    const { question } = item(
      declare('single', 'float', correct('42.5')),
      '<p>How much? <textEntryInteraction responseIdentifier="RESPONSE"/></p>',
      `<responseProcessing><responseCondition>${branch('responseIf', '42.5', 2)}${branch('responseElseIf', '42.5', 1, 'toleranceMode="absolute" tolerance="0.5 0.5"')}</responseCondition></responseProcessing>`,
    )
    expect(['42.5', '42.9', '43.1'].map((text) => share(question, { text }))).toEqual([1, 0.5, 0])
  })
  it('of a choice they say what its options are worth', () => {
    const { question, notes } = item(
      declare('single', 'identifier', correct('A')),
      `<choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="1"><prompt>Which?</prompt>${simple({ A: 'a', B: 'b' })}</choiceInteraction>`,
      '<responseProcessing><responseCondition><responseIf><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match><setOutcomeValue identifier="SCORE"><baseValue baseType="float">1</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing>',
    )
    expect(notes).toEqual([])
    expect(['A', 'B'].map((id) => share(question, chosen(id)))).toEqual([1, 0])
  })
})

describe('template (a varying item: drawn integers, a computed key)', () => {
  const { question } = item(
    `${declare('single', 'integer', '')}<templateDeclaration identifier="PEOPLE" cardinality="single" baseType="integer" paramVariable="true"/><templateDeclaration identifier="HOURS" cardinality="single" baseType="integer"/><templateDeclaration identifier="TOTAL" cardinality="single" baseType="integer"/>
    <templateProcessing><setTemplateValue identifier="PEOPLE"><randomInteger min="2" max="8"/></setTemplateValue><setTemplateValue identifier="HOURS"><random><multiple><baseValue baseType="integer">3</baseValue><baseValue baseType="integer">6</baseValue></multiple></random></setTemplateValue>
    <setTemplateValue identifier="TOTAL"><product><variable identifier="PEOPLE"/><variable identifier="HOURS"/></product></setTemplateValue><setCorrectResponse identifier="RESPONSE"><variable identifier="TOTAL"/></setCorrectResponse></templateProcessing>`,
    '<p>One person digs a hole in <printedVariable identifier="TOTAL"/> hours at the pace of <printedVariable identifier="PEOPLE"/> in <printedVariable identifier="HOURS"/>. Check: <textEntryInteraction responseIdentifier="RESPONSE" expectedLength="4"/></p>',
    template('match_correct'),
  )
  it('its values reach text and key', () => {
    expect(questionFaults(question)).toEqual([])
    const instance = instanceOf(question, { PEOPLE: '4', HOURS: '6', TOTAL: '24' })
    expect(instance.stem).toContain('in 24 hours at the pace of 4 in 6')
    expect(['24', '10'].map((text) => share(instance, { text }))).toEqual([1, 0])
  })
})

describe('feedback', () => {
  it('on the whole item is a comment; beside an option it is that option’s', () => {
    const { question } = item(
      `${declare('single', 'identifier', correct('A'))}<outcomeDeclaration identifier="FEEDBACK" cardinality="single" baseType="identifier"/>`,
      '<choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="1"><prompt>Which?</prompt><simpleChoice identifier="A">a<feedbackInline outcomeIdentifier="FEEDBACK" identifier="A" showHide="show">Well seen.</feedbackInline></simpleChoice><simpleChoice identifier="B">b</simpleChoice></choiceInteraction>',
      template('match_correct'),
      '<modalFeedback outcomeIdentifier="FEEDBACK" identifier="B" showHide="show">No, not that one.</modalFeedback>',
    )
    expect((question.body as { options: { html: string; comment: string }[] }).options[0]).toMatchObject({
      html: 'a',
      comment: '<p>Well seen.</p>',
    })
    expect(question.comments.general).toBe('<p>No, not that one.</p>')
  })
})

describe('what has no like here is told with its reason', () => {
  it.each([
    [
      'graphicOrderInteraction',
      `<graphicOrderInteraction responseIdentifier="RESPONSE">${picture}</graphicOrderInteraction>`,
    ],
    ['drawingInteraction', `<drawingInteraction responseIdentifier="RESPONSE">${picture}</drawingInteraction>`],
    ['customInteraction', '<customInteraction responseIdentifier="RESPONSE"/>'],
  ])('%s', (name, body) =>
    expect(() => item(declare('single', 'identifier', ''), body, '')).toThrow(
      `The interaction “${name}” has no like here.`,
    ),
  )
  it('adaptive items, and things that are scored together', () => {
    expect(() =>
      readItemTree(
        readXml('<assessmentItem identifier="x" adaptive="true"><itemBody><p/></itemBody></assessmentItem>'),
      ),
    ).toThrow(/Adaptive/)
    expect(() =>
      item(
        `${declare('single', 'identifier', correct('A'))}${declare('single', 'string', '', 'SECOND')}`,
        `<choiceInteraction responseIdentifier="RESPONSE" maxChoices="1">${simple({ A: 'a', B: 'b' })}</choiceInteraction><extendedTextInteraction responseIdentifier="SECOND"/>`,
        '<responseProcessing><responseCondition><responseIf><and><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match><not><isNull><variable identifier="SECOND"/></isNull></not></and><setOutcomeValue identifier="SCORE"><baseValue baseType="float">1</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing>',
      ),
    ).toThrow(/scored together/)
  })
})

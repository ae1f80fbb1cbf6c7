import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sampleQuestion } from '../../tests/fixtures/core'
import { isBlank, plainText } from './allowed-html'
import { nearKey, nearWords } from './near'
import { stimulusAs, stimulusIn } from './stimulus'
import { inLanguage, mapEveryHtml, readAs, readIn, textsOf, untranslated } from './texts'
import { kindNames, type Question } from '.'

describe('what a person reads in HTML', () => {
  it.each([
    ['<p>One</p><p>two</p>', 'One two'],
    ['<strong>in</strong>side', 'inside'],
    ['a &amp; b &lt;c&gt; &quot;d&quot;', 'a & b <c> "d"'],
    ['x&nbsp;y', 'x y'],
    ['<img src="/x" alt="A chart">', 'A chart'],
    ['<audio src="/x" aria-label="A horn"></audio>', 'A horn'],
    ['a sounding of 1<sub>6</sub>', 'a sounding of 1₆'],
    ['10<sup>3</sup>', '10³'],
    ['<span data-type="inline-math" data-latex="\\frac{1}{2}"></span> R', '\\frac{1}{2} R'],
    ['<span data-latex="x"><span class="katex">x<span>deep</span></span><!--maths--></span>', 'x'],
    ['', ''],
  ])('%s', (html, words) => expect(plainText(html)).toBe(words))
  it('a picture is something, empty paragraphs are nothing', () => {
    expect(
      ['<p></p>', '<p> &nbsp; </p>', '<img src="/x" alt="">', '<audio src="/x"></audio>', 'x'].map(isBlank),
    ).toEqual([true, true, false, false, false])
  })
})

describe('translations', () => {
  it.each(kindNames)('%s: every text has a key of its own, and comes back in the other language', (kind) => {
    const question = sampleQuestion(kind)
    const texts = textsOf(question)
    const dutch = Object.fromEntries([...texts].map(([key, html]) => [key, `NL ${html}`]))
    const translated = { ...question, translations: { nl: dutch } } as Question
    expect(untranslated(translated, 'nl')).toEqual([])
    expect([...textsOf(inLanguage(translated, 'nl'))]).toEqual([...texts].map(([key, html]) => [key, `NL ${html}`]))
    expect(inLanguage(translated, 'nl').language).toBe('nl')
    expect(inLanguage(translated, 'en')).toBe(translated)
    expect(untranslated(question, 'nl')).toEqual([...texts.keys()])
  })
  it('what is missing stays as it was written; a question without its stem is not taken for translated', () => {
    const choice = sampleQuestion('choice', {
      translations: { nl: { stem: '<p>Vraag</p>', 'option:a': 'Eerste' }, fr: { 'option:a': 'Un' } },
    })
    const dutch = readIn(choice, 'nl') as Extract<Question, { kind: 'choice' }>
    expect([dutch.stem, dutch.body.options[0]!.html, dutch.body.options[1]!.html, dutch.language]).toEqual([
      '<p>Vraag</p>',
      'Eerste',
      'Option b',
      'nl',
    ])
    expect(readIn(choice, 'fr')).toBe(choice)
    expect(readIn(choice, 'de')).toBe(choice)
    expect(readIn(choice, null)).toBe(choice)
  })
  it('cleaning reaches translations too', () => {
    const seen: string[] = []
    mapEveryHtml(sampleQuestion('choice', { translations: { nl: { stem: '<p onclick="x()">Vraag</p>' } } }), (html) => {
      seen.push(html)
      return html
    })
    expect(seen).toContain('<p onclick="x()">Vraag</p>')
  })
  it('what questions share is read in the language asked for, where there is something in it', () => {
    const shared = { html: '<p>Log</p>', language: 'en', translations: { nl: '<p>Logboek</p>', fr: '<p></p>' } }
    expect([null, 'en', 'nl', 'fr', 'de'].map((language) => stimulusIn(shared, language).language)).toEqual([
      'en',
      'en',
      'nl',
      'en',
      'en',
    ])
  })
})

describe('near-duplicates', () => {
  const key = (stem: string) => nearKey(sampleQuestion('number', { stem }))
  it('numbers, spacing, case, accents and punctuation make no difference; words do', () => {
    const same = [
      '<p>How high is the tide at 0800, in metres?</p>',
      '<p>How  HIGH is the tide at 1100 — in metres</p>',
      '<p>Hów high is <em>the</em> tide at {= t}, in metres?</p>',
    ]
    expect(new Set(same.map(key)).size).toBe(1)
    expect(key('<p>How low is the tide at 0800, in metres?</p>')).not.toBe(key(same[0]!))
  })
  it('too few words are compared with nothing', () => expect(key('<p>True?</p>')).toBe(''))
  it('never depends on the numbers in it', () => {
    fc.assert(
      fc.property(fc.integer(), fc.integer(), (a, b) => {
        expect(nearWords(sampleQuestion('number', { stem: `<p>From ${a} to ${b} knots of wind</p>` }))).toBe(
          'fromtoknotsofwind',
        )
      }),
    )
  })
})

describe('two languages together', () => {
  it.each(kindNames)('%s: each text stands over its translation, and gaps are asked for once', (kind) => {
    const question = sampleQuestion(kind)
    const texts = textsOf(question)
    const dutch = Object.fromEntries([...texts].map(([key, html]) => [key, `NL ${html}`]))
    const translated = { ...question, translations: { nl: dutch } } as Question
    for (const [reading, over, under] of [
      ['en+nl', question, 'nl'],
      ['nl+en', inLanguage(translated, 'nl'), 'en'],
    ] as const) {
      const read = readAs(translated, reading)
      expect(read.language).toBe(reading.slice(0, 2))
      for (const [key, html] of textsOf(read)) {
        expect(html.startsWith(textsOf(over).get(key)!), key).toBe(true)
        expect(html, key).toContain(`<span lang="${under}">`)
      }
      if (kind === 'gaps') expect(textsOf(read).get('text')!.split('SECRET-word')).toHaveLength(2)
    }
  })
  it('a language that a question cannot be read in is left out', () => {
    const question = sampleQuestion('choice')
    expect(readAs(question, 'en+fr')).toBe(question)
    expect(readAs(question, 'fr+en')).toBe(question)
    expect(readAs(question, null)).toBe(question)
    const half = { ...question, translations: { nl: { stem: '<p>Waarom?</p>' } } } as Question
    expect(textsOf(readAs(half, 'en+nl')).get('option:a')).toBe('Option a')
  })
  it('and so it is with what questions share', () => {
    const shared = { html: '<p>Read</p>', language: 'en', translations: { nl: '<p>Lees</p>', fr: '<p></p>' } }
    expect(stimulusAs(shared, 'nl+en')).toEqual({
      html: '<p>Lees</p><br><span lang="en"><p>Read</p></span>',
      language: 'nl',
    })
    expect(stimulusAs(shared, 'en+fr')).toEqual({ html: '<p>Read</p>', language: 'en' })
    expect(stimulusAs(shared, 'nl')).toEqual({ html: '<p>Lees</p>', language: 'nl' })
  })
})

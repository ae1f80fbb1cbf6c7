/**
 * Every file that is written keeps to the content models of its version (qti-model.ts, from memory of the standard's schemas),
 * and names nothing that it does not declare; whatever markup stands in whichever text of a question.
 */
import { describe, expect, it } from 'vitest'
import { bank } from '../../demo/bank'
import { withPictures } from '../../demo/bank/pictures'
import { kindNames, mapQuestionHtml, type Question, type Stimulus } from '../../core/question'
import { digestOf, textRow, type PortableTest } from '../../formats/bundle'
import { namespaces, type QtiVersion } from '../../formats/qti/names'
import { writePackage } from '../../formats/qti/package/write'
import { unzip } from '../../formats/zip'
import { creditedQuestions, sampleQuestion } from '../fixtures/core'
import { isWritten, modelsOf, strays, written, type Written } from '../support/schema-model'
import { groups, ownElements, perVersion, textElements } from './qti-model'

const picture = new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 7])
const sound = new Uint8Array([0x49, 0x44, 0x33, 4, 0, 0, 0, 0, 0, 0, 0, 0])
const [pictureId, soundId] = [digestOf(picture), digestOf(sound)]
const media = new Map([
  [pictureId, picture],
  // What the sample of a spot shows.
  ['a'.repeat(64), picture],
  [soundId, sound],
])

const kebab = (name: string) => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)
function modelsIn(version: QtiVersion) {
  const named = { ...groups(version), ...perVersion(version) }
  const own = new Set([...ownElements.matchAll(/^(\w+) \|/gm)].map((found) => found[1]!))
  const same = (name: string) => name
  const element = (name: string) => (version === '3.0' && own.has(name) ? `qti-${kebab(name)}` : name)
  const attribute = (name: string) => (version === '3.0' && !name.includes(':') ? kebab(name) : name)
  return new Map([
    ...modelsOf(ownElements, named, { element, attribute }),
    ...modelsOf(textElements(version), named, { element, attribute: same }),
  ])
}

const inlineMarkup = `Words with <strong>weight</strong>, <em>stress</em>, <u>a line</u>, <s>a stroke</s>, H<sub>2</sub>O, x<sup>2</sup>, <code>code</code>,<br>a <a href="https://example.org/tide?a=1&amp;b=2">link</a>, <span lang="fr">marée</span>, <span data-type="inline-math" data-latex="\\frac{a}{b}&lt;1"></span>`
const mediaMarkup = `<img src="/api/media/${pictureId}" alt="A chart" width="50%"> <audio src="/api/media/${soundId}" controls data-plays="2" aria-label="A horn"></audio> <a href="/api/media/${pictureId}" download="chart.png">the chart</a>`
const blockMarkup = `<h3>Head</h3><p>${inlineMarkup}</p><p>${mediaMarkup}</p><h4>Less</h4><ul><li>One</li><li><p>Two</p><ol><li>Deep</li></ol></li></ul><blockquote><p>Said</p></blockquote><pre><code>a\nb</code></pre><hr><table><colgroup><col><col></colgroup><thead><tr><th scope="col" colspan="2"><p>Top</p></th></tr></thead><tbody><tr><th scope="row">a</th><td rowspan="1">b</td></tr></tbody></table>`

/** A question all of whose texts hold some markup beside their own; no two are the same. */
const filled = (question: Question, markup: string): Question => {
  let count = 0
  return mapQuestionHtml(question, (html) =>
    html.includes('data-gap') ? `${html}${markup}` : `<p>${++count}. ${html}</p>${markup}`,
  )
}
const stimulus = (html: string): Stimulus => ({ name: 'A passage', language: 'en', html, source: '', translations: {} })
const commented = (question: Question): Question => ({
  ...question,
  comments: { right: '<p>Right.</p>', wrong: '<p>Wrong.</p>', general: '<p>Read more.</p>' },
})

const fills = { plain: '', words: inlineMarkup, media: `<p>${mediaMarkup}</p>`, blocks: blockMarkup }
const questions = [
  ...bank.map(({ id, question }) => ({
    id,
    question: withPictures(question, () => `/api/media/${pictureId}`),
  })),
  ...kindNames.flatMap((kind) =>
    Object.entries(fills).flatMap(([name, markup]) =>
      (['', 'keyless', 'shared'] as const).map((more) => ({
        id: ['sample', kind, name, more].filter(Boolean).join('-'),
        question: {
          ...filled(commented(sampleQuestion(kind, { points: 2.5 })), markup),
          ...(more === 'keyless' ? { keyless: true } : more === 'shared' ? { stimulus: 'st' } : {}),
        },
      })),
    ),
  ),
  ...creditedQuestions().map((question) => ({ id: `credits-${question.kind}`, question: commented(question) })),
].map(({ id, question }) => ({
  id,
  folder: ['Tides', 'Levels'],
  objectives: ['1.1'],
  question: { ...question, objectives: [] },
}))
const test: PortableTest = {
  title: 'A test <of> "all" & more',
  intro: blockMarkup,
  limit: 45.5,
  mayOverrun: true,
  movement: 'forward',
  notes: [],
  sections: (['kept', 'shuffled'] as const).map((order, i) => ({
    title: i ? '' : 'One',
    intro: blockMarkup,
    order,
    limit: i ? 20 : null,
    rows: [
      textRow(blockMarkup),
      ...questions.slice(i * 8, i * 8 + 4).map(({ id }, at) => ({
        items: [id],
        draw: 1,
        points: at ? 1 / 3 : null,
        fixed: at === 1,
        together: false,
        order: 'kept' as const,
        required: at === 2,
      })),
      {
        items: questions.slice(i * 8 + 4, i * 8 + 8).map(({ id }) => id),
        draw: 2,
        points: 2,
        fixed: false,
        together: i === 1,
        order: 'shuffled',
        required: true,
      },
    ],
  })),
}

const all = (element: Written): Written[] => [element, ...element.children.filter(isWritten).flatMap(all)]

/** What an item names that it does not declare. */
function dangling(item: Written, plain: (name: string) => string): string[] {
  const nodes = all(item)
  const declared = new Set<string>()
  for (const { name, attributes } of nodes)
    if (/Declaration$/.test(plain(name))) {
      if (declared.has(attributes.identifier!)) throw new Error(`${attributes.identifier} is declared twice`)
      declared.add(attributes.identifier!)
    }
  const naming = new Set([
    'variable',
    'correct',
    'mapResponse',
    'mapResponsePoint',
    'setOutcomeValue',
    'setTemplateValue',
    'setCorrectResponse',
    'printedVariable',
  ])
  return nodes.flatMap(({ name, attributes }) => {
    const named = [
      ...(naming.has(plain(name)) ? [attributes.identifier!] : []),
      ...Object.entries(attributes).flatMap(([key, value]) =>
        /^(responseIdentifier|outcomeIdentifier|response-identifier|outcome-identifier)$/.test(key) ? [value] : [],
      ),
    ]
    return named.filter((each) => !declared.has(each)).map((each) => `${name} names ${each}`)
  })
}

describe.each(['2.1', '2.2', '3.0'] as const)('QTI %s', (version) => {
  const models = modelsIn(version)
  const files = unzip(
    writePackage(questions, { media, stimuli: new Map([['st', stimulus(blockMarkup)]]), test }, version),
  )
  const trees = [...files]
    .filter(([name]) => name.endsWith('.xml'))
    .map(([name, bytes]) => [name, written(new TextDecoder().decode(bytes))] as const)
  const plain = (name: string) =>
    version === '3.0'
      ? name.replace(/^qti-/, '').replace(/-([a-z])/g, (_whole, letter: string) => letter.toUpperCase())
      : name
  const described = trees.filter(
    ([name]) => name !== 'imsmanifest.xml' && !(version === '2.1' && name.startsWith('stimuli/')),
  )

  it('holds every question', () => expect(described.length).toBeGreaterThan(questions.length))
  it('every file keeps to the models', () =>
    expect(
      described.flatMap(([name, tree]) => strays(tree, models, new Set(['math'])).map((each) => `${name}: ${each}`)),
    ).toEqual([]))
  it.each([
    ['<p>a<u>b</u></p>', '/p/u: no such element', '/p: holds u'],
    ['<p><ul/></p>', '/p: holds ul'],
    ['<img src="a.png"/>', '/img: alt is missing'],
    ['<table><tbody/></table>', '/table/tbody: holds nothing'],
    ['<td colspan="two">x</td>', '/td: colspan="two" is no int'],
    ['<ul>x</ul>', '/ul: text stands here'],
    ['<span lang="fr">x</span>', '/span: no attribute lang'],
  ])('the models refuse %s', (xml, ...found) => expect(strays(written(xml), models).sort()).toEqual(found.sort()))
  it('every element is of the namespace that it belongs to', () => {
    const maths = 'http://www.w3.org/1998/Math/MathML'
    const odd = described.flatMap(([name, tree]) => {
      const look = (element: Written, space: string): string[] => {
        const expected = element.name === 'math' ? maths : space
        return [
          ...(element.namespace === expected ? [] : [`${name}: ${element.name} is of ${element.namespace}`]),
          ...element.children.filter(isWritten).flatMap((child) => look(child, expected)),
        ]
      }
      return look(tree, namespaces[version])
    })
    expect(odd).toEqual([])
  })
  it('nothing is named that is not declared, and no identifier stands twice in an interaction', () => {
    const found = described
      .filter(([name]) => name.startsWith('items/'))
      .flatMap(([name, tree]) => [
        ...dangling(tree, plain).map((each) => `${name}: ${each}`),
        ...all(tree)
          .filter((each) => plain(each.name).endsWith('Interaction'))
          .flatMap((each) => {
            const ids = all(each)
              .slice(1)
              .filter(({ name: inner }) => /Choice$/.test(plain(inner)))
              .map(({ attributes }) => attributes.identifier!)
            return new Set(ids).size === ids.length ? [] : [`${name}: ${ids.join(' ')}`]
          }),
      ])
    expect(found).toEqual([])
  })
  it('every file that is named is in the package, and every file of it is named', () => {
    const manifest = new Map(trees).get('imsmanifest.xml')!
    const listed = all(manifest).flatMap(({ name, attributes }) => (name === 'file' ? [attributes.href!] : []))
    expect([...new Set(listed)].sort()).toEqual([...files.keys()].filter((name) => name !== 'imsmanifest.xml').sort())
    const ids = all(manifest).flatMap(({ name, attributes }) => (name === 'resource' ? [attributes.identifier!] : []))
    expect(new Set(ids).size).toBe(ids.length)
    const named = all(manifest).flatMap(({ name, attributes }) =>
      name === 'dependency' ? [attributes.identifierref!] : [],
    )
    expect(named.filter((each) => !ids.includes(each))).toEqual([])
  })
  it('pictures, sounds and what is shared are found from where they are named', () => {
    const missing = described.flatMap(([name, tree]) =>
      all(tree).flatMap(({ attributes: { src, data, href } }) =>
        [src, data, href]
          .filter((each): each is string => each !== undefined && !/^https?:/.test(each))
          .filter((each) => !files.has(new URL(each, `https://x/${name}`).pathname.slice(1)))
          .map((each) => `${name}: ${each}`),
      ),
    )
    expect(missing).toEqual([])
  })
})

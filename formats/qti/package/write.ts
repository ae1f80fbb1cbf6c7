import { ExpressionError, sampleInstances, type Question } from '../../../core/question'
import { mediaAddress } from '../../bundle'
import { encode, type Beside, type OutgoingQuestion } from '../../format'
import { mediaTypeOf } from '../../media-type'
import { document, element, type XmlElement } from '../../xml'
import { zip } from '../../zip'
import { NotSayable } from '../expressions'
import type { QtiVersion } from '../names'
import { mapElements } from '../../html'
import { sealSettings, settingsNamespace, type ItemSettings, type StimulusSettings } from './settings'
import { writeStimulus } from '../stimulus'
import { writeTest } from '../assessment/write'
import { writeItem } from '../write'

const packageNamespaces: Record<QtiVersion, string> = {
  '2.1': 'http://www.imsglobal.org/xsd/imscp_v1p1',
  '2.2': 'http://www.imsglobal.org/xsd/imscp_v1p1',
  '3.0': 'http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1',
}
const typeOf = (what: 'item' | 'test' | 'stimulus', version: QtiVersion) =>
  `imsqti_${what}_xmlv${version.replace('.', 'p')}`
const safeId = (id: string, prefix: string, i: number) =>
  /^[a-zA-Z_][a-zA-Z0-9_.-]*$/.test(id) ? id : `${prefix}-${i + 1}`

/** A package of items, with the stimuli that they share and, where there is one, the test that holds them. */
export function writePackage(
  questions: readonly OutgoingQuestion[],
  { media, stimuli = new Map(), test }: Partial<Beside> & Pick<Beside, 'media'>,
  version: QtiVersion,
): Uint8Array {
  const files = new Map<string, Uint8Array>()
  const types = new Map([...media].map(([id, bytes]) => [id, mediaTypeOf(bytes)]))
  const names = new Map([...media.keys()].map((id) => [id, `media/${id}.${types.get(id)?.ending ?? 'bin'}`]))
  for (const [id, bytes] of media) files.set(names.get(id)!, bytes)
  const mediaIn = (value: unknown) =>
    [...new Set([...JSON.stringify(value).matchAll(mediaAddress)].map((found) => found[1]!))].flatMap(
      (id) => names.get(id) ?? [],
    )
  /** Puts a file into the package, with its settings beside it in the manifest. */
  function resource(
    identifier: string,
    type: string,
    href: string,
    tree: XmlElement,
    settings: ItemSettings | StimulusSettings | null,
    uses: string[],
    needs: string[] = [],
    lom: XmlElement | null = null,
  ): XmlElement {
    const up = '../'.repeat(href.split('/').length - 1)
    const bytes = encode(
      document(withMediaTypes(tree, types, version)).replace(mediaAddress, (whole, id: string) =>
        names.has(id) ? `${up}${names.get(id)!}` : whole,
      ),
    )
    files.set(href, bytes)
    return element(
      'resource',
      { identifier, type, href },
      settings
        ? element('metadata', {}, lom, element('settings', { xmlns: settingsNamespace }, sealSettings(bytes, settings)))
        : null,
      [href, ...uses].map((name) => element('file', { href: name })),
      needs.map((name) => element('dependency', { identifierref: name })),
    )
  }
  const stimulusNames = new Map([...stimuli.keys()].map((id, i) => [id, safeId(id, 'stimulus', i)]))
  const shared = [...stimuli].map(([id, stimulus]) => {
    const name = stimulusNames.get(id)!
    // In 2.1 it is a page of the package that Thistle's settings tell of.
    return resource(
      `res-${name}`,
      version === '2.1' ? 'webcontent' : typeOf('stimulus', version),
      `stimuli/${name}.xml`,
      writeStimulus(stimulus, name, version),
      { id, stimulus },
      mediaIn(stimulus),
    )
  })
  const hrefs = new Map<string, string>()
  const items = questions.map(({ id, folder, objectives, question }, i) => {
    const identifier = safeId(id, 'item', i)
    const href = `items/${identifier}.xml`
    hrefs.set(id, href)
    const stimulus = question.stimulus === null ? undefined : stimulusNames.get(question.stimulus)
    // 2.1 knows no stimuli: what an item shares stands in the item itself, so that nobody reads it without.
    const passage = version === '2.1' && question.stimulus !== null ? stimuli.get(question.stimulus)?.html : undefined
    const tree = writeItem(
      asWritten(question),
      identifier,
      version,
      stimulus && version !== '2.1' ? { identifier: stimulus, href: `../stimuli/${stimulus}.xml` } : undefined,
      passage,
    )
    return resource(
      `res-${identifier}`,
      typeOf('item', version),
      href,
      tree,
      { id, folder, objectives, question: { ...question, objectives: [] } },
      mediaIn([question, passage]),
      stimulus ? [`res-${stimulus}`] : [],
      learningObject(question, objectives),
    )
  })
  const worths = new Map(questions.map(({ id, question }) => [id, question.keyless ? 0 : question.points]))
  const tests = test
    ? [
        resource(
          'res-test',
          typeOf('test', version),
          'test.xml',
          writeTest(test, { href: (id) => hrefs.get(id) ?? id, points: (id) => worths.get(id) ?? 1 }, version),
          null,
          [],
          questions.map(({ id }, i) => `res-${safeId(id, 'item', i)}`),
        ),
      ]
    : []
  const manifest = element(
    'manifest',
    { xmlns: packageNamespaces[version], identifier: 'thistle-questions' },
    element(
      'metadata',
      {},
      element('schema', {}, version === '3.0' ? 'QTI Package' : `QTIv${version} Package`),
      // As the standards' own packages say it (from memory): the schema names the version, 1.0.0 is that of the packaging.
      element('schemaversion', {}, version === '3.0' ? '3.0.0' : '1.0.0'),
    ),
    element('organizations'),
    element('resources', {}, tests, items, shared),
  )
  files.set('imsmanifest.xml', encode(document(manifest)))
  return zip(files)
}

/** Media as a version names them: the type that the bytes have; in 2.1, whose XHTML knows neither sound nor film, as objects. */
function withMediaTypes(
  tree: XmlElement,
  types: ReadonlyMap<string, { type: string } | undefined>,
  version: QtiVersion,
): XmlElement {
  const typeOf = (address: string | undefined) => types.get(address?.split('/').at(-1) ?? '')?.type
  const children = mapElements(tree.children, (node) => {
    if (node.name === 'object')
      return {
        ...node,
        attributes: { ...node.attributes, type: typeOf(node.attributes.data) ?? node.attributes.type! },
      }
    if (node.name !== 'audio' && node.name !== 'video') return node
    const { src, width, 'aria-label': label } = node.attributes
    return version === '2.1'
      ? element('object', { data: src, type: typeOf(src) ?? `${node.name}/mpeg`, width }, label ?? '')
      : { ...node, attributes: { ...node.attributes, controls: 'controls' } }
  })
  return { ...tree, children }
}

const difficulties = ['very easy', 'easy', 'medium', 'difficult', 'very difficult']
const lomNamespace = 'http://ltsc.ieee.org/xsd/LOM'

/** What is known of a question, as learning object metadata (IEEE 1484.12.1, XML binding 1484.12.3, from memory). */
function learningObject(question: Question, objectives: readonly string[]): XmlElement {
  const words = (name: string, text: string) =>
    element(name, {}, element('string', { language: question.language }, text))
  return element(
    'lom',
    { xmlns: lomNamespace },
    element(
      'general',
      {},
      question.internalName ? words('title', question.internalName) : null,
      element('language', {}, question.language),
      question.tags.map((tag) => words('keyword', tag)),
    ),
    element(
      'educational',
      {},
      element(
        'difficulty',
        {},
        element('source', {}, 'LOMv1.0'),
        element('value', {}, difficulties[question.difficulty - 1]!),
      ),
      element('typicalLearningTime', {}, element('duration', {}, `PT${question.seconds}S`)),
    ),
    objectives.map((code) =>
      element(
        'classification',
        {},
        element('purpose', {}, element('source', {}, 'LOMv1.0'), element('value', {}, 'educational objective')),
        element('taxonPath', {}, element('taxon', {}, element('id', {}, code))),
      ),
    ),
  )
}

/** A varying question goes out as a template where QTI can say it, else with the values of one instance. */
const asWritten = (question: Question): Question =>
  question.vary && !canBeTemplate(question) ? (sampleInstances(question, 1)[0]?.question ?? question) : question

/** Whether QTI can say how a question varies; if not, it is written with the values of one paper. */
export function canBeTemplate(question: Question): boolean {
  try {
    writeItem(question, 'x', '2.1')
    return true
  } catch (error) {
    if (error instanceof NotSayable || error instanceof ExpressionError) return false
    throw error
  }
}

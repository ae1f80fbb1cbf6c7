import { bytesToHex } from '@noble/hashes/utils.js'
import { ExpressionError, sampleInstances, type Question } from '../../core/question'
import { mediaAddress } from '../bundle'
import { encode, type Beside, type OutgoingQuestion } from '../format'
import { document, element, type XmlElement } from '../xml'
import { zip } from '../zip'
import { NotSayable } from './expressions'
import type { QtiVersion } from './names'
import { sealSettings, settingsNamespace, type ItemSettings, type StimulusSettings } from './settings'
import { writeStimulus } from './stimulus'
import { writeTest } from './test'
import { writeItem } from './write'

const packageNamespaces: Record<QtiVersion, string> = {
  '2.1': 'http://www.imsglobal.org/xsd/imscp_v1p1',
  '2.2': 'http://www.imsglobal.org/xsd/imscp_v1p1',
  '3.0': 'http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1',
}
const typeOf = (what: 'item' | 'test' | 'stimulus', version: QtiVersion) =>
  `imsqti_${what}_xmlv${version.replace('.', 'p')}`
const endings: Record<string, string> = {
  '89504e47': 'png',
  ffd8ffe0: 'jpg',
  ffd8ffe1: 'jpg',
  '47494638': 'gif',
  '52494646': 'webp',
  '1a45dfa3': 'webm',
  '4f676753': 'ogg',
  '25504446': 'pdf',
}
const ending = (bytes: Uint8Array) => endings[bytesToHex(bytes.subarray(0, 4))] ?? 'bin'
const safeId = (id: string, prefix: string, i: number) =>
  /^[a-zA-Z_][a-zA-Z0-9_.-]*$/.test(id) ? id : `${prefix}-${i + 1}`

/** A package of items, with the stimuli that they share and, where there is one, the test that holds them. */
export function writePackage(
  questions: readonly OutgoingQuestion[],
  { media, stimuli = new Map(), test }: Partial<Beside> & Pick<Beside, 'media'>,
  version: QtiVersion,
): Uint8Array {
  const files = new Map<string, Uint8Array>()
  const names = new Map([...media].map(([id, bytes]) => [id, `media/${id}.${ending(bytes)}`]))
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
  ): XmlElement {
    const up = '../'.repeat(href.split('/').length - 1)
    const bytes = encode(
      document(tree).replace(mediaAddress, (whole, id: string) => (names.has(id) ? `${up}${names.get(id)!}` : whole)),
    )
    files.set(href, bytes)
    return element(
      'resource',
      { identifier, type, href },
      settings
        ? element('metadata', {}, element('settings', { xmlns: settingsNamespace }, sealSettings(bytes, settings)))
        : null,
      [href, ...uses].map((name) => element('file', { href: name })),
      needs.map((name) => element('dependency', { identifierref: name })),
    )
  }
  const stimulusNames = new Map([...stimuli.keys()].map((id, i) => [id, safeId(id, 'stimulus', i)]))
  const shared = [...stimuli].map(([id, stimulus]) => {
    const name = stimulusNames.get(id)!
    // 2.1 knows no stimuli: there it is a page of the package that Thistle's settings tell of.
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
    const tree = writeItem(
      asWritten(question),
      identifier,
      version,
      stimulus && version !== '2.1' ? { identifier: stimulus, href: `../stimuli/${stimulus}.xml` } : undefined,
    )
    return resource(
      `res-${identifier}`,
      typeOf('item', version),
      href,
      tree,
      { id, folder, objectives, question: { ...question, objectives: [] } },
      mediaIn(question),
      stimulus ? [`res-${stimulus}`] : [],
    )
  })
  const tests = test
    ? [
        resource(
          'res-test',
          typeOf('test', version),
          'test.xml',
          writeTest(test, (id) => hrefs.get(id) ?? id, version),
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
      element('schemaversion', {}, version === '3.0' ? '3.0.0' : `${version}.0`),
    ),
    element('organizations'),
    element('resources', {}, tests, items, shared),
  )
  files.set('imsmanifest.xml', encode(document(manifest)))
  return zip(files)
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

import type { Format } from '../format'
import type { QtiVersion } from './names'
import { readPackage } from './package-read'
import { writePackage } from './package-write'

const isZip = (bytes: Uint8Array) => bytes[0] === 0x50 && bytes[1] === 0x4b

/** Packages are read whatever their version, and written in each. */
const written = (version: QtiVersion): Format => ({
  name: `qti-${version}`,
  label: `QTI ${version} package`,
  endings: ['zip', 'xml'],
  write: {
    type: 'application/zip',
    holdsTest: true,
    bytes: (questions, beside) => writePackage(questions, beside, version),
  },
})

export const qti: Format[] = [
  {
    ...written('3.0'),
    recognise: ({ bytes, text }) => (isZip(bytes) || text.startsWith('<') ? 'surely' : 'no'),
    read: ({ bytes }) => readPackage(bytes),
  },
  written('2.2'),
  written('2.1'),
]

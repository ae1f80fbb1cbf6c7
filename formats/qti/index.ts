import { archiveKind } from '../archive'
import type { Format } from '../format'
import type { QtiVersion } from './names'
import { readPackage } from './package/read'
import { writePackage } from './package/write'
import { unseenByOthers } from './unseen'

/** Packages are read whatever their version, and written in each. */
const written = (version: QtiVersion): Format => ({
  name: `qti-${version}`,
  label: `QTI ${version} package`,
  endings: ['zip', 'xml'],
  write: {
    type: 'application/zip',
    holdsTest: true,
    unseen: (question) => unseenByOthers(question, version),
    bytes: (questions, beside) => writePackage(questions, beside, version),
  },
})

export const qti: Format[] = [
  {
    ...written('3.0'),
    recognise: ({ bytes, head }) => (archiveKind(bytes) === 'other' || head.startsWith('<') ? 'surely' : 'no'),
    read: ({ bytes }) => readPackage(bytes),
  },
  written('2.2'),
  written('2.1'),
]

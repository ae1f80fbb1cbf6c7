import type { PortableRow, PortableSection, PortableTest } from '../../bundle'
import { element, type XmlElement } from '../../xml'
import { contentNodes } from '../content/write'
import type { QtiVersion } from '../names'
import { inVersion } from '../write'

/** Where an item stands in the package, and what it is worth by itself. */
export interface Placed {
  href(item: string): string
  points(item: string): number
}

/** A number of a weight: what an item counts in this test against what it is worth by itself. */
const weight = (points: number | null, own: number) =>
  points === null || own === 0
    ? null
    : element('weight', { identifier: 'WEIGHT', value: Math.round((points / own) * 1e6) / 1e6 })

const rubric = (html: string) => (html ? element('rubricBlock', { view: 'candidate' }, contentNodes(html)) : null)
const minutes = (limit: number | null, late = false) =>
  limit === null ? null : element('timeLimits', { maxTime: Math.round(limit * 60), allowLateSubmission: late || null })

/**
 * Writes a test. A pool is a section of its own that selects and whose items mix with their neighbours; what stays together
 * is one that keeps together: by the rules of QTI for invisible sections this orders papers as Thistle does. Words between rows
 * are the rubric of a section that holds what follows them. Points are weights, and the test's score is their sum.
 */
export function writeTest(test: PortableTest, placed: Placed, version: QtiVersion): XmlElement {
  let refs = 0
  let groups = 0
  const ref = (item: string, row: PortableRow) =>
    element(
      'assessmentItemRef',
      { identifier: `ref-${++refs}`, href: placed.href(item), fixed: row.fixed || null },
      row.required ? element('itemSessionControl', { allowSkipping: false }) : null,
      weight(row.points, placed.points(item)),
    )
  const group = (attributes: Record<string, boolean | null>, ...children: (XmlElement | null)[]) =>
    element(
      'assessmentSection',
      { identifier: `group-${++groups}`, title: 'Group', visible: false, ...attributes },
      children,
    )
  const rowElement = (row: PortableRow): XmlElement =>
    row.items.length === 1
      ? ref(row.items[0]!, row)
      : group(
          { keepTogether: row.together, fixed: row.fixed || null },
          row.draw < row.items.length ? element('selection', { select: row.draw }) : null,
          element('ordering', { shuffle: row.together ? row.order === 'shuffled' : true }),
          ...row.items.map((item) => ref(item, row)),
        )
  /** Rows up to the next words stand in a section under those words. */
  function rowElements(rows: readonly PortableRow[]): XmlElement[] {
    const at = rows.findIndex(({ text }) => text !== undefined)
    if (at < 0) return rows.map(rowElement)
    const next = rows.findIndex(({ text }, i) => i > at && text !== undefined)
    const under = rows.slice(at + 1, next < 0 ? undefined : next)
    return [
      ...rows.slice(0, at).map(rowElement),
      group(
        { keepTogether: true },
        element('ordering', { shuffle: false }),
        rubric(rows[at]!.text!),
        ...under.map(rowElement),
      ),
      ...(next < 0 ? [] : rowElements(rows.slice(next))),
    ]
  }
  const sectionElement = (section: PortableSection, i: number) => {
    // In a section that is mixed, words have no place between: they stand above.
    const mixed = section.order === 'shuffled'
    const words = mixed ? section.rows.flatMap(({ text }) => text ?? []) : []
    const rows = mixed ? section.rows.filter(({ text }) => text === undefined) : section.rows
    return element(
      'assessmentSection',
      { identifier: `section-${i + 1}`, title: section.title, visible: true },
      minutes(section.limit),
      element('ordering', { shuffle: mixed }),
      [...(i === 0 ? [test.intro] : []), section.intro, ...words].map(rubric),
      rowElements(rows),
    )
  }
  const sum = element(
    'setOutcomeValue',
    { identifier: 'SCORE' },
    element('sum', {}, element('testVariables', { variableIdentifier: 'SCORE', weightIdentifier: 'WEIGHT' })),
  )
  return inVersion(
    element(
      'assessmentTest',
      { identifier: 'test', title: test.title, toolName: 'Thistle', toolVersion: '1' },
      element('outcomeDeclaration', { identifier: 'SCORE', cardinality: 'single', baseType: 'float' }),
      minutes(test.limit, test.mayOverrun),
      element(
        'testPart',
        {
          identifier: 'part',
          navigationMode: test.movement === 'forward' ? 'linear' : 'nonlinear',
          submissionMode: 'individual',
        },
        test.sections.map(sectionElement),
      ),
      element('outcomeProcessing', {}, sum),
    ),
    version,
  )
}

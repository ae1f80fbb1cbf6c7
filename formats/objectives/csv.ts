import Papa from 'papaparse'
import { UnreadableFile } from '../bundle'
import { guarded, unguarded } from '../table/cells'
import { most, withoutCircles, type PortableObjective } from './portable'

const columns = ['code', 'title', 'parent', 'essential', 'needs'] as const

/** Reads CSV with the columns code, title, parent, essential, needs; parents and needs are codes, several needs parted by |. @throws UnreadableFile */
export function readObjectivesCsv(text: string): PortableObjective[] {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim().toLowerCase(),
  })
  const missing = ['code', 'title'].filter((column) => !meta.fields?.includes(column))
  if (missing.length)
    throw new UnreadableFile(
      `The first line lacks the column ${missing.join(' and ')}. The columns are ${columns.join(', ')}.`,
    )
  if (data.length > most) throw new UnreadableFile('A file has at most 10,000 objectives.')
  const rows = data.map(
    (row) =>
      Object.fromEntries(columns.map((column) => [column, unguarded((row[column] ?? '').trim())])) as Record<
        (typeof columns)[number],
        string
      >,
  )
  const codes = new Set(rows.map((row) => row.code))
  const faults = rows.flatMap((row, i) => [
    ...(row.code === '' ? [`Line ${i + 2} has no code.`] : []),
    ...(row.title === '' ? [`Line ${i + 2} has no title.`] : []),
    ...[row.parent, ...row.needs.split('|')]
      .map((code) => code.trim())
      .filter((code) => code !== '' && !codes.has(code))
      .map((code) => `Line ${i + 2} names “${code}”, which the file does not hold.`),
  ])
  if (faults.length) throw new UnreadableFile(faults.slice(0, 5).join(' '))
  if (codes.size < rows.length) throw new UnreadableFile('Two lines have the same code.')
  return withoutCircles(
    rows.map((row) => ({
      name: row.code,
      parent: row.parent || null,
      code: row.code.slice(0, 40),
      title: row.title.replace(/\s+/g, ' ').slice(0, 1000),
      essential: /^(yes|y|true|1|x)$/i.test(row.essential),
      needs: row.needs
        .split('|')
        .map((code) => code.trim())
        .filter(Boolean),
    })),
  )
}

export const writeObjectivesCsv = (objectives: readonly PortableObjective[]): string =>
  Papa.unparse({
    fields: [...columns],
    data: objectives.map((each) =>
      [each.code, each.title, each.parent ?? '', each.essential ? 'yes' : '', each.needs.join('|')].map(guarded),
    ),
  })

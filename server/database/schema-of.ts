import type { Db } from './database'

/** A table as the database describes it. */
export interface Table {
  name: string
  columns: { name: string; type: string; nullable: boolean; key: boolean }[]
  /** Columns that refer to other tables, by the table that they refer to. */
  refers: { column: string; to: string }[]
}

/** Reads the tables of the current database from its own description, by name. */
export async function readTables(db: Db): Promise<Table[]> {
  const columns = await db.rows<{ t: string; c: string; type: string; nullable: string; k: string }>(
    'SELECT table_name AS t, column_name AS c, data_type AS type, is_nullable AS nullable, column_key AS k FROM information_schema.columns WHERE table_schema = DATABASE() ORDER BY table_name, ordinal_position',
  )
  const keys = await db.rows<{ t: string; c: string; other: string }>(
    'SELECT table_name AS t, column_name AS c, referenced_table_name AS other FROM information_schema.key_column_usage WHERE table_schema = DATABASE() AND referenced_table_name IS NOT NULL ORDER BY table_name, column_name, referenced_table_name',
  )
  return [...new Set(columns.map(({ t }) => t))].map((name) => ({
    name,
    columns: columns
      .filter(({ t }) => t === name)
      .map(({ c, type, nullable, k }) => ({ name: c, type, nullable: nullable === 'YES', key: k === 'PRI' })),
    refers: keys.filter(({ t }) => t === name).map(({ c, other }) => ({ column: c, to: other })),
  }))
}

/** How values of a type arrive (codec.ts): instants and decimals as text, truth as 0 or 1. */
const arrivesAs: Record<string, string> = {
  int: 'number',
  tinyint: 'number',
  smallint: 'number',
  bigint: 'number',
  double: 'number',
  longblob: 'Buffer',
  mediumblob: 'Buffer',
}

/** Columns whose text is one of a few words: what they may be is said here, once. */
const words: Record<string, string> = {
  'attempt.state': "'open' | 'handed' | 'unsent'",
  'attempt.ended_by': "'student' | 'clock' | 'teacher'",
  'answer_aside.reason': "'ended' | 'lease' | 'page' | 'section' | 'stale' | 'invalid'",
  'import_batch.state': "'staged' | 'running' | 'stopping' | 'done' | 'undone'",
  'own_field.sort': "import('../../core/people').FieldSort",
  'person.role': "'teacher' | 'student'",
  'person.state': "'here' | 'left'",
  'class_teacher.may': "'teach' | 'help'",
  'session.role': "'teacher' | 'student'",
  'question.state': "'work' | 'usable' | 'retired'",
  'question.sharing': "'private' | 'named' | 'school' | 'staged' | 'outside'",
  'question_share.may': "'read' | 'write'",
  'viewed.facet': "import('../../core/release/names').FacetName",
  'quiz.state': "'draft' | 'published' | 'withdrawn' | 'filed'",
  'quiz.sharing': "'named' | 'school'",
  'quiz_teacher.may': "'read' | 'write'",
}

const pascal = (name: string) => name.replace(/(^|_)(\w)/g, (_whole, _gap, letter: string) => letter.toUpperCase())

/** The rows of all tables as types. */
export function rowTypes(tables: readonly Table[]): string {
  const typeOf = (table: string, { name, type, nullable }: Table['columns'][number]) =>
    `${words[`${table}.${name}`] ?? arrivesAs[type] ?? 'string'}${nullable ? ' | null' : ''}`
  const interfaces = tables.map(
    (table) =>
      `export interface ${pascal(table.name)}Row {\n${table.columns.map((column) => `  ${column.name}: ${typeOf(table.name, column)}`).join('\n')}\n}\n`,
  )
  return `/** The rows of the tables as they arrive; written by \`npm run tables\` from the schema. A query picks what it reads. */\n\n${interfaces.join('\n')}`
}

/** The tables as a picture (SVG): what they hold, and what refers to what. */
export async function drawTables(tables: readonly Table[]): Promise<string> {
  // Only scripts and tests draw: the server does not load what lays a picture out.
  const { instance } = await import('@viz-js/viz')
  const viz = await instance()
  const cell = (text: string, more = '') => `<tr><td align="left" ${more}>${text}</td></tr>`
  const nodes = tables.map(
    ({ name, columns }) =>
      `"${name}" [label=<<table border="0" cellborder="0" cellspacing="0" cellpadding="1">${cell(`<b>${name}</b>`)}${columns
        .map((column) => cell(column.key ? `<u>${column.name}</u>` : column.name, `port="${column.name}"`))
        .join('')}</table>>]`,
  )
  const edges = tables.flatMap(({ name, refers }) => refers.map(({ column, to }) => `"${name}":"${column}" -> "${to}"`))
  return viz.renderString(
    `digraph tables { rankdir=LR; ranksep=1.1; nodesep=0.25; bgcolor="#fffefb"; node [shape=box, fontname="sans-serif", fontsize=10, color="#566469", style=filled, fillcolor="#f6f4ee"]; edge [color="#14595b", arrowsize=0.6]; ${nodes.join('; ')}; ${edges.join('; ')} }`,
    { format: 'svg' },
  )
}

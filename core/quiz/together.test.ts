/** Two teachers in one quiz: what one does never takes the other's work away (architecture, Data). */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { poolRow, questionRow, sampleContent, sampleRules } from '../../tests/fixtures/core'
import { applyEdit, conflict, EditError, edit as editSchema, type Edit } from './edits'
import type { Quiz } from './schema'

const section = (id: string, rows: Quiz['content']['sections'][number]['rows'] = []) => ({
  id,
  title: `Section ${id}`,
  intro: '',
  order: 'kept' as const,
  rows,
})
const start: Quiz = {
  content: {
    ...sampleContent([questionRow('a'), questionRow('b'), poolRow('p', ['c', 'd', 'e'], 2)]),
    sections: [
      section('s1', [questionRow('a'), questionRow('b'), poolRow('p', ['c', 'd', 'e'], 2)]),
      section('s2', [questionRow('x')]),
      section('s3'),
    ],
  },
  rules: sampleRules(),
}

const sections = fc.constantFrom('s1', 's2', 's3')
const rows = fc.constantFrom('r-a', 'r-b', 'p', 'r-x')
const after = fc.option(rows, { nil: null })
/** Ids of new things are made by whoever makes the edit: each teacher has their own. */
const editsBy = (who: string): fc.Arbitrary<Edit> =>
  fc.oneof(
    fc.integer({ min: 1, max: 90 }).map((limit): Edit => ({ do: 'setRules', values: { limit } })),
    fc.integer({ min: 0, max: 9 }).map((grace): Edit => ({ do: 'setRules', values: { grace } })),
    fc.constantFrom('Ebb', 'Flood').map((title): Edit => ({ do: 'setContent', values: { title } })),
    fc
      .tuple(sections, fc.constantFrom('One', 'Two'))
      .map(([id, title]): Edit => ({ do: 'setSection', section: id, values: { title } })),
    fc
      .tuple(rows, fc.integer({ min: 1, max: 9 }))
      .map(([row, points]): Edit => ({ do: 'setRow', row, values: { points } })),
    fc
      .tuple(rows, sections, after)
      .map(([row, to, place]): Edit => ({ do: 'moveRow', row, section: to, after: place })),
    fc
      .tuple(sections, fc.option(sections, { nil: null }))
      .filter(([id, place]) => id !== place)
      .map(([id, place]): Edit => ({ do: 'moveSection', section: id, after: place })),
    fc
      .tuple(sections, after)
      .map(([to, place]): Edit => ({ do: 'addRows', section: to, after: place, rows: [questionRow(`${who}-new`)] })),
    fc.constant<Edit>({ do: 'addSection', section: section(`${who}-section`), after: 's1' }),
    rows.map((row): Edit => ({ do: 'removeRows', rows: [row] })),
    sections.map((id): Edit => ({
      do: 'removeSection',
      section: id,
      holding: start.content.sections.find((each) => each.id === id)!.rows.map((row) => row.id),
    })),
  )

/** The quiz after an edit, or null where it is refused with a sentence. */
function tried(quiz: Quiz, edit: Edit): ReturnType<typeof applyEdit> | null {
  try {
    return applyEdit(quiz, edit)
  } catch (error) {
    if (error instanceof EditError && error.message.endsWith('.')) return null
    throw error
  }
}
const rowsOf = (quiz: Quiz) => quiz.content.sections.flatMap((each) => each.rows)
/** Whether what an edit did still stands. */
function stands(quiz: Quiz, edit: Edit): boolean {
  const has = (source: object, values: object) =>
    Object.entries(values).every(([name, value]) => JSON.stringify(source[name as never]) === JSON.stringify(value))
  switch (edit.do) {
    case 'setRules':
      return has(quiz.rules, edit.values)
    case 'setContent':
      return has(quiz.content, edit.values)
    case 'setSection': {
      const found = quiz.content.sections.find((each) => each.id === edit.section)
      return !found || has(found, edit.values)
    }
    case 'setRow': {
      const found = rowsOf(quiz).find((each) => each.id === edit.row)
      return !found || has(found, edit.values)
    }
    case 'addRows':
      return edit.rows.every((row) => rowsOf(quiz).some((each) => each.id === row.id))
    case 'addSection':
      return quiz.content.sections.some((each) => each.id === edit.section.id)
    case 'removeRows':
      return !rowsOf(quiz).some((each) => edit.rows.includes(each.id))
    case 'removeSection':
      return !quiz.content.sections.some((each) => each.id === edit.section)
    default:
      return true
  }
}

describe('two teachers', () => {
  it('edits to different things both stand, in whichever order they arrive', () => {
    fc.assert(
      fc.property(editsBy('maren'), editsBy('idris'), (mine, theirs) => {
        fc.pre(!conflict(mine, theirs))
        const first = tried(start, mine)
        const both = first && tried(first.quiz, theirs)
        if (!both) return
        expect(stands(both.quiz, mine)).toBe(true)
        expect(stands(both.quiz, theirs)).toBe(true)
      }),
      { numRuns: 600 },
    )
  })
  it('undoing one’s own edit leaves what a colleague did since', () => {
    fc.assert(
      fc.property(editsBy('maren'), editsBy('idris'), (mine, theirs) => {
        fc.pre(!conflict(mine, theirs))
        const first = tried(start, mine)
        const both = first && tried(first.quiz, theirs)
        const undone = both && tried(both.quiz, first.inverse)
        if (undone) expect(stands(undone.quiz, theirs)).toBe(true)
      }),
      { numRuns: 600 },
    )
  })
  it('no row is ever lost or doubled by moving things about', () => {
    const moves = fc.array(
      fc.oneof(
        fc
          .tuple(rows, sections, after)
          .map(([row, to, place]): Edit => ({ do: 'moveRow', row, section: to, after: place })),
        fc
          .tuple(sections, sections)
          .filter(([a, b]) => a !== b)
          .map(([id, place]): Edit => ({ do: 'moveSection', section: id, after: place })),
      ),
      { maxLength: 20 },
    )
    fc.assert(
      fc.property(moves, (edits) => {
        const end = edits.reduce((quiz, each) => tried(quiz, each)?.quiz ?? quiz, start)
        expect(
          rowsOf(end)
            .map((row) => row.id)
            .sort(),
        ).toEqual(
          rowsOf(start)
            .map((row) => row.id)
            .sort(),
        )
        expect(end.content.sections.map((each) => each.id).sort()).toEqual(['s1', 's2', 's3'])
      }),
    )
  })
  it('every edit that is made passes the schema by which the server reads it', () => {
    fc.assert(
      fc.property(editsBy('maren'), (edit) => {
        expect(editSchema.safeParse(edit).success).toBe(true)
        const made = tried(start, edit)
        if (made) expect(editSchema.safeParse(made.inverse).success).toBe(true)
      }),
      { numRuns: 300 },
    )
  })
})

describe('a section that is taken out', () => {
  it('stays when a colleague has put rows into it meanwhile', () => {
    const added = applyEdit(start, { do: 'addRows', section: 's3', after: null, rows: [questionRow('new')] })
    expect(() => applyEdit(added.quiz, { do: 'removeSection', section: 's3', holding: [] })).toThrow(
      /A colleague has put rows/,
    )
    expect(() => applyEdit(added.quiz, { do: 'removeSection', section: 's3', holding: ['r-new'] })).not.toThrow()
  })
  it('undoing one’s own new section leaves it where a colleague works in it', () => {
    const made = applyEdit(start, { do: 'addSection', section: section('mine'), after: null })
    const used = applyEdit(made.quiz, { do: 'addRows', section: 'mine', after: null, rows: [questionRow('theirs')] })
    expect(() => applyEdit(used.quiz, made.inverse)).toThrow(EditError)
    expect(applyEdit(made.quiz, made.inverse).quiz).toEqual(start)
  })
  it('edits of an earlier release, which do not say what it held, are replayed as they were', () => {
    expect(applyEdit(start, { do: 'removeSection', section: 's1' }).quiz.content.sections).toHaveLength(2)
  })
})

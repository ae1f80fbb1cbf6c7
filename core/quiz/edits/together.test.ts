/** Two teachers in one quiz: what one does never takes the other's work away (architecture, Data). */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { at, poolRow, questionRow, sampleContent, sampleRules, sampleWindow } from '../../../tests/fixtures/core'
import { newSection } from '../blank'
import type { Quiz, Section } from '../schema'
import {
  addRows,
  addSection,
  addTo,
  applyEdit,
  changed,
  edit as editSchema,
  EditConflict,
  EditError,
  editTo,
  moveRow,
  moveSection,
  onto,
  removeFrom,
  removeRow,
  setAt,
  touches,
  type Applied,
  type Edit,
} from '.'

const section = (id: string, rows: Section['rows'] = []): Section => newSection({ id, title: `Section ${id}`, rows })
const start: Quiz = {
  content: {
    ...sampleContent([]),
    sections: [
      section('s1', [questionRow('a'), questionRow('b'), poolRow('p', ['c', 'd', 'e'], 2)]),
      section('s2', [questionRow('x')]),
      section('s3'),
    ],
  },
  rules: sampleRules({ windows: [sampleWindow, { ...sampleWindow, id: 'w2', classes: ['sat'] }] }),
}

/** An edit as a person would make it on the quiz before them; null where there is nothing to make it on. */
type Intent = (quiz: Quiz) => Edit | null
const careful =
  (make: (quiz: Quiz) => Edit): Intent =>
  (quiz) => {
    try {
      return make(quiz)
    } catch (error) {
      if (error instanceof EditError) return null
      throw error
    }
  }

const sections = fc.constantFrom('s1', 's2', 's3')
const rows = fc.constantFrom('r-a', 'r-b', 'p', 'r-x', 'r-maren', 'r-idris')
const after = fc.option(rows, { nil: null })
const windows = fc.constantFrom('w1', 'w2')
const nat = (min: number, max: number) => fc.integer({ min, max })
const facets = fc.constantFrom('key', 'marks', 'score')
const moments = fc.constantFrom(
  { at: 'never' },
  { at: 'handIn', offset: 0 },
  { at: 'handIn', offset: 30 },
  { at: 'due', offset: 0 },
)
/** Nested values and lists of every sort; ids of new things are made by whoever makes the edit. */
const intentsOf = (who: string): fc.Arbitrary<Intent> =>
  fc.oneof(
    nat(30, 32).map((limit) => careful((quiz) => setAt(quiz, ['rules', 'limit'], limit))),
    nat(1, 3).map((count) => careful((quiz) => setAt(quiz, ['rules', 'attempts', 'count'], count))),
    nat(0, 2).map((wait) => careful((quiz) => setAt(quiz, ['rules', 'attempts', 'wait'], wait))),
    fc
      .tuple(facets, moments)
      .map(([name, from]) => careful((quiz) => setAt(quiz, ['rules', 'release', name, 'from'], from))),
    fc
      .tuple(facets, fc.boolean())
      .map(([name, once]) => careful((quiz) => setAt(quiz, ['rules', 'release', name, 'once'], once))),
    fc
      .tuple(windows, fc.constantFrom('due', 'latestStart'), fc.constantFrom(null, at('11:00'), at('11:30')))
      .map(([id, name, value]) => careful((quiz) => setAt(quiz, ['rules', 'windows', id, name], value))),
    windows.map((id) => careful((quiz) => removeFrom(quiz, ['rules', 'windows'], [id]))),
    fc.constant(careful(() => addTo(['rules', 'windows'], 'w1', [{ ...sampleWindow, id: `w-${who}` }]))),
    windows.map((id) =>
      careful(
        (quiz) =>
          addTo(['rules', 'windows', id, 'classes'], null, [`c-${who}`]) &&
          removeFrom(quiz, ['rules', 'windows', id, 'classes'], ['sat']),
      ),
    ),
    fc
      .tuple(windows, fc.constantFrom('north', 'south'))
      .map(([id, name]) => careful(() => addTo(['rules', 'windows', id, 'classes'], null, [name]))),
    fc.constantFrom('Ebb', 'Flood').map((title) => careful((quiz) => setAt(quiz, ['content', 'title'], title))),
    fc
      .tuple(sections, fc.constantFrom('One', 'Two'))
      .map(([id, title]) => careful((quiz) => setAt(quiz, ['sections', id, 'title'], title))),
    fc.tuple(rows, nat(1, 3)).map(([row, points]) => careful((quiz) => setAt(quiz, ['rows', row, 'points'], points))),
    fc.constantFrom('f', 'g', 'h').map((id) => careful(() => addTo(['rows', 'p', 'questions'], 'd', [id]))),
    fc
      .constantFrom('c', 'd', 'e', 'f')
      .map((id) => careful((quiz) => removeFrom(quiz, ['rows', 'p', 'questions'], [id]))),
    fc.tuple(rows, sections, after).map(([row, to, place]) => careful((quiz) => moveRow(quiz, row, to, place))),
    fc
      .tuple(sections, fc.option(sections, { nil: null }))
      .map(([id, place]) => careful((quiz) => moveSection(quiz, id, place))),
    fc.tuple(sections, after).map(([to, place]) => careful(() => addRows(to, place, [questionRow(who)]))),
    fc.constant(careful(() => addSection(section(`${who}-section`), 's1'))),
    rows.map((row) => careful((quiz) => removeRow(quiz, row))),
    sections.map((id) => careful((quiz) => removeFrom(quiz, ['sections'], [id]))),
  )

/** The quiz after an edit, or null where it is refused with a sentence. */
function tried(quiz: Quiz, edit: Edit | null): Applied | null {
  if (!edit) return null
  try {
    return applyEdit(quiz, edit)
  } catch (error) {
    if (error instanceof EditError && error.message.endsWith('.')) return null
    throw error
  }
}
/** Everything that can be set, and every list, by its short path: an independent reading of a quiz. */
function facts(quiz: Quiz): Map<string, string> {
  const found = new Map<string, string>()
  const put = (path: string, value: unknown) => found.set(path, JSON.stringify(value))
  const leaves = (path: string, value: unknown): void => {
    if (typeof value === 'object' && value !== null && !Array.isArray(value) && !('at' in value) && !('by' in value))
      for (const [name, each] of Object.entries(value)) leaves(`${path}/${name}`, each)
    else put(path, value)
  }
  const { sections: all, ...settings } = quiz.content
  leaves('content', settings)
  const { windows: spans, ...rules } = quiz.rules
  leaves('rules', rules)
  for (const { id, classes, ...span } of spans) {
    leaves(`rules/windows/${id}`, span)
    for (const name of classes) put(`rules/windows/${id}/classes/${name}`, true)
  }
  for (const { id, rows: lines, ...rest } of all) {
    leaves(`sections/${id}`, rest)
    for (const line of lines) {
      put(`rows/${line.id}/in`, id)
      if ('questions' in line) for (const each of line.questions) put(`rows/${line.id}/questions/${each}`, true)
      leaves(`rows/${line.id}`, { ...line, questions: undefined })
    }
  }
  return found
}
/** What an edit did: the facts that came, went or changed by it. */
function deeds(before: Quiz, made: Quiz): Map<string, string | undefined> {
  const [old, now] = [facts(before), facts(made)]
  return new Map(
    [...new Set([...old.keys(), ...now.keys()])]
      .filter((key) => old.get(key) !== now.get(key))
      .map((key) => [key, now.get(key)]),
  )
}

/** Enough of a property's runs have to reach its point, or it has shown nothing. */
function reached(counts: Record<string, number>, least: number) {
  for (const [what, times] of Object.entries(counts)) expect(times, what).toBeGreaterThan(least)
}

describe('two teachers', () => {
  it('edits made beside each other either both stand, or the later one is asked', () => {
    const counts = { merged: 0, asked: 0 }
    fc.assert(
      fc.property(intentsOf('maren'), intentsOf('idris'), (mine, theirs) => {
        const [myEdit, theirEdit] = [mine(start), theirs(start)]
        const first = tried(start, myEdit)
        const alone = tried(start, theirEdit)
        if (!first || !alone) return
        const both = tried(first.quiz, theirEdit)
        if (!both) {
          counts.asked++
          // Nothing is refused that does not touch the same thing, or a thing that the other has taken out.
          // Two moves in one list may have changed the same two places.
          const moved = myEdit!.do === 'move' && theirEdit!.do === 'move'
          const gone = [...deeds(start, first.quiz)].some(([, value]) => value === undefined)
          expect(
            gone ||
              moved ||
              changed(myEdit!, touches(theirEdit!)) ||
              [...deeds(start, alone.quiz)].some(([, value]) => value === undefined),
          ).toBe(true)
          return
        }
        counts.merged++
        const [mineDone, theirsDone] = [deeds(start, first.quiz), deeds(start, alone.quiz)]
        for (const [key, value] of mineDone)
          if (!theirsDone.has(key)) expect(facts(both.quiz).get(key), key).toBe(value)
        for (const [key, value] of theirsDone)
          if (!mineDone.has(key)) expect(facts(both.quiz).get(key), key).toBe(value)
      }),
      { numRuns: 1200 },
    )
    reached(counts, 25)
  })
  it('two different values for the same thing are never both taken', () => {
    const counts = { met: 0 }
    fc.assert(
      fc.property(intentsOf('maren'), intentsOf('idris'), (mine, theirs) => {
        const [myEdit, theirEdit] = [mine(start), theirs(start)]
        if (myEdit?.do !== 'set' || theirEdit?.do !== 'set' || myEdit.path.join() !== theirEdit.path.join()) return
        if (JSON.stringify(myEdit.value) === JSON.stringify(myEdit.was)) return
        const first = tried(start, myEdit)
        if (!first) return
        counts.met++
        expect(() => applyEdit(first.quiz, theirEdit)).toThrow(EditConflict)
        expect(tried(first.quiz, onto(first.quiz, theirEdit))).not.toBeNull()
      }),
      { numRuns: 3000 },
    )
    reached(counts, 15)
  })
  it('undo never takes back what the other did since, however much lies between', () => {
    const counts = { undone: 0, refused: 0 }
    const others = fc.array(fc.tuple(fc.boolean(), intentsOf('idris')), { minLength: 1, maxLength: 25 })
    fc.assert(
      fc.property(intentsOf('maren'), others, (mine, later) => {
        const first = tried(start, mine(start))
        if (!first) return
        let quiz = first.quiz
        for (const [, intent] of later) quiz = tried(quiz, intent(quiz))?.quiz ?? quiz
        const theirs = deeds(first.quiz, quiz)
        const undone = tried(quiz, first.inverse)
        if (!undone) {
          counts.refused++
          return
        }
        counts.undone++
        for (const [key, value] of theirs) expect(facts(undone.quiz).get(key), key).toBe(value)
      }),
      { numRuns: 1200 },
    )
    reached(counts, 25)
  })
  it('a conflict names a thing that somebody did change', () => {
    const counts = { named: 0 }
    fc.assert(
      fc.property(intentsOf('maren'), fc.array(intentsOf('idris'), { minLength: 1, maxLength: 12 }), (mine, later) => {
        const edit = mine(start)
        if (!tried(start, edit)) return
        const history: Edit[] = []
        let quiz = start
        for (const intent of later) {
          const made = intent(quiz)
          const step = tried(quiz, made)
          if (!step) continue
          history.push(made!)
          quiz = step.quiz
        }
        try {
          applyEdit(quiz, edit!)
        } catch (error) {
          if (!(error instanceof EditConflict)) return
          counts.named++
          expect(
            history.some((each) => changed(each, error.paths)),
            JSON.stringify([error.paths, edit, history]),
          ).toBe(true)
        }
      }),
      { numRuns: 1200 },
    )
    reached(counts, 25)
  })
})

describe('one teacher', () => {
  it('any long sequence is taken back by its inverses, and made again by theirs', () => {
    const counts = { made: 0, refused: 0 }
    fc.assert(
      fc.property(fc.array(intentsOf('maren'), { minLength: 5, maxLength: 40 }), (intents) => {
        let quiz = start
        const undos: Edit[] = []
        for (const intent of intents) {
          const step = tried(quiz, intent(quiz))
          if (!step) {
            counts.refused++
            continue
          }
          counts.made++
          quiz = step.quiz
          undos.unshift(step.inverse)
        }
        const end = quiz
        const redos = undos.map((edit) => {
          const step = applyEdit(quiz, edit)
          quiz = step.quiz
          return step.inverse
        })
        expect(quiz).toEqual(start)
        for (const edit of redos.reverse()) quiz = applyEdit(quiz, edit).quiz
        expect(quiz).toEqual(end)
      }),
      { numRuns: 100 },
    )
    reached(counts, 150)
    expect(counts.made).toBeGreaterThan(counts.refused)
  })
  it('the steps between any two quizzes lead from one to the other and back', () => {
    const wander = fc
      .array(intentsOf('maren'), { maxLength: 15 })
      .map((intents) => intents.reduce((quiz, intent) => tried(quiz, intent(quiz))?.quiz ?? quiz, start))
    const counts = { different: 0 }
    fc.assert(
      fc.property(wander, wander, (before, then) => {
        const edit = editTo(before, then)
        if (!edit) {
          expect(then).toEqual(before)
          return
        }
        counts.different++
        expect(editSchema.safeParse(edit).success).toBe(true)
        const step = applyEdit(before, edit)
        expect(step.quiz).toEqual(then)
        expect(applyEdit(then, step.inverse).quiz).toEqual(before)
      }),
      { numRuns: 200 },
    )
    reached(counts, 25)
  })
  it('no row is ever lost or doubled by moving things about', () => {
    const moves = fc.array(
      fc.oneof(
        fc.tuple(rows, sections, after).map(([row, to, place]) => careful((quiz) => moveRow(quiz, row, to, place))),
        fc.tuple(sections, sections).map(([id, place]) => careful((quiz) => moveSection(quiz, id, place))),
      ),
      { minLength: 3, maxLength: 20 },
    )
    const all = (quiz: Quiz) => quiz.content.sections.flatMap((each) => each.rows.map((row) => row.id)).sort()
    fc.assert(
      fc.property(moves, (intents) => {
        const end = intents.reduce((quiz, intent) => tried(quiz, intent(quiz))?.quiz ?? quiz, start)
        expect(all(end)).toEqual(all(start))
        expect(end.content.sections.map((each) => each.id).sort()).toEqual(['s1', 's2', 's3'])
      }),
    )
  })
})

import { describe, expect, it } from 'vitest'
import { at, poolRow, questionRow, sampleContent, sampleRules, sampleWindow } from '../../../tests/fixtures/core'
import { newSection } from '../blank'
import { condition } from '../condition'
import type { Quiz } from '../schema'
import {
  addRows,
  addSection,
  addTo,
  applyEdit,
  changed,
  changesRules,
  edit as editSchema,
  EditConflict,
  EditError,
  editTo,
  listTo,
  moveRow,
  moveSection,
  onto,
  questionsNamed,
  removeFrom,
  removeRow,
  setAt,
  together,
  touches,
  type Edit,
} from '.'

const start: Quiz = {
  content: sampleContent([questionRow('a'), questionRow('b'), poolRow('p', ['c', 'd', 'e'], 2)], {}),
  rules: sampleRules(),
}
const second = newSection({ id: 's2', title: 'Second', order: 'shuffled', rows: [questionRow('z')] })
const withSecond = applyEdit(start, addSection(second, 's1')).quiz

/** A pool that finds what it holds, in the place of one with a list. */
const byCondition = (quiz: Quiz): Edit =>
  together([
    removeFrom(quiz, ['rows', 'p', 'questions'], ['c', 'd', 'e']),
    setAt(quiz, ['rows', 'p', 'condition'], condition.parse({ tag: ['tides'] })),
  ])!

const cases: [string, Edit][] = [
  ['a title', setAt(start, ['content', 'title'], 'New name')],
  ['a rule', setAt(start, ['rules', 'limit'], 60)],
  ['a part of a rule', setAt(start, ['rules', 'attempts', 'count'], 3)],
  ['a facet of release', setAt(start, ['rules', 'release', 'key', 'once'], true)],
  ['a time of a window', setAt(start, ['rules', 'windows', 'w1', 'due'], at('11:00'))],
  ['a window', addTo(['rules', 'windows'], 'w1', [{ ...sampleWindow, id: 'w2', classes: ['sat'] }])],
  ['a class of a window', addTo(['rules', 'windows', 'w1', 'classes'], 'tue', ['sat'])],
  ['a section', addSection(second, 's1')],
  ['a property of a section', setAt(start, ['sections', 's1', 'order'], 'shuffled')],
  ['rows', addRows('s1', 'r-a', [questionRow('x'), questionRow('y')])],
  ['a property of a row', setAt(start, ['rows', 'p', 'draw'], 3)],
  ['a member of a pool', addTo(['rows', 'p', 'questions'], null, ['new'])],
  ['a member less', removeFrom(start, ['rows', 'p', 'questions'], ['c', 'e'])],
  ['objectives of a section', listTo(start, ['sections', 's1', 'objectives'], ['o1', 'o2'])!],
  ['pages of a section', setAt(start, ['sections', 's1', 'pages'], { by: 'count', count: 2 })],
  ['languages', listTo(start, ['content', 'languages'], ['nl', 'en'])!],
  ['a version that a row stays at', setAt(start, ['rows', 'r-a', 'version'], 2)],
  ['a condition in the place of a list', byCondition(start)],
  ['closing words', addTo(['content', 'closing'], null, [{ id: 'b', from: 50, html: '<p>Well</p>' }])],
  ['a page break', addRows('s1', 'r-a', [{ type: 'break', id: 'pb' }])],
  ['a place', moveRow(start, 'p', 's1', null)],
  ['rows less', removeFrom(start, ['sections', 's1', 'rows'], ['r-a', 'p'])],
  [
    'several things in one step',
    together([addSection(second, null), moveRow(start, 'r-a', 's2', 'r-z'), moveSection(start, 's1', null)])!,
  ],
]

describe('applyEdit', () => {
  it.each(cases)('%s: it passes the schema of the wire, and its inverse restores the quiz', (_name, edit) => {
    expect(editSchema.safeParse(JSON.parse(JSON.stringify(edit))).success).toBe(true)
    const { quiz, inverse } = applyEdit(start, edit)
    expect(quiz).not.toEqual(start)
    expect(editSchema.safeParse(inverse).success).toBe(true)
    expect(applyEdit(quiz, inverse).quiz).toEqual(start)
  })
  it.each(cases)('%s: what it leaves alone is shared, and nothing given is changed', (_name, edit) => {
    const frozen = JSON.stringify(start)
    const { quiz } = applyEdit(start, edit)
    expect(JSON.stringify(start)).toBe(frozen)
    if (changesRules(edit)) expect(quiz.content).toBe(start.content)
    else expect(quiz.rules).toBe(start.rules)
  })
  it('puts rows at the end when the row to follow is gone', () => {
    expect(applyEdit(start, addRows('s1', 'gone', [questionRow('x')])).quiz.content.sections[0]!.rows.at(-1)!.id).toBe(
      'r-x',
    )
  })
  it('a row is found wherever it has been moved', () => {
    const moved = applyEdit(withSecond, moveRow(withSecond, 'r-a', 's2', null)).quiz
    expect(
      applyEdit(moved, setAt(start, ['rows', 'r-a', 'points'], 4)).quiz.content.sections[1]!.rows[0],
    ).toMatchObject({
      id: 'r-a',
      points: 4,
    })
  })
  it('values are kept as the schema keeps them, and undo expects that', () => {
    const { quiz, inverse } = applyEdit(
      start,
      together([
        setAt(start, ['content', 'title'], '  Springs  '),
        setAt(start, ['rules', 'windows', 'w1', 'due'], '2030-05-14T11:00:00Z'),
      ])!,
    )
    expect([quiz.content.title, quiz.rules.windows[0]!.due]).toEqual(['Springs', at('11:00')])
    expect(applyEdit(quiz, inverse).quiz).toEqual(start)
  })
  it('members that a colleague has put in as well are in; undoing takes out one’s own alone', () => {
    const theirs = applyEdit(start, addTo(['rows', 'p', 'questions'], 'e', ['q1'])).quiz
    const { quiz, inverse } = applyEdit(theirs, addTo(['rows', 'p', 'questions'], 'e', ['q1', 'q2']))
    expect(quiz.content.sections[0]!.rows[2]).toMatchObject({ questions: ['c', 'd', 'e', 'q2', 'q1'] })
    expect(applyEdit(quiz, inverse).quiz).toEqual(theirs)
  })
  const set = (path: string[], value: unknown, was: unknown): Edit => ({ do: 'set', path, was, value })
  it.each<[string, Edit, RegExp]>([
    ['a row that is not there', set(['rows', 'nope', 'points'], 2, 1), /row is no longer/],
    ['a section that is not there', set(['sections', 'nope', 'title'], 'x', 'y'), /section is no longer/],
    ['a window that is not there', set(['rules', 'windows', 'nope', 'due'], null, null), /window is no longer/],
    ['a draw of none', setAt(start, ['rows', 'p', 'draw'], 0), /at least one/],
    ['what a row of its type has not', set(['rows', 'r-a', 'draw'], 3, undefined), /nothing of that name/],
    ['an empty title', setAt(start, ['content', 'title'], ' '), /title/],
    ['a list as a whole', set(['rows', 'p', 'questions'], ['x'], ['c', 'd', 'e']), /by its parts/],
    ['a member as a whole', set(['rules', 'windows', 'w1'], sampleWindow, sampleWindow), /by its parts/],
    ['all rules at once', set(['rules'], start.rules, start.rules), /by its parts/],
    ['an id', set(['rows', 'p', 'id'], 'q', 'p'), /by its parts/],
    ['a type', set(['rows', 'p', 'type'], 'text', 'pool'), /by its parts/],
    ['what every object has', set(['rules', '__proto__', 'limit'], 1, 1), /nothing of that name/],
    ['the last section', removeFrom(start, ['sections'], ['s1']), /at least one section/],
    ['the last members', removeFrom(start, ['rows', 'p', 'questions'], ['c', 'd', 'e']), /at least one question/],
    ['an id twice', addRows('s1', null, [questionRow('a')]), /already/],
    ['one id twice at once', addRows('s1', null, [questionRow('n'), questionRow('n')]), /already/],
    ['a section with a row of another', addSection({ ...second, rows: [questionRow('a')] }, null), /already/],
    [
      'a window among rows',
      { do: 'move', id: 'w1', from: ['rules', 'windows'], to: ['sections', 's1', 'rows'], after: null, was: ['w1'] },
      /cannot stand there/,
    ],
    ['no list', addTo(['rules', 'limit'], null, [{ id: 'x' }]), /no list/],
  ])('refuses %s with a sentence', (_name, edit, sentence) => {
    expect(() => applyEdit(start, edit)).toThrow(EditError)
    expect(() => applyEdit(start, edit)).toThrow(sentence)
  })
})

describe('what an edit expects', () => {
  const made = (quiz: Quiz, ...edits: Edit[]) => edits.reduce((result, each) => applyEdit(result, each).quiz, quiz)
  const conflictOf = (quiz: Quiz, edit: Edit) => {
    try {
      applyEdit(quiz, edit)
    } catch (error) {
      if (error instanceof EditConflict) return error
      throw error
    }
    return null
  }
  it('a colleague’s other value is not overwritten, and the thing is named', () => {
    const theirs = made(start, setAt(start, ['rules', 'limit'], 90))
    expect(conflictOf(theirs, setAt(start, ['rules', 'limit'], 60))!.paths).toEqual([['rules', 'limit']])
  })
  it('two windows, two facets, two members, two parts of a rule merge', () => {
    const two = made(start, addTo(['rules', 'windows'], 'w1', [{ ...sampleWindow, id: 'w2', classes: ['sat'] }]))
    const pairs: [Edit, Edit][] = [
      [
        setAt(two, ['rules', 'windows', 'w1', 'closes'], at('13:00')),
        setAt(two, ['rules', 'windows', 'w2', 'closes'], at('14:00')),
      ],
      [setAt(two, ['rules', 'release', 'key', 'once'], true), setAt(two, ['rules', 'release', 'marks', 'once'], true)],
      [removeFrom(two, ['rows', 'p', 'questions'], ['c']), addTo(['rows', 'p', 'questions'], 'e', ['f'])],
      [setAt(two, ['rules', 'attempts', 'count'], 2), setAt(two, ['rules', 'attempts', 'wait'], 30)],
    ]
    for (const [mine, theirs] of pairs) expect(made(two, mine, theirs)).toEqual(made(two, theirs, mine))
  })
  it('undoing a moved window leaves a colleague’s (A moves 1, B moves 2, A undoes)', () => {
    const two = made(start, addTo(['rules', 'windows'], 'w1', [{ ...sampleWindow, id: 'w2', classes: ['sat'] }]))
    const first = applyEdit(two, setAt(two, ['rules', 'windows', 'w1', 'closes'], at('13:00')))
    const both = made(first.quiz, setAt(first.quiz, ['rules', 'windows', 'w2', 'closes'], at('14:00')))
    expect(made(both, first.inverse).rules.windows.map((each) => each.closes)).toEqual([at('11:59'), at('14:00')])
  })
  it('undoing a value that a colleague has set since is refused (limit 60, B sets 90, A undoes)', () => {
    const first = applyEdit(start, setAt(start, ['rules', 'limit'], 60))
    const both = made(first.quiz, setAt(first.quiz, ['rules', 'limit'], 90))
    expect(conflictOf(both, first.inverse)!.paths).toEqual([['rules', 'limit']])
  })
  it('undoing one’s own new row is refused once a colleague has worked in it, or moved it', () => {
    const first = applyEdit(withSecond, addRows('s1', null, [questionRow('x')]))
    expect(conflictOf(made(first.quiz, setAt(first.quiz, ['rows', 'r-x', 'points'], 5)), first.inverse)!.paths).toEqual(
      [['rows', 'r-x']],
    )
    expect(conflictOf(made(first.quiz, moveRow(first.quiz, 'r-x', 's2', null)), first.inverse)!.paths).toEqual([
      ['rows', 'r-x'],
    ])
  })
  it('a section is not taken out over rows that a colleague has put there or changed', () => {
    const out = removeFrom(withSecond, ['sections'], ['s2'])
    const added = made(withSecond, addRows('s2', null, [questionRow('n')]))
    expect(conflictOf(added, out)!.paths).toContainEqual(['rows', 'r-n'])
    expect(conflictOf(made(withSecond, setAt(withSecond, ['rows', 'r-z', 'points'], 9)), out)!.paths).toContainEqual([
      'rows',
      'r-z',
    ])
    expect(conflictOf(withSecond, out)).toBeNull()
  })
  it('a row that two teachers move is asked about; rows put in or taken out beside it do not move it', () => {
    const mine = moveRow(start, 'r-b', 's1', null)
    expect(conflictOf(made(start, moveRow(start, 'r-b', 's1', 'p')), mine)!.paths).toContainEqual(['rows', 'r-b'])
    expect(
      conflictOf(made(start, addRows('s1', 'r-a', [questionRow('x')]), addRows('s1', 'r-b', [questionRow('y')])), mine),
    ).toBeNull()
    expect(conflictOf(made(start, removeRow(start, 'r-a')), mine)).toBeNull()
    expect(conflictOf(made(start, moveRow(start, 'r-a', 's1', 'p')), mine)).toBeNull()
  })
  it('what is gone says so, and cannot be made anew', () => {
    const gone = made(start, removeRow(start, 'r-b'))
    for (const edit of [
      setAt(start, ['rows', 'r-b', 'points'], 2),
      removeRow(start, 'r-b'),
      moveRow(start, 'r-b', 's1', null),
    ]) {
      expect(conflictOf(gone, edit)).toMatchObject({ gone: true, message: 'That row is no longer in the quiz.' })
      expect(onto(gone, edit)).toBeNull()
    }
  })
  it('what would go into a section that is gone cannot be made anew', () => {
    const two = made(start, addSection(newSection({ id: 's9', title: 'Nine', rows: [] }), 's1'))
    const mine = addRows('s9', null, [questionRow('q-new')])
    expect(onto(two, mine)).toEqual(mine)
    expect(onto(start, mine)).toBeNull()
  })
  it('what was refused can be made anew on what is there', () => {
    const theirs = made(
      start,
      setAt(start, ['rules', 'limit'], 90),
      setAt(start, ['rows', 'r-a', 'points'], 7),
      moveRow(start, 'r-b', 's1', 'p'),
    )
    for (const mine of [
      setAt(start, ['rules', 'limit'], 60),
      removeRow(start, 'r-a'),
      moveRow(start, 'r-b', 's1', null),
    ]) {
      expect(conflictOf(theirs, mine)).not.toBeNull()
      expect(conflictOf(theirs, onto(theirs, mine)!)).toBeNull()
    }
  })
})

describe('what an edit says of itself', () => {
  it('every edit names what it touches, and is found by it', () => {
    for (const [, edit] of cases) {
      expect(touches(edit).length).toBeGreaterThan(0)
      expect(changed(edit, touches(edit))).toBe(true)
      expect(changed(edit, [['rules', 'password']])).toBe(false)
    }
  })
  it('a part of a thing counts as the thing', () => {
    expect(changed(setAt(start, ['rows', 'p', 'draw'], 1), [['rows', 'p']])).toBe(true)
    expect(changed(removeRow(start, 'p'), [['rows', 'p', 'draw']])).toBe(true)
  })
  it('names the questions that come and go, and not every text that looks like one', () => {
    expect(cases.flatMap(([, edit]) => questionsNamed(edit)).sort()).toEqual([
      'a',
      'c',
      'c',
      'c',
      'd',
      'd',
      'e',
      'e',
      'e',
      'new',
      'x',
      'y',
      'z',
      'z',
    ])
    expect(questionsNamed(setAt(start, ['content', 'title'], 'q-secret'))).toEqual([])
  })
})

describe('editTo', () => {
  it('finds the small steps from one quiz to another', () => {
    const after: Quiz = {
      content: {
        ...withSecond.content,
        sections: [second, { ...start.content.sections[0]!, rows: [poolRow('p', ['e', 'f'], 1), questionRow('b')] }],
      },
      rules: {
        ...start.rules,
        limit: null,
        grade: { ...start.rules.grade, pass: { by: 'points', value: 3 } },
        windows: [{ ...sampleWindow, id: 'w9' }],
      },
    }
    const edit = editTo(start, after)!
    expect(editSchema.safeParse(edit).success).toBe(true)
    expect(applyEdit(start, edit).quiz).toEqual(after)
    expect(editTo(after, after)).toBeNull()
  })
  it('a row may come to stand in another section', () => {
    const [one, two] = withSecond.content.sections as [typeof second, typeof second]
    const after = {
      ...withSecond,
      content: {
        ...withSecond.content,
        sections: [
          { ...one, rows: one.rows.slice(1) },
          { ...two, rows: [one.rows[0]!, ...two.rows] },
        ],
      },
    }
    expect(applyEdit(withSecond, editTo(withSecond, after)!).quiz).toEqual(after)
    expect(applyEdit(after, editTo(after, withSecond)!).quiz).toEqual(withSecond)
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compareRoster, decideNew, decideOut, type Fate } from '.'
import type { Roster, RosterPerson, Standing } from './roster'

const nobody: Standing = { people: [], classes: [], terms: [], enrolments: [], teachers: [], elsewhere: [] }
type Row = Partial<RosterPerson> & { classes?: string[] }
function rosterOf(rows: Row[]): Roster {
  const people = rows.map(
    ({ name = 'Ada Brook', email = null, outsideId = null, role = 'student' }, i): RosterPerson => ({
      key: `r${i}`,
      place: `line ${i + 2}`,
      name,
      email,
      outsideId,
      role,
    }),
  )
  const classes = [...new Set(rows.flatMap((row) => row.classes ?? []))]
  return {
    people,
    classes: classes.map((name) => ({ key: name, outsideId: null, name, term: null })),
    terms: [],
    enrolments: rows.flatMap((row, i) =>
      (row.classes ?? []).map((name) => ({ person: `r${i}`, class: name, role: 'student' as const })),
    ),
    notes: [],
    faults: [],
  }
}
const someone = (id: string, more: Partial<Standing['people'][number]> = {}): Standing['people'][number] => ({
  id,
  outsideId: null,
  name: 'Ada Brook',
  email: null,
  role: 'student',
  state: 'here',
  ...more,
})
const school: Standing = {
  ...nobody,
  people: [
    someone('ada', { email: 'ada@x.example', outsideId: 'u1' }),
    someone('ben', { name: 'Ben Carr', email: 'ben@x.example' }),
    someone('cleo', { name: 'Cleo Dunn' }),
    someone('tom', { name: 'Tom Teach', email: 'tom@x.example', role: 'teacher' }),
    someone('gone', { name: 'Gone Away', email: 'gone@x.example', state: 'left' }),
  ],
  classes: [
    { id: 'k', outsideId: null, name: 'Knots', filed: false, term: null },
    { id: 'old', outsideId: null, name: 'Ropes', filed: true, term: null },
  ],
  enrolments: [
    { class: 'k', person: 'cleo' },
    { class: 'k', person: 'ben' },
  ],
  elsewhere: ['far@x.example'],
}
const fateOf = (row: Row, decision?: string): Fate =>
  compareRoster(rosterOf([row]), school, decision === undefined ? {} : { r0: decision }).people[0]!.fate

describe('somebody of a roster', () => {
  it.each<[string, Row, object]>([
    ['the same by their id', { outsideId: 'u1', email: 'ada@x.example' }, { is: 'same', id: 'ada' }],
    ['the same by their address', { email: 'ada@x.example' }, { is: 'same', id: 'ada' }],
    ['renamed', { outsideId: 'u1', name: 'Ada Brook-Lee' }, { is: 'changed', id: 'ada', was: { name: 'Ada Brook' } }],
    ['with a new address', { outsideId: 'u1', email: 'ada@new.example' }, { is: 'changed', id: 'ada' }],
    [
      'known by address, now with an id',
      { email: 'ben@x.example', name: 'Ben Carr', outsideId: 'u2' },
      { is: 'changed', id: 'ben' },
    ],
    ['back', { email: 'gone@x.example', name: 'Gone Away' }, { is: 'changed', id: 'gone' }],
    ['new', { email: 'new@x.example', name: 'New One' }, { is: 'new' }],
    [
      'without anything, by name in their class',
      { name: 'cleo DUNN', classes: ['Knots'] },
      { is: 'changed', id: 'cleo' },
    ],
    [
      'id of one, address of another',
      { outsideId: 'u1', email: 'ben@x.example' },
      { is: 'doubtful', could: [{ id: 'ada' }, { id: 'ben' }] },
    ],
    [
      'an address with another id',
      { email: 'ada@x.example', outsideId: 'u9' },
      { is: 'doubtful', could: [{ id: 'ada' }] },
    ],
    [
      'a name that is in the school',
      { name: 'Cleo Dunn', classes: ['Sails'] },
      { is: 'doubtful', could: [{ id: 'cleo' }] },
    ],
    [
      'a name that has an address now',
      { name: 'Cleo Dunn', email: 'c@x.example' },
      { is: 'doubtful', could: [{ id: 'cleo' }] },
    ],
    ['a teacher there, a student here', { email: 'tom@x.example', name: 'Tom Teach' }, { is: 'doubtful', could: [] }],
    ['an address of another school', { email: 'far@x.example' }, { is: 'doubtful', could: [] }],
  ])('%s', (_what, row, fate) => expect(fateOf(row)).toMatchObject(fate))

  it('a doubt is decided by who looks: somebody of the school, somebody new, or nobody', () => {
    const row = { name: 'Cleo Dunn', email: 'c@x.example' }
    expect(fateOf(row, 'cleo')).toMatchObject({ is: 'changed', id: 'cleo' })
    expect(fateOf(row, decideNew)).toEqual({ is: 'new' })
    expect(fateOf(row, decideOut)).toEqual({ is: 'left out' })
    // Nobody is chosen who was not offered, and no address is had twice.
    expect(fateOf(row, 'ada').is).toBe('doubtful')
    expect(fateOf({ email: 'ada@x.example', outsideId: 'u9' }, decideNew).is).toBe('doubtful')
    expect(fateOf({ email: 'far@x.example' }, decideNew).is).toBe('doubtful')
  })
  it('two of one address, and one with two ids, are doubts at both their places', () => {
    const plan = compareRoster(
      rosterOf([
        { email: 'a@x.example', name: 'A' },
        { email: 'a@x.example', name: 'B' },
        { outsideId: 'z', name: 'C' },
        { outsideId: 'z', name: 'D' },
      ]),
      nobody,
    )
    expect(plan.people.map(({ fate }) => fate.is === 'doubtful' && fate.why)).toEqual([
      'Somebody else of the file has this address too (line 3).',
      'Somebody else of the file has this address too (line 2).',
      'Somebody else of the file has this id too (line 5).',
      'Somebody else of the file has this id too (line 4).',
    ])
  })
})

describe('classes', () => {
  it('who is not in the file has left, but for those who are in doubt, and of classes that the file has', () => {
    const plan = compareRoster(rosterOf([{ name: 'Ben Carr', email: 'ben@x.example', classes: ['Knots'] }]), school)
    expect([plan.enrolled, plan.enrolments, plan.left.map(({ person }) => person)]).toEqual([1, [], ['cleo']])
    const doubt = compareRoster(rosterOf([{ name: 'Cleo Dunn', email: 'c@x.example', classes: ['Knots'] }]), school)
    expect(doubt.left.map(({ person }) => person)).toEqual(['ben'])
    expect(compareRoster(rosterOf([{ email: 'ben@x.example', classes: ['Sails'] }]), school).left).toEqual([])
  })
  it('one that is filed away is not filled again by its name; two of one name are told', () => {
    const plan = compareRoster(rosterOf([{ email: 'n@x.example', classes: ['Ropes'] }]), school)
    expect(plan.classes).toMatchObject([{ id: null }])
    const two = { ...school, classes: [...school.classes, { ...school.classes[0]!, id: 'k2' }] }
    const told = compareRoster(rosterOf([{ email: 'n@x.example', classes: ['Knots'] }]), two)
    expect([told.classes, told.enrolments, told.faults[0]!.sentence]).toEqual([
      [],
      [],
      expect.stringMatching(/2 classes of the school are called so/),
    ])
  })
})

/** The school that a plan makes of another: an oracle by itself, for whatever is not in doubt. */
function carriedOut(roster: Roster, before: Standing): Standing {
  const plan = compareRoster(roster, before)
  const people = before.people.map((each) => ({ ...each }))
  const ids = new Map<string, string>()
  plan.people.forEach(({ person, fate }, i) => {
    if (fate.is === 'new') {
      ids.set(person.key, `n${i}-${before.people.length}`)
      people.push({
        id: ids.get(person.key)!,
        outsideId: person.outsideId,
        name: person.name,
        email: person.email,
        role: person.role,
        state: 'here',
      })
    } else if (fate.is === 'same' || fate.is === 'changed') {
      ids.set(person.key, fate.id)
      const found = people.find(({ id }) => id === fate.id)!
      Object.assign(found, {
        name: person.name,
        email: person.email ?? found.email,
        outsideId: person.outsideId ?? found.outsideId,
        state: 'here',
      })
    }
  })
  const classes = [...before.classes]
  const classIds = new Map<string, string>()
  plan.classes.forEach(({ class: each, id }) => {
    classIds.set(each.key, id ?? `c-${each.name}`)
    if (id === null)
      classes.push({ id: `c-${each.name}`, outsideId: each.outsideId, name: each.name, filed: false, term: null })
  })
  const enrolments = [
    ...before.enrolments,
    ...plan.enrolments.map((each) => ({ class: classIds.get(each.class)!, person: ids.get(each.person)! })),
  ]
  return { ...before, people, classes, enrolments }
}

it('a row with an address is the person whom it names, whatever a row without one before it is taken for', () => {
  const before: Standing = {
    ...nobody,
    people: [{ id: 'ben', outsideId: null, name: 'Ben Carr', email: 'ben@x.example', role: 'student', state: 'here' }],
    classes: [{ id: 'k', outsideId: null, name: 'Sails', filed: false, term: null }],
    enrolments: [{ class: 'k', person: 'ben' }],
  }
  const plan = compareRoster(
    rosterOf([
      { name: 'Ben Carr', classes: ['Sails'] },
      { name: 'Ben Carr', email: 'ben@x.example', classes: ['Sails'] },
    ]),
    before,
  )
  expect(plan.people.map(({ fate }) => fate.is)).toEqual(['doubtful', 'same'])
})

describe('whatever is brought in', () => {
  const name = fc.constantFrom('Ada Brook', 'Ben Carr', 'Cleo Dunn', 'Dan Eck')
  const row = fc.record({
    name,
    email: fc.constantFrom(null, null, 'a@x.example', 'b@x.example', 'c@x.example', 'far@x.example'),
    outsideId: fc.constantFrom(null, null, 'u1', 'u2', 'u3'),
    role: fc.constantFrom('student' as const, 'student' as const, 'teacher' as const),
    classes: fc.subarray(['Knots', 'Sails']),
  })
  const unique = <T>(items: readonly (T | null)[]) => {
    const there = items.filter((each) => each !== null)
    return new Set(there).size === there.length
  }
  it('no address and no id is had twice, nobody is enrolled twice, and the same again changes nothing', () => {
    let again = 0
    let doubts = 0
    fc.assert(
      fc.property(fc.array(row, { maxLength: 6 }), fc.array(row, { maxLength: 6 }), (first, second) => {
        const before = carriedOut(rosterOf(first), { ...nobody, elsewhere: ['far@x.example'] })
        const roster = rosterOf(second)
        const plan = compareRoster(roster, before)
        const after = carriedOut(roster, before)
        expect(unique(after.people.map(({ email }) => email))).toBe(true)
        expect(unique(after.people.map(({ outsideId }) => outsideId))).toBe(true)
        expect(after.people.some(({ email }) => email === 'far@x.example')).toBe(false)
        expect(unique(after.enrolments.map((each) => `${each.class} ${each.person}`))).toBe(true)
        expect(plan.people).toHaveLength(second.length)
        doubts += plan.people.filter(({ fate }) => fate.is === 'doubtful').length
        // Whoever was not in doubt is the same the second time, and in the classes where they stand.
        const next = compareRoster(roster, after)
        plan.people.forEach(({ fate, person }, i) => {
          if (fate.is === 'doubtful') return
          const bare = person.email === null && person.outsideId === null
          if (bare) return
          again++
          expect(next.people[i]!.fate.is).toBe('same')
        })
        // A name that was two people's may be one's by now: whoever was in doubt may be found the second time.
        expect(
          next.enrolments.filter(({ person: key }) =>
            next.people.some(
              ({ person, fate }, i) =>
                person.key === key && fate.is === 'same' && plan.people[i]!.fate.is !== 'doubtful',
            ),
          ),
        ).toEqual([])
      }),
      { numRuns: 5000 },
    )
    expect(again).toBeGreaterThan(500)
    expect(doubts).toBeGreaterThan(500)
  })
})

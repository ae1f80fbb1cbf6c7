/** Files of rosters read and written; OneRoster's columns are from memory of 1EdTech's CSV bindings 1.1 and 1.2. */
import { describe, expect, it } from 'vitest'
import { encode } from '../format'
import { unzip, zip } from '../zip'
import { readRoster } from './read'
import { writeOneRoster, writePlainRoster, type OutgoingRoster } from './write'

const file = (text: string, name = 'roster.csv') => ({ name, bytes: encode(text) })
const plain = (text: string) => readRoster([file(text)])
const outgoing: OutgoingRoster = {
  school: { id: 'sch', name: 'Kelp Lane' },
  people: [
    { id: 'p1', outsideId: 'u-1', name: 'Ada Brook', email: 'ada@kelp.example', role: 'student' },
    { id: 'p2', outsideId: null, name: '李 小龍', email: null, role: 'student' },
    { id: 'p3', outsideId: 'u-3', name: 'Cleo van Dunn', email: 'cleo@kelp.example', role: 'teacher' },
    { id: 'p4', outsideId: null, name: '"Quo", ted', email: 'q@kelp.example', role: 'student' },
  ],
  classes: [{ id: 'c1', outsideId: 'k-1', name: 'Knots, first', term: 't1' }],
  terms: [{ id: 't1', outsideId: 's-1', name: 'Autumn', starts: '2026-09-01', ends: '2026-12-20' }],
  enrolments: [
    { class: 'c1', person: 'p1', role: 'student' },
    { class: 'c1', person: 'p2', role: 'student' },
    { class: 'c1', person: 'p3', role: 'teacher' },
  ],
}

describe('a plain file', () => {
  it.each([
    ['comma', 'name,email,class\nAda Brook,ada@x.example,Knots'],
    ['semicolon', 'Student name;E-mail address;Class\r\nAda Brook;ada@x.example;Knots\r\n'],
    ['tab', 'Given\tFamily name\tMail\tCourse\nAda\tBrook\tADA@x.example\tKnots'],
    [
      'other order, a column that is no field',
      'class,house,last name,first name,mail\nKnots,North,Brook,Ada,ada@x.example',
    ],
    ['a byte order mark', '\uFEFFname,email,class\nAda Brook,ada@x.example,Knots'],
  ])('with %s between its columns', (_what, text) => {
    const { roster } = plain(text)
    expect(roster.faults).toEqual([])
    expect(roster.people).toMatchObject([
      { name: 'Ada Brook', email: 'ada@x.example', role: 'student', outsideId: null },
    ])
    expect(roster.classes).toMatchObject([{ name: 'Knots' }])
    expect(roster.enrolments).toHaveLength(1)
  })
  it('in another encoding: Windows-1252, UTF-16', () => {
    const latin = Uint8Array.from([...'name\nZo'].map((c) => c.charCodeAt(0)).concat([0xeb]))
    expect(readRoster([{ name: 'a.csv', bytes: latin }]).roster.people[0]!.name).toBe('Zoë')
    const wide = new Uint8Array([
      0xff,
      0xfe,
      ...new Uint8Array(new Uint16Array([...'name\nЗоя'].map((c) => c.charCodeAt(0))).buffer),
    ])
    expect(readRoster([{ name: 'a.csv', bytes: wide }]).roster.people[0]!.name).toBe('Зоя')
  })
  it('asks for columns that it does not know, and takes what is said', () => {
    const bytes = encode('A,B\nAda Brook,Knots')
    const asked = readRoster([{ name: 'a.csv', bytes }])
    expect(asked.columns).toMatchObject({
      taken: [null, null],
      fault: expect.stringMatching(/which column holds the name/),
    })
    expect(readRoster([{ name: 'a.csv', bytes }], ['name', 'class']).roster.people[0]!.name).toBe('Ada Brook')
  })
  it('tells row by row what cannot be taken; the others are', () => {
    const { roster } = plain(
      [
        'name,email,class,role,id',
        'Ada Brook,ada@x.example,Knots,student,1',
        'ada.b@x.example,Ada Brook,Knots,student,2',
        '=HYPERLINK("x"),f@x.example,Knots,student,3',
        'Ben Carr,ben@x,Knots,student,4',
        'Cleo,cleo@x.example,Knots,captain,5',
        'Ada Brook,ada@x.example,Knots,student,1',
        'Adam Brook,adam@x.example,Knots,student,1',
        ',,Knots,,',
        'Ada Brook,ada@x.example,Ropes,student,1',
      ].join('\n'),
    )
    expect(roster.people.map(({ name }) => name)).toEqual(['Ada Brook'])
    expect(roster.enrolments).toHaveLength(2)
    expect(roster.faults.map(({ place, sentence }) => [place.replace('roster.csv, line ', ''), sentence])).toEqual([
      ['3', expect.stringMatching(/no e-mail address. Are name and address in each other/)],
      ['4', expect.stringMatching(/formula/)],
      ['5', expect.stringMatching(/“ben@x” is no e-mail/)],
      ['6', expect.stringMatching(/“captain” is neither/)],
      ['7', expect.stringMatching(/stands in the file already/)],
      ['8', expect.stringMatching(/same id, with the name “Ada Brook”/)],
      ['9', 'Give a name.'],
    ])
  })
  it.each([
    ['a quotation mark that is not closed', 'name\n"Ada', /not closed/],
    ['a picture', '\u0089PNG\0\0', /is no text/],
  ])('%s is told', (_what, text, sentence) => expect(() => plain(text)).toThrow(sentence))
  it('comes back as it was written, formulas as text', () => {
    const { roster } = plain(writePlainRoster(outgoing))
    expect(roster.faults).toEqual([])
    expect(roster.people.map(({ name, email, role, outsideId }) => [name, email, role, outsideId])).toEqual(
      outgoing.people.map(({ name, email, role, outsideId }) => [name, email, role, outsideId]),
    )
    expect(
      writePlainRoster({ ...outgoing, people: [{ ...outgoing.people[0]!, name: '=1+1' }], enrolments: [] }),
    ).toContain("'=1+1")
  })
})

describe('OneRoster', () => {
  it.each(['1.1', '1.2'] as const)('%s comes back as it was written, in one archive or file by file', (version) => {
    const bytes = writeOneRoster(outgoing, version, '2026')
    const apart = [...unzip(bytes)].map(([name, inside]) => ({ name, bytes: inside }))
    for (const files of [[{ name: 'all.zip', bytes }], apart]) {
      const { format, roster } = readRoster(files)
      expect(format).toBe('OneRoster')
      expect([roster.faults, roster.notes]).toEqual([[], []])
      expect(roster.people.map(({ key, name, email, role }) => [key, name, email, role])).toEqual(
        outgoing.people.map(({ id, outsideId, name, email, role }) => [outsideId ?? id, name, email, role]),
      )
      expect(roster.classes).toEqual([{ key: 'k-1', outsideId: 'k-1', name: 'Knots, first', term: 's-1' }])
      expect(roster.terms).toMatchObject([{ name: 'Autumn', starts: '2026-09-01', ends: '2026-12-20' }])
      expect(roster.enrolments).toEqual([
        { person: 'u-1', class: 'k-1', role: 'student' },
        { person: 'p2', class: 'k-1', role: 'student' },
        { person: 'u-3', class: 'k-1', role: 'teacher' },
      ])
    }
  })
  it('of a school without terms or classes has the heads of their columns alone', () => {
    const files = unzip(writeOneRoster({ ...outgoing, terms: [], classes: [], enrolments: [] }, '1.2', '2026'))
    const text = (name: string) => Buffer.from(files.get(name)!).toString()
    expect(text('academicSessions.csv')).toBe(
      'sourcedId,status,dateLastModified,title,type,startDate,endDate,parentSourcedId,schoolYear\r\n',
    )
    expect(text('enrollments.csv').trim().split('\r\n')).toHaveLength(1)
    expect(text('users.csv').split('\r\n')[1]!.split(',')).toHaveLength(
      text('users.csv').split('\r\n')[0]!.split(',').length,
    )
  })
  const users =
    'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,middleName,identifier,email\n'
  it('leaves out guardians, who is not enabled and what is to be deleted, and tells dangling ids', () => {
    const files = [
      file(
        `${users}u1,active,,true,o,student,,,Ada,Brook,,,\nu2,active,,true,o,guardian,,,Ben,Carr,,,\nu3,active,,false,o,student,,,Cleo,Dunn,,,\nu4,tobedeleted,,true,o,student,,,Dan,Eck,,,\nu5,active,,true,o,aide,,,Eve,Ford,,,`,
        'users.csv',
      ),
      file('sourcedId,status,title\nk1,active,Knots', 'classes.csv'),
      file(
        'sourcedId,status,classSourcedId,userSourcedId,role\ne1,active,k1,u1,student\ne2,active,k1,u9,student\ne3,active,k9,u1,student\ne4,active,k1,u2,guardian\ne5,active,k1,u5,aide',
        'enrollments.csv',
      ),
    ]
    const { roster } = readRoster([
      { name: 'r.zip', bytes: zip(new Map(files.map(({ name, bytes }) => [name, bytes]))) },
    ])
    expect(roster.people.map(({ key, role }) => [key, role])).toEqual([
      ['u1', 'student'],
      ['u5', 'teacher'],
    ])
    expect(roster.notes).toEqual([
      expect.stringMatching(/^1 of users.csv are neither/),
      expect.stringMatching(/^1 of users.csv are not enabled/),
    ])
    expect(roster.faults.map(({ sentence }) => sentence)).toEqual([
      'users.csv has nobody “u9”.',
      'classes.csv has no “k9”.',
    ])
    expect(roster.enrolments).toEqual([
      { person: 'u1', class: 'k1', role: 'student' },
      { person: 'u5', class: 'k1', role: 'help' },
    ])
  })
  it('without people, or several plain files, is told', () => {
    expect(() => readRoster([file('sourcedId,status,title\nk1,,K', 'classes.csv')])).toThrow(/no users.csv/)
    expect(() => readRoster([file('name\nA', 'a.csv'), file('name\nB', 'b.csv')])).toThrow(/one at a time/)
  })
})

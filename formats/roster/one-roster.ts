import { cleanName, nameFault } from '../../core/people'
import type { Roster, RosterPerson } from '../../core/roster'
import { UnreadableFile } from '../bundle'
import { readAddress } from './address'
import { cellsOf, type Table } from './table'

/** Files of a OneRoster 1.1 or 1.2 CSV binding that are read, by their names (1EdTech; from memory of the binding). */
export const oneRosterFiles = [
  'users',
  'roles',
  'classes',
  'enrollments',
  'academicsessions',
  'orgs',
  'manifest',
  'courses',
] as const

const stem = (name: string) =>
  name
    .toLowerCase()
    .split('/')
    .at(-1)!
    .replace(/\.csv$/, '')
export const isOneRoster = (tables: readonly Table[]): boolean =>
  tables.some(({ header }) => header.some((heading) => heading.toLowerCase() === 'sourcedid'))

const teaching = new Set([
  'teacher',
  'administrator',
  'districtadministrator',
  'principal',
  'siteadministrator',
  'systemadministrator',
])
const helping = new Set(['aide', 'proctor', 'counselor'])
const roleOf = (role: string): 'student' | 'teacher' | 'help' | null => {
  const plain = role.toLowerCase().replace(/[\s_-]/g, '')
  return plain === 'student' ? 'student' : teaching.has(plain) ? 'teacher' : helping.has(plain) ? 'help' : null
}

/** Reads what a set of OneRoster files says of people, classes, terms and enrolments. @throws UnreadableFile */
export function readOneRoster(tables: readonly Table[]): Roster {
  const byName = new Map(tables.map((table) => [stem(table.name), table]))
  const roster: Roster = { people: [], classes: [], terms: [], enrolments: [], notes: [], faults: [] }
  const users = byName.get('users')
  if (!users) throw new UnreadableFile('There is no users.csv among these files: OneRoster has its people there.')
  const each = (name: string, work: (cell: (column: string) => string, place: string) => void) => {
    const table = byName.get(name)
    if (!table) return
    const of = cellsOf(table)
    for (const { line, cells } of table.rows) {
      const cell = of(cells)
      if (cell('status').toLowerCase() === 'tobedeleted') continue
      work(cell, `${table.name}, line ${line}`)
    }
  }
  // 1.2 has roles in a file of their own; 1.1 beside each user.
  const roles = new Map<string, string>()
  each('roles', (cell) => {
    if (!roles.has(cell('userSourcedId')) || cell('roleType').toLowerCase() === 'primary')
      roles.set(cell('userSourcedId'), cell('role'))
  })
  let others = 0
  let off = 0
  each('users', (cell, place) => {
    const id = cell('sourcedId')
    if (!id) return void roster.faults.push({ place, sentence: 'There is no sourcedId.' })
    if (cell('enabledUser').toLowerCase() === 'false') return void off++
    const role = roleOf(roles.get(id) ?? cell('role'))
    if (role === null) return void others++
    const person = personOf(cell, id, role, place)
    if (typeof person === 'string') roster.faults.push({ place, sentence: person })
    else roster.people.push(person)
  })
  each('academicsessions', (cell, place) => {
    const [key, name, starts, ends] = [cell('sourcedId'), cleanName(cell('title')), cell('startDate'), cell('endDate')]
    const day = /^\d{4}-\d{2}-\d{2}$/
    if (!key || !name || !day.test(starts) || !day.test(ends) || starts > ends)
      roster.faults.push({
        place,
        sentence: 'A session needs a sourcedId, a title, and days as 2026-09-01 that follow each other.',
      })
    else roster.terms.push({ key, outsideId: key, name: name.slice(0, 80), starts, ends })
  })
  const sessions = new Set(roster.terms.map(({ key }) => key))
  each('classes', (cell, place) => {
    const [key, name] = [cell('sourcedId'), cleanName(cell('title'))]
    if (!key || !name) return void roster.faults.push({ place, sentence: 'A class needs a sourcedId and a title.' })
    const term =
      cell('termSourcedIds')
        .split(',')
        .map((one) => one.trim())
        .find((one) => sessions.has(one)) ?? null
    roster.classes.push({ key, outsideId: key, name: [...name].slice(0, 80).join(''), term })
  })
  const [people, classes] = [
    new Set(roster.people.map(({ key }) => key)),
    new Set(roster.classes.map(({ key }) => key)),
  ]
  const all = new Set<string>()
  each('users', (cell) => void all.add(cell('sourcedId')))
  each('enrollments', (cell, place) => {
    const [person, klass, role] = [cell('userSourcedId'), cell('classSourcedId'), roleOf(cell('role'))]
    if (!all.has(person)) roster.faults.push({ place, sentence: `users.csv has nobody “${person.slice(0, 60)}”.` })
    else if (!classes.has(klass)) roster.faults.push({ place, sentence: `classes.csv has no “${klass.slice(0, 60)}”.` })
    else if (people.has(person) && role) roster.enrolments.push({ person, class: klass, role })
  })
  if (others)
    roster.notes.push(
      `${others} of users.csv are neither teachers nor students (guardians, relatives) and are left out.`,
    )
  if (off) roster.notes.push(`${off} of users.csv are not enabled and are left out.`)
  return roster
}

/** Somebody of users.csv, or what is wrong with the row. */
function personOf(
  cell: (column: string) => string,
  key: string,
  role: 'student' | 'teacher' | 'help',
  place: string,
): RosterPerson | string {
  const given = cell('preferredGivenName') || cell('givenName')
  const family = cell('preferredFamilyName') || cell('familyName')
  const name = cleanName(`${given} ${family}`)
  const fault = nameFault(name)
  if (fault) return fault
  const written = cell('email')
  const address = written ? readAddress(written) : null
  if (written && !address) return `“${written.slice(0, 60)}” is no e-mail address.`
  return {
    key,
    place,
    outsideId: key,
    name,
    email: address?.address ?? null,
    role: role === 'student' ? 'student' : 'teacher',
  }
}

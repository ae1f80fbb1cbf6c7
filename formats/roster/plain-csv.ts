import { cleanName, nameFault } from '../../core/people'
import type { Roster, RosterPerson } from '../../core/roster'
import { readAddress } from './address'
import type { Table } from './table'

/** What a column of a plain roster can hold. */
export const rosterFields = ['name', 'given', 'family', 'email', 'class', 'term', 'role', 'id'] as const
export type RosterField = (typeof rosterFields)[number]
/** Which field each column holds, in their order; null for none. */
export type Columns = (RosterField | null)[]

export const fieldLabels: Record<RosterField, string> = {
  name: 'name',
  given: 'given name',
  family: 'family name',
  email: 'e-mail',
  class: 'class',
  term: 'term',
  role: 'teacher or student',
  id: 'id of another system',
}

const words: Record<RosterField, RegExp> = {
  email: /e-?mail|address$|^mail/i,
  given: /given|first|fore/i,
  family: /family|last|sur/i,
  class: /^class|course|^group|^section/i,
  term: /term|semester|^year|session/i,
  role: /role|^type$/i,
  id: /(^|[^a-z])id$|number|identifier|sourcedid/i,
  name: /name|student|pupil/i,
}

/** What the columns of a table seem to hold, by their headings and then by what stands in them. */
export function recognise({ header, rows }: Table): Columns {
  const columns: Columns = header.map(() => null)
  const used = new Set<RosterField>()
  const take = (i: number, field: RosterField) => {
    if (columns[i] === null && !used.has(field)) {
      columns[i] = field
      used.add(field)
    }
  }
  for (const field of ['email', 'given', 'family', 'class', 'term', 'role', 'id', 'name'] as const)
    header.forEach((heading, i) => {
      if (words[field].test(heading)) take(i, field)
    })
  const some = rows.slice(0, 50)
  header.forEach((_heading, i) => {
    if (some.length && some.filter(({ cells }) => readAddress(cells[i] ?? '')).length > some.length / 2)
      take(i, 'email')
  })
  return columns
}

/** What keeps columns from being read, in a sentence; null for nothing. */
export function columnsFault(columns: Columns): string | null {
  if (columns.some((field) => field === 'name') || (columns.includes('given') && columns.includes('family')))
    return null
  if (columns.includes('email')) return null
  return 'Say which column holds the name, or the given and the family name, or the e-mail address.'
}

/** Spreadsheets compute such a cell; here it is text, and is told. */
const formula = /^[=@]|^[+-](?=.*[(!])/

/** Reads a plain roster: one row for each person in each class. */
export function readPlain(table: Table, columns: Columns): Roster {
  const roster: Roster = { people: [], classes: [], terms: [], enrolments: [], notes: [], faults: [] }
  const people = new Map<string, RosterPerson>()
  const classes = new Set<string>()
  const years = new Map<string, string>()
  const enrolled = new Set<string>()
  for (const { line, cells } of table.rows) {
    const place = `${table.name}, line ${line}`
    const of = (field: RosterField) => cells[columns.indexOf(field)] ?? ''
    const fault = (sentence: string) => roster.faults.push({ place, sentence })
    const written = of('email')
    const address = written ? readAddress(written) : null
    const name = cleanName(
      of('name') ||
        [of('given'), of('family')].filter(Boolean).join(' ') ||
        (address?.name ?? '') ||
        (address?.address.split('@')[0] ?? ''),
    )
    if (written && !address) {
      fault(
        `“${written.slice(0, 60)}” is no e-mail address.${readAddress(of('name')) ? ' Are name and address in each other’s columns?' : ''}`,
      )
      continue
    }
    const wrong = formula.test(name) ? 'The name is a formula of a spreadsheet. Save it as its value.' : nameFault(name)
    if (wrong) {
      fault(wrong)
      continue
    }
    const said = of('role').toLowerCase()
    if (said && !/^(student|pupil|learner|s|teacher|staff|instructor|t)$/.test(said)) {
      fault(`“${said.slice(0, 40)}” is neither a teacher nor a student.`)
      continue
    }
    const role = /^(teacher|staff|instructor|t)$/.test(said) ? 'teacher' : 'student'
    const outsideId = of('id') || null
    const className = cleanName(of('class'))
    // The same person stands once for each class; without an address or an id a name is one person in its class.
    const same =
      outsideId !== null ? `id ${outsideId}` : address ? `mail ${address.address}` : `name ${name} in ${className}`
    const known = people.get(same)
    if (known && known.name !== name) {
      fault(`Another row has the same ${outsideId !== null ? 'id' : 'address'}, with the name “${known.name}”.`)
      continue
    }
    const person = known ?? { key: `r${line}`, place, outsideId, name, email: address?.address ?? null, role }
    if (!known) {
      people.set(same, person)
      roster.people.push(person)
    }
    if (!className) continue
    const year = cleanName(of('term'))
    const key = `${className.toLowerCase()}|${year.toLowerCase()}`
    if (!classes.has(key)) {
      classes.add(key)
      if (year) years.set(year, year)
      roster.classes.push({ key, outsideId: null, name: className, term: year || null })
    }
    if (enrolled.has(`${key} ${person.key}`)) fault('This row stands in the file already.')
    else {
      enrolled.add(`${key} ${person.key}`)
      roster.enrolments.push({ person: person.key, class: key, role })
    }
  }
  if (years.size)
    roster.notes.push(
      'Terms are put beside classes by their names; they are made by who runs the school, with their days.',
    )
  return roster
}

/** A file to fill in. */
export const plainTemplate = 'name,email,class,role\r\nAda Brook,ada@school.example,Class 1,student\r\n'

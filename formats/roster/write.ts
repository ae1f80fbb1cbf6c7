import Papa from 'papaparse'
import { encode } from '../format'
import { zip } from '../zip'

/** A school, or a part of it, as it goes out: without reasons, accommodations or passwords. */
export interface OutgoingRoster {
  school: { id: string; name: string }
  people: { id: string; outsideId: string | null; name: string; email: string | null; role: 'student' | 'teacher' }[]
  classes: { id: string; outsideId: string | null; name: string; term: string | null }[]
  terms: { id: string; outsideId: string | null; name: string; starts: string; ends: string }[]
  enrolments: { class: string; person: string; role: 'student' | 'teacher' | 'help' }[]
}

type Row = Record<string, string>

/** Rows by the names of their columns; a column that a row says nothing of is empty. Cells that a spreadsheet would compute are written as text. */
function csv(fields: string[], rows: readonly Row[]): string {
  const text = Papa.unparse(
    { fields, data: rows.map((row) => fields.map((field) => row[field] ?? '')) },
    { escapeFormulae: /^[=+\-@\t\r]/, newline: '\r\n' },
  )
  return text.endsWith('\r\n') ? text : `${text}\r\n`
}

/** One row for each person in each class; one who is in none has one row too. */
export function writePlainRoster({ people, classes, terms, enrolments }: OutgoingRoster): string {
  const [byId, byClass] = [
    new Map(people.map((each) => [each.id, each])),
    new Map(classes.map((each) => [each.id, each])),
  ]
  const termNames = new Map(terms.map((each) => [each.id, each.name]))
  const row = (person: OutgoingRoster['people'][number], klass: OutgoingRoster['classes'][number] | undefined) => ({
    name: person.name,
    email: person.email ?? '',
    class: klass?.name ?? '',
    term: termNames.get(klass?.term ?? '') ?? '',
    role: person.role,
    id: person.outsideId ?? '',
  })
  const inClass = new Set(enrolments.map(({ person }) => person))
  return csv(
    ['name', 'email', 'class', 'term', 'role', 'id'],
    [
      ...enrolments.map((each) => row(byId.get(each.person)!, byClass.get(each.class))),
      ...people.filter(({ id }) => !inClass.has(id)).map((person) => row(person, undefined)),
    ],
  )
}

/** Columns of the bulk files (1EdTech, CSV bindings 1.1 and 1.2; from memory). */
const of = (names: string): string[] => ['sourcedId', 'status', 'dateLastModified', ...names.split(' ')]
const columns = {
  orgs: of('name type identifier parentSourcedId'),
  academicSessions: of('title type startDate endDate parentSourcedId schoolYear'),
  courses: of('schoolYearSourcedId title courseCode grades orgSourcedId subjects subjectCodes'),
  classes: of(
    'title grades courseSourcedId classCode classType location schoolSourcedId termSourcedIds subjects subjectCodes periods',
  ),
  users: {
    '1.1': of(
      'enabledUser orgSourcedIds role username userIds givenName familyName middleName identifier email sms phone agentSourcedIds grades password',
    ),
    '1.2': of(
      'enabledUser username userIds givenName familyName middleName identifier email sms phone agentSourcedIds grades password userMasterIdentifier resourceSourcedIds preferredGivenName preferredMiddleName preferredFamilyName primaryOrgSourcedId pronouns',
    ),
  },
  enrollments: of('classSourcedId schoolSourcedId userSourcedId role primary beginDate endDate'),
  roles: of('userSourcedId roleType role beginDate endDate orgSourcedId userProfileSourcedId'),
}
const absent = {
  '1.1': ['categories', 'classResources', 'courseResources', 'demographics', 'lineItems', 'resources', 'results'],
  '1.2': [
    'categories',
    'classResources',
    'courseResources',
    'demographics',
    'lineItemLearningObjectiveIds',
    'lineItems',
    'lineItemScoreScales',
    'resources',
    'resultLearningObjectiveIds',
    'results',
    'resultScoreScales',
    'scoreScales',
    'userProfiles',
    'userResources',
  ],
}

/** "Petra Lund" has a given and a family name; one word is both, as the columns want something. */
function parted(name: string): { givenName: string; familyName: string } {
  const at = name.lastIndexOf(' ')
  return at < 0
    ? { givenName: name, familyName: '-' }
    : { givenName: name.slice(0, at), familyName: name.slice(at + 1) }
}

/**
 * The bulk files of OneRoster 1.1 or 1.2 in one archive. Ids are those that came from outside, else Thistle's own.
 * @param year the source's code in the manifest
 */
export function writeOneRoster(roster: OutgoingRoster, version: '1.1' | '1.2', year: string): Uint8Array {
  const { school, people, classes, terms, enrolments } = roster
  const known = ({ id, outsideId }: { id: string; outsideId: string | null }) => outsideId ?? id
  const idsOf = (each: readonly { id: string; outsideId: string | null }[]) =>
    new Map(each.map((one) => [one.id, known(one)]))
  const [personIds, classIds, termIds] = [idsOf(people), idsOf(classes), idsOf(terms)]
  const course = `${school.id}-course`
  const files: Record<string, string> = {
    orgs: csv(columns.orgs, [{ sourcedId: school.id, name: school.name, type: 'school' }]),
    academicSessions: csv(
      columns.academicSessions,
      terms.map((term) => ({
        sourcedId: known(term),
        title: term.name,
        type: 'term',
        startDate: term.starts,
        endDate: term.ends,
        schoolYear: term.ends.slice(0, 4),
      })),
    ),
    courses: csv(columns.courses, [{ sourcedId: course, title: school.name, orgSourcedId: school.id }]),
    classes: csv(
      columns.classes,
      classes.map((each) => ({
        sourcedId: known(each),
        title: each.name,
        courseSourcedId: course,
        classType: 'scheduled',
        schoolSourcedId: school.id,
        termSourcedIds: termIds.get(each.term ?? '') ?? '',
      })),
    ),
    users: csv(
      columns.users[version],
      people.map((each) => ({
        sourcedId: known(each),
        enabledUser: 'true',
        username: each.email ?? known(each),
        email: each.email ?? '',
        ...parted(each.name),
        // Of these each version has columns for its own.
        orgSourcedIds: school.id,
        role: each.role,
        primaryOrgSourcedId: school.id,
      })),
    ),
    enrollments: csv(
      columns.enrollments,
      enrolments.map(({ class: klass, person, role }) => ({
        sourcedId: `${classIds.get(klass)}-${personIds.get(person)}`,
        classSourcedId: classIds.get(klass)!,
        schoolSourcedId: school.id,
        userSourcedId: personIds.get(person)!,
        role: role === 'help' ? 'aide' : role,
        primary: role === 'teacher' ? 'true' : 'false',
      })),
    ),
  }
  if (version === '1.2')
    files.roles = csv(
      columns.roles,
      people.map((each) => ({
        sourcedId: `${known(each)}-role`,
        userSourcedId: known(each),
        roleType: 'primary',
        role: each.role,
        orgSourcedId: school.id,
      })),
    )
  const said: [string, string][] = [
    ['manifest.version', '1.0'],
    ['oneroster.version', version],
    ...Object.keys(files).map((name): [string, string] => [`file.${name}`, 'bulk']),
    ...absent[version].map((name): [string, string] => [`file.${name}`, 'absent']),
    ['source.systemName', 'Thistle'],
    ['source.systemCode', year],
  ]
  files.manifest = csv(
    ['propertyName', 'value'],
    said.map(([propertyName, value]) => ({ propertyName, value })),
  )
  return zip(new Map(Object.entries(files).map(([name, text]) => [`${name}.csv`, encode(text)])))
}

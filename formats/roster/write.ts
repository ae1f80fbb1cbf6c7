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

/** Cells that a spreadsheet would compute are written as text. */
const csv = (columns: readonly string[], rows: readonly (readonly string[])[]): string =>
  Papa.unparse(
    { fields: [...columns], data: rows.map((row) => [...row]) },
    { escapeFormulae: /^[=+\-@\t\r]/, newline: '\r\n' },
  ) + '\r\n'

/** One row for each person in each class; one who is in none has one row too. */
export function writePlainRoster({ people, classes, terms, enrolments }: OutgoingRoster): string {
  const [byId, byClass] = [
    new Map(people.map((each) => [each.id, each])),
    new Map(classes.map((each) => [each.id, each])),
  ]
  const termNames = new Map(terms.map((each) => [each.id, each.name]))
  const row = (person: OutgoingRoster['people'][number], klass: OutgoingRoster['classes'][number] | undefined) => [
    person.name,
    person.email ?? '',
    klass?.name ?? '',
    termNames.get(klass?.term ?? '') ?? '',
    person.role,
    person.outsideId ?? '',
  ]
  const inClass = new Set(enrolments.map(({ person }) => person))
  return csv(
    ['name', 'email', 'class', 'term', 'role', 'id'],
    [
      ...enrolments.map((each) => row(byId.get(each.person)!, byClass.get(each.class))),
      ...people.filter(({ id }) => !inClass.has(id)).map((person) => row(person, undefined)),
    ],
  )
}

/** "Petra Lund" has a given and a family name; one word is both, as the columns want something. */
function parted(name: string): [given: string, family: string] {
  const at = name.lastIndexOf(' ')
  return at < 0 ? [name, '-'] : [name.slice(0, at), name.slice(at + 1)]
}

/**
 * The bulk files of OneRoster 1.1 or 1.2 (1EdTech; columns from memory of the CSV bindings) in one archive. Ids are those
 * that came from outside, else Thistle's own.
 */
export function writeOneRoster(roster: OutgoingRoster, version: '1.1' | '1.2', year: string): Uint8Array {
  const { school, people, classes, terms, enrolments } = roster
  const known = ({ id, outsideId }: { id: string; outsideId: string | null }) => outsideId ?? id
  const [personIds, classIds, termIds] = [people, classes, terms].map(
    (each: readonly { id: string; outsideId: string | null }[]) => new Map(each.map((one) => [one.id, known(one)])),
  )
  const course = `${school.id}-course`
  const is12 = version === '1.2'
  const files: Record<string, string> = {
    'orgs.csv': csv(
      ['sourcedId', 'status', 'dateLastModified', 'name', 'type', 'identifier', 'parentSourcedId'],
      [[school.id, '', '', school.name, 'school', '', '']],
    ),
    'academicSessions.csv': csv(
      [
        'sourcedId',
        'status',
        'dateLastModified',
        'title',
        'type',
        'startDate',
        'endDate',
        'parentSourcedId',
        'schoolYear',
      ],
      terms.map((term) => [known(term), '', '', term.name, 'term', term.starts, term.ends, '', term.ends.slice(0, 4)]),
    ),
    'courses.csv': csv(
      [
        'sourcedId',
        'status',
        'dateLastModified',
        'schoolYearSourcedId',
        'title',
        'courseCode',
        'grades',
        'orgSourcedId',
        'subjects',
        'subjectCodes',
      ],
      [[course, '', '', '', school.name, '', '', school.id, '', '']],
    ),
    'classes.csv': csv(
      [
        'sourcedId',
        'status',
        'dateLastModified',
        'title',
        'grades',
        'courseSourcedId',
        'classCode',
        'classType',
        'location',
        'schoolSourcedId',
        'termSourcedIds',
        'subjects',
        'subjectCodes',
        'periods',
      ],
      classes.map((each) => [
        known(each),
        '',
        '',
        each.name,
        '',
        course,
        '',
        'scheduled',
        '',
        school.id,
        termIds!.get(each.term ?? '') ?? '',
        '',
        '',
        '',
      ]),
    ),
    'users.csv': is12
      ? csv(
          [
            'sourcedId',
            'status',
            'dateLastModified',
            'enabledUser',
            'username',
            'userIds',
            'givenName',
            'familyName',
            'middleName',
            'identifier',
            'email',
            'sms',
            'phone',
            'agentSourcedIds',
            'grades',
            'password',
            'userMasterIdentifier',
            'resourceSourcedIds',
            'preferredGivenName',
            'preferredMiddleName',
            'preferredFamilyName',
            'primaryOrgSourcedId',
            'pronouns',
          ],
          people.map((each) => [
            known(each),
            '',
            '',
            'true',
            each.email ?? known(each),
            '',
            ...parted(each.name),
            '',
            '',
            each.email ?? '',
            '',
            '',
            '',
            '',
            '',
            '',
            '',
            '',
            '',
            '',
            school.id,
            '',
          ]),
        )
      : csv(
          [
            'sourcedId',
            'status',
            'dateLastModified',
            'enabledUser',
            'orgSourcedIds',
            'role',
            'username',
            'userIds',
            'givenName',
            'familyName',
            'middleName',
            'identifier',
            'email',
            'sms',
            'phone',
            'agentSourcedIds',
            'grades',
            'password',
          ],
          people.map((each) => [
            known(each),
            '',
            '',
            'true',
            school.id,
            each.role,
            each.email ?? known(each),
            '',
            ...parted(each.name),
            '',
            '',
            each.email ?? '',
            '',
            '',
            '',
            '',
            '',
          ]),
        ),
    'enrollments.csv': csv(
      [
        'sourcedId',
        'status',
        'dateLastModified',
        'classSourcedId',
        'schoolSourcedId',
        'userSourcedId',
        'role',
        'primary',
        'beginDate',
        'endDate',
      ],
      enrolments.map(({ class: klass, person, role }) => [
        `${classIds!.get(klass)}-${personIds!.get(person)}`,
        '',
        '',
        classIds!.get(klass)!,
        school.id,
        personIds!.get(person)!,
        role === 'help' ? 'aide' : role,
        role === 'teacher' ? 'true' : 'false',
        '',
        '',
      ]),
    ),
    ...(is12
      ? {
          'roles.csv': csv(
            [
              'sourcedId',
              'status',
              'dateLastModified',
              'userSourcedId',
              'roleType',
              'role',
              'beginDate',
              'endDate',
              'orgSourcedId',
              'userProfileSourcedId',
            ],
            people.map((each) => [
              `${known(each)}-role`,
              '',
              '',
              known(each),
              'primary',
              each.role,
              '',
              '',
              school.id,
              '',
            ]),
          ),
        }
      : {}),
  }
  const bulk = Object.keys(files).map((name) => [`file.${name.slice(0, -4)}`, 'bulk'])
  const absent = [
    'categories',
    'classResources',
    'courseResources',
    'demographics',
    'lineItems',
    'resources',
    'results',
    ...(is12
      ? [
          'lineItemLearningObjectiveIds',
          'lineItemScoreScales',
          'resultLearningObjectiveIds',
          'resultScoreScales',
          'scoreScales',
          'userProfiles',
          'userResources',
        ]
      : []),
  ]
  files['manifest.csv'] = csv(
    ['propertyName', 'value'],
    [
      ['manifest.version', '1.0'],
      ['oneroster.version', version],
      ...bulk,
      ...absent.map((name) => [`file.${name}`, 'absent']),
      ['source.systemName', 'Thistle'],
      ['source.systemCode', year],
    ],
  )
  return zip(new Map(Object.entries(files).map(([name, text]) => [name, encode(text)])))
}

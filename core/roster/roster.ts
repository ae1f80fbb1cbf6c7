/** People, classes and terms of a school as a file describes them: plain data, whatever format it came in. */
export interface Roster {
  people: RosterPerson[]
  classes: RosterClass[]
  terms: RosterTerm[]
  enrolments: RosterEnrolment[]
  /** What of the file was left out, in sentences. */
  notes: string[]
  /** Rows that could not be read. */
  faults: { place: string; sentence: string }[]
}

export interface RosterPerson {
  /** By it enrolments name them; one row has one. */
  key: string
  /** Where it stands: "users.csv, line 12". */
  place: string
  /** What the file's own system knows them by. */
  outsideId: string | null
  name: string
  /** In small letters. */
  email: string | null
  role: 'student' | 'teacher'
}
export interface RosterClass {
  key: string
  outsideId: string | null
  name: string
  /** Key of its term. */
  term: string | null
}
export interface RosterTerm {
  key: string
  outsideId: string | null
  name: string
  /** Days: "2026-09-01". */
  starts: string
  ends: string
}
export interface RosterEnrolment {
  person: string
  class: string
  role: 'student' | 'teacher' | 'help'
}

/** The school as it is, as far as a roster can change it. */
export interface Standing {
  people: {
    id: string
    outsideId: string | null
    name: string
    email: string | null
    role: 'student' | 'teacher'
    state: 'here' | 'left'
  }[]
  classes: { id: string; outsideId: string | null; name: string; filed: boolean; term: string | null }[]
  terms: { id: string; outsideId: string | null; name: string; starts: string; ends: string }[]
  enrolments: { class: string; person: string }[]
  teachers: { class: string; person: string }[]
  /** Addresses of the roster that people of other schools have. */
  elsewhere: string[]
}

export type { Roster, RosterClass, RosterEnrolment, RosterPerson, RosterTerm, Standing } from './roster'
export {
  compareRoster,
  decideNew,
  decideOut,
  type Decisions,
  type Fate,
  type PlannedClass,
  type PlannedPerson,
  type PlannedTerm,
  type RosterPlan,
} from './compare'

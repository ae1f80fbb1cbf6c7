export { scheduleFor, takenUntil, windowEnd, windowFor, windowsOf, mostGenerous, type Schedule } from './schedule'
export {
  clockFor,
  clockAt,
  limitsClosed,
  limitsFor,
  lastStartOf,
  neverShorter,
  type Clock,
  type Limits,
  type Started,
} from './clock'
export { againUntil, mayAgain, type Again } from './again'
export { closesNow, whatClosingDoes, type Closing } from './closing'
export { latestEnd, startsOf, type Starts } from './starts'
export { maySit, seesQuiz, type MaySit, type WhyNot } from './may-sit'
export { calendarEvents, toMarkEvent, type CalendarEvent } from './calendar'
export { dueFor, windowThatCounts } from './due'
export { whoSits } from './who-sits'
export { whySit, type Why } from './why'
export { attemptsUsedAt, moreAttempts, notSat, type AttemptFact, type Sat } from './attempts'
export {
  assignedTo,
  audienceOf,
  namedIn,
  oneOfEach,
  releaseClasses,
  stillToCome,
  studentOfClass,
  type AssignedStudent,
  type Audience,
} from './assigned'
export {
  clockedSections,
  neverShorterSection,
  sectionLimits,
  sectionMinutes,
  toldOfSections,
  type SectionLimits,
} from './sections'
export { datedByClock, datedByStudent } from './hand-in'

export { scheduleFor, windowEnd, mostGenerous, type Schedule } from './schedule'
export {
  clockFor,
  clockAt,
  limitsFor,
  latestEnd,
  lastStartOf,
  neverShorter,
  type Clock,
  type Limits,
  type Started,
} from './clock'
export { closesNow, limitsClosed, whatClosingDoes, type Closing } from './closing'
export { maySit, type MaySit } from './may-sit'
export { attemptsUsedAt, moreAttempts, notSat, type AttemptFact, type Sat } from './attempts'
export { assignedTo, classesOf, type AssignedStudent } from './assigned'
export { datedByClock, datedByStudent } from './hand-in'

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
export { maySit, type AttemptFact, type MaySit } from './may-sit'
export { toldToStudents } from './told'
export { datedByClock, datedByStudent } from './hand-in'

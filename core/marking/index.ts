export {
  markAttempt,
  authoredAnswer,
  costOf,
  type Amendment,
  type HandMarks,
  type KeptAnswers,
  type Mark,
  type Marks,
} from './mark'
export { lateness, type Lateness } from './late'
export { classFigures, classFiguresForStudents, type ClassFigures } from './class-figures'
export { gradeFor, scorePercent, shareOf, type Grade, type GradedAttempt, type GradeOverride } from './grade'

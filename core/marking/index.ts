export {
  markAttempt,
  authoredAnswer,
  costOf,
  earnedOn,
  type Amendment,
  type HandMarks,
  type KeptAnswers,
  type Mark,
  type Marks,
} from './mark'
export { bestOfEach, missedIn } from './missed'
export { totalsOf, type Earned, type SectionScores, type Totals } from './totals'
export { checkVerdict, closesAfter, costOfHelp, type CheckVerdict, type Helped } from './help'
export { bestResults, type BestResult, type BestResults } from './best'
export { lateness, type Lateness } from './late'
export { classFigures, classFiguresForStudents, type ClassFigures } from './class-figures'
export { bandOf, gradeText, scale, scaleBands, scaleFault, type Scale, type ScaleBand, type SchoolScale } from './scale'
export { gradeFor, scorePercent, shareOf, type Grade, type GradedAttempt, type GradeOverride } from './grade'
export { namelessTitle, sealNameless, type NamelessPaper } from './nameless'

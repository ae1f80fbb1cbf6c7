import type { jobs } from './jobs'

type Jobs = typeof jobs
export type JobName = keyof Jobs
/** What a job takes after the database. */
export type JobInput<N extends JobName> = Jobs[N] extends (database: never, ...input: infer I) => unknown ? I : never
/** What it gives; of one that goes on after its reply, the reply. */
export type JobResult<N extends JobName> = Omitted<Awaited<ReturnType<Jobs[N]>>>
type Omitted<R> = R extends { done: Promise<void> } ? Omit<R, 'done'> : R

/** Files and whole imports: minutes are honest. Everything else is for somebody who waits before a page. */
export const long: ReadonlySet<JobName> = new Set<JobName>([
  'askForBank',
  'beginTaking',
  'changeMany',
  'giveFile',
  'giveQuiz',
  'importObjectives',
  'lookAtRoster',
  'lookAtUnseen',
  'openDue',
  'proposeFor',
  'stageFile',
  'stagedQuestion',
  'syncBank',
  'takeRoster',
  'tellQuizzes',
  'undoImport',
  'undoMany',
  'undoRoster',
  'viewBatch',
])

/** For students, who come by the hundred at once: teachers do not stand in their line. */
export const forStudents: ReadonlySet<JobName> = new Set<JobName>(['reviewFor', 'sheetWithMaths'])

/** Jobs that are of use only to who waits for them: they end when whoever asked has gone. Nothing is kept before they have ended. */
export const endWithAsker: ReadonlySet<JobName> = new Set<JobName>([
  'earlierQuiz',
  'giveFile',
  'giveQuiz',
  'loadStimulus',
  'lookAt',
  'lookAtChecks',
  'lookAtObjectives',
  'lookAtRoster',
  'lookAtUnseen',
  'needsAHand',
  'pastedAsText',
  'playRehearsal',
  'previewQuestion',
  'proposeFor',
  'sheetWithMaths',
  'sortsIn',
  'stageFile',
  'stagedQuestion',
  'takeRoster',
  'trialRun',
  'viewBatch',
])

/** The rows of the tables as they arrive; written by `npm run tables` from the schema. A query picks what it reads. */

export interface AloneRow {
  name: string
  holder: string
  until: string
}

export interface AnswerRow {
  attempt_id: string
  item: string
  page: number
  response: string | null
  flagged: number
  lease: number
  seq: number
  kept_at: string | null
  stops_at: string
  checks: number
  hints: number
  settled: number
}

export interface AnswerAsideRow {
  id: string
  attempt_id: string
  item: string
  response: string | null
  lease: number
  seq: number
  arrived_at: string
  reason: 'ended' | 'lease' | 'page' | 'section' | 'stale' | 'invalid'
}

export interface AnswerCheckRow {
  attempt_id: string
  item: string
  number: number
  response: string
  fraction: string
  checked_at: string
}

export interface AttemptRow {
  id: string
  quiz_id: string
  edition_id: string
  student_id: string
  number: number
  window_id: string
  state: 'open' | 'handed' | 'unsent'
  started_at: string
  deadline: string
  on_time_until: string
  hard_stop: string
  handed_in_at: string | null
  ended_by: 'student' | 'clock' | 'teacher' | null
  lease: number
  device: string
  page: number
  touched: number
  paper: string
  score: string | null
  score_rounded: string | null
  possible: string | null
  marked_at: string | null
  days_late: number
  minutes_over: number
  language: string | null
  section_scores: string | null
  seen_at: string | null
  begun_on: number | null
}

export interface AttemptAwayRow {
  attempt_id: string
  token: string
  left_at: string
  seconds: number
}

export interface AttemptBreakRow {
  attempt_id: string
  number: number
  began_at: string
  until: string
  ended_at: string | null
  deadline: string
  on_time_until: string
  hard_stop: string
}

export interface AttemptNoteRow {
  attempt_id: string
  item: string
  note: string
  marks: string
}

export interface AttemptSectionRow {
  attempt_id: string
  section_id: string
  entered_at: string
  deadline: string
  stops_at: string
  left_at: string | null
}

export interface BlueprintRow {
  id: string
  school_id: string
  owner_id: string
  title: string
  shared: number
  body: string
  changed_at: string
}

export interface BulkChangeRow {
  id: string
  person_id: string
  made_at: string
  body: string
  undone_at: string | null
}

export interface CalendarAddressRow {
  person_id: string
  token: string
  made_at: string
}

export interface ClaimRow {
  person_id: string
  known_by: string
  name: string
  email_before: string | null
  at: string
}

export interface ClassRow {
  id: string
  school_id: string
  name: string
  term_id: string | null
  touched: number
  filed: number
  outside_id: string | null
  join_code: string | null
  join_until: string | null
  link_of: string | null
  held_at: string | null
}

export interface ClassGroupRow {
  id: string
  class_id: string
  name: string
  accommodation: string | null
}

export interface ClassGroupMemberRow {
  group_id: string
  person_id: string
}

export interface ClassTeacherRow {
  class_id: string
  person_id: string
  may: 'teach' | 'help'
}

export interface EditionRow {
  id: string
  quiz_id: string
  number: number
  body: string
  made_by: string
  made_at: string
}

export interface EnrolmentRow {
  class_id: string
  person_id: string
  since: string | null
  by_id: string | null
}

export interface FolderRow {
  id: string
  school_id: string
  parent_id: string | null
  name: string
}

export interface GradeScaleRow {
  id: string
  school_id: string
  name: string
  bands: string
}

export interface HandMarkRow {
  attempt_id: string
  item: string
  fraction: string
  comment: string
  given_by: string
  given_at: string
}

export interface ImportBatchRow {
  id: string
  school_id: string
  person_id: string
  name: string
  made_at: string
  state: 'staged' | 'running' | 'stopping' | 'done' | 'undone'
  progress: number
  total: number
  touched_at: string
  body: string
  result: string | null
}

export interface KnownBrowserRow {
  token: string
  person_id: string
  at: string
}

export interface LeftClassRow {
  class_id: string
  person_id: string
  since: string | null
  left_at: string
  by_id: string | null
  put_in_by: string | null
}

export interface LinkEntryRow {
  class_id: string
  person_id: string
  entries: string
  at: string
}

export interface LinkUniqueRow {
  class_id: string
  field_id: string
  digest: string
  person_id: string
}

export interface MailRow {
  id: string
  school_id: string
  to_address: string
  subject: string
  body: string
  written_at: string
  due_at: string | null
  sent_at: string | null
  tries: number
  fault: string
}

export interface MarkRow {
  attempt_id: string
  item: string
  question_id: string
  answered: number
  fraction: string | null
  fraction_rounded: string | null
  points: string | null
  possible: string
}

export interface MediaRow {
  id: string
  school_id: string
  type: string
  bytes: Buffer
  added_by: string
  added_at: string
  own: number
}

export interface MigrationRow {
  name: string
  at: string
}

export interface NamelessRow {
  person_id: string
  by_id: string
  at: string
  until: string
  body: string
}

export interface ObjectiveRow {
  id: string
  school_id: string
  parent_id: string | null
  code: string
  title: string
  essential: number
  outside_id: string | null
  kept: string | null
}

export interface ObjectiveNeedRow {
  objective_id: string
  needs_id: string
}

export interface OutsideBankRow {
  id: string
  school_id: string
  bank: string
  name: string
  asked_by: string
  asked_at: string
  granted_until: string | null
  synced_at: string | null
}

export interface OutsideFaultRow {
  id: string
  question_id: string
  version: number
  said_by: string
  said_at: string
  words: string
}

export interface OwnFieldRow {
  id: string
  school_id: string
  name: string
  sort: import('../../core/people').FieldSort
  choices: string
  taken_out: number
}

export interface OwnValueRow {
  person_id: string
  field_id: string
  value: string
}

export interface PassRow {
  token: string
  person_id: string
  made_by: string | null
  made_at: string
  until: string
  used_at: string | null
  again: number
  told_at: string | null
}

export interface PasswordTryRow {
  subject: string
  since: string
  tries: number
}

export interface PersonRow {
  id: string
  school_id: string
  role: 'teacher' | 'student'
  name: string
  email: string | null
  password_hash: string
  accommodation: string | null
  admin: number
  state: 'here' | 'left'
  outside_id: string | null
  need_reason: string
  guest: number
  reminders: number
  reminder_word: string | null
  made_by: string | null
}

export interface QuestionRow {
  id: string
  school_id: string
  owner_id: string
  state: 'work' | 'usable' | 'retired'
  version: number
  changed_at: string
  kind: string
  title: string
  internal_name: string
  key_text: string
  points: string
  seconds: number
  difficulty: number
  folder_id: string | null
  language: string
  sharing: 'private' | 'named' | 'school' | 'staged' | 'outside'
  near_key: string
  doubts: number
  last_used_at: string | null
  source: string
  facets: string
  import_id: string | null
  stimulus_id: string | null
  origin_bank: string | null
  origin_item: string | null
  chosen: number
  guessing: string | null
}

export interface QuestionCopyRow {
  question_id: string
  of_id: string
  of_version: number
}

export interface QuestionObjectiveRow {
  question_id: string
  objective_id: string
  position: number
}

export interface QuestionOutsideRow {
  school_id: string
  outside_id: string
  question_id: string
}

export interface QuestionRemarkRow {
  id: string
  question_id: string
  version: number
  said_by: string
  said_at: string
  words: string
  doubt: number
  answered_by: string | null
  answered_at: string | null
}

export interface QuestionShareRow {
  question_id: string
  person_id: string
  may: 'read' | 'write'
}

export interface QuestionTagRow {
  question_id: string
  tag: string
}

export interface QuestionVersionRow {
  question_id: string
  version: number
  made_by: string
  made_at: string
  body: string
}

export interface QuestionWordRow {
  word: string
  question_id: string
  kind: string
  difficulty: number
}

export interface QuizRow {
  id: string
  school_id: string
  owner_id: string
  title: string
  state: 'draft' | 'published' | 'withdrawn' | 'filed'
  revision: number
  body: string
  edition_id: string | null
  edition_revision: number | null
  changed_at: string
  description: string
  term: string
  tags: string
  folder_id: string | null
  sharing: 'named' | 'school'
  address: string | null
  draw_secret: string | null
}

export interface QuizAsideRow {
  quiz_id: string
  code: string
  reason: string
  person_id: string
  made_at: string
}

export interface QuizClassRow {
  quiz_id: string
  class_id: string
}

export interface QuizEditRow {
  quiz_id: string
  revision: number
  token: string
  made_by: string
  made_at: string
  body: string
  inverse: string | null
}

export interface QuizGroupRow {
  quiz_id: string
  group_id: string
}

export interface QuizLinkRow {
  quiz_id: string
  class_id: string
  token: string
}

export interface QuizNoticeRow {
  quiz_id: string
  person_id: string
  seen_at: string
  confirmed_at: string | null
}

export interface QuizOpeningRow {
  quiz_id: string
  at: string
  by_id: string
  tried_at: string | null
}

export interface QuizPresenceRow {
  quiz_id: string
  page: string
  person_id: string
  row_id: string | null
  seen_at: string
}

export interface QuizQuestionRow {
  quiz_id: string
  question_id: string
}

export interface QuizRatingRow {
  quiz_id: string
  person_id: string
  question_id: string
  chance: string
  rated_at: string
}

export interface QuizStudentRow {
  quiz_id: string
  person_id: string
}

export interface QuizTeacherRow {
  quiz_id: string
  person_id: string
  may_share: number
  may: 'read' | 'write'
}

export interface QuizToldRow {
  quiz_id: string
  stamp: string
  next_at: string
}

export interface QuizTurnRow {
  quiz_id: string
  turn: number
}

export interface RecordRow {
  id: string
  at: string
  who: string | null
  what: string
  subject: string
  detail: string
}

export interface ReleasedRow {
  quiz_id: string
  class_id: string
  at: string
}

export interface RosterTakenRow {
  id: string
  school_id: string
  by_id: string
  at: string
  name: string
  body: string
  undone_at: string | null
}

export interface RulesVersionRow {
  quiz_id: string
  version: number
  body: string
  made_by: string
  made_at: string
}

export interface RuleSetRow {
  id: string
  school_id: string
  owner_id: string
  name: string
  words: string
  body: string
  shared: number
  usual: number
}

export interface SavedSearchRow {
  id: string
  person_id: string
  name: string
  body: string
}

export interface SchoolRow {
  id: string
  name: string
  zone: string
  demo: number
  roster: number
}

export interface SchoolWordsRow {
  school_id: string
  revision: number
  body: string
}

export interface SessionRow {
  token: string
  person_id: string
  role: 'teacher' | 'student'
  password_mark: string
  until: string
  begun_at: string | null
}

export interface StandinKeeperChoiceRow {
  bank: string
  item: string
  school: string
}

export interface StandinKeeperFaultRow {
  bank: string
  item: string
  school: string
  said_at: string
  words: string
}

export interface StandinKeeperGrantRow {
  bank: string
  school: string
  asked_at: string
}

export interface StartGuardRow {
  owner_id: string
  slot: number
  turn: number
}

export interface StimulusRow {
  id: string
  school_id: string
  version: number
  name: string
  changed_at: string
  outside_id: string | null
}

export interface StimulusVersionRow {
  stimulus_id: string
  version: number
  made_by: string
  made_at: string
  body: string
}

export interface TermRow {
  id: string
  school_id: string
  name: string
  starts: string
  ends: string
  outside_id: string | null
}

export interface ToldRow {
  quiz_id: string
  person_id: string
  name: string
  about: string
  value: string
  at: string
}

export interface ViewedRow {
  attempt_id: string
  facet: import('../../core/release/names').FacetName
  at: string
}

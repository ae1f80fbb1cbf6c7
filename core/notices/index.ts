export { dueNotices, timesOf, type DueNotice, type NoticeAttempt, type NoticeStudent, type Told } from './due'
export { letterOf, timeLines, type LetterFacts } from './letters'

import { count, list } from '../../kit/phrases'
import { plainText } from '../../question/allowed-html'
import type { Quiz, Row } from '../schema'
import { allRows } from '../walk'
import type { Edit, Member, Path } from './edit'

/** What an edit is told with: names of questions and rules, and the quiz in which to look for rows and sections. */
export interface Naming {
  quiz: Quiz
  question: (id: string) => string | undefined
  rule: (name: string) => string | undefined
}

const most = 60
const short = (text: string) => (text.length > most ? `${text.slice(0, most - 1)}…` : text)
const quoted = (text: string) => `“${short(text)}”`

function rowName(row: Row | undefined, naming: Naming): string {
  if (!row) return 'a row that is gone'
  switch (row.type) {
    case 'question':
      return quoted(naming.question(row.question) ?? 'a question')
    case 'pool':
      return row.title
        ? `the pool ${quoted(row.title)}`
        : row.condition
          ? 'a pool by a condition'
          : `a pool of ${row.questions.length}`
    case 'stimulus':
      return `a stimulus with ${count(row.questions.length, 'question')}`
    case 'text':
      return `the text ${quoted(plainText(row.html))}`
    case 'break':
      return 'a page break'
  }
}

const partNames: Record<string, string> = {
  title: 'the title',
  intro: 'what is read first',
  order: 'the order',
  points: 'the points',
  draw: 'how many are drawn',
  fixed: 'whether it keeps its place',
  html: 'the text',
  spread: 'what it is spread over',
  condition: 'the condition by which it finds questions',
  required: 'whether it has to be answered',
  options: 'the order of options',
  version: 'the version',
  pages: 'the pages',
  limit: 'the clock',
  objectives: 'the objectives',
  rowPoints: 'the points of new rows',
  after: 'what is read after handing in',
  closing: 'the closing words',
  from: 'the boundary',
  question: 'the question',
}

const simple = (value: unknown): string | null =>
  typeof value === 'number' || typeof value === 'boolean'
    ? String(value)
    : typeof value === 'string' && value.length <= most && !value.includes('<')
      ? value || 'nothing'
      : null

function fromTo(was: unknown, value: unknown): string {
  const [before, after] = [simple(was), simple(value)]
  return before === null || after === null ? '' : `: ${before} → ${after}`
}

/** The thing that a path names, and the part of it. */
function placeOf(path: Path, naming: Naming): string {
  const [root, id, name] = path
  const part = (each: string | undefined) => partNames[each ?? ''] ?? naming.rule(each ?? '') ?? 'a setting'
  if (root === 'rules') return naming.rule(id ?? '') ?? 'the rules'
  if (root === 'content') return part(id)
  if (root === 'rows') {
    const row = allRows(naming.quiz.content).find((each) => each.id === id)
    return `${part(name)} of ${rowName(row, naming)}`
  }
  const section = naming.quiz.content.sections.find((each) => each.id === id)
  return `${part(name)} of the section ${quoted(section?.title ?? 'that is gone')}`
}

function membersOf(path: Path, members: readonly Member[], naming: Naming): string {
  const kind = path.at(-1)
  if (kind === 'rows') return list(members.slice(0, 3).map((each) => rowName(each as Row, naming))) + andMore(members)
  if (kind === 'sections')
    return members.map((each) => `the section ${quoted(String((each as { title?: string }).title ?? ''))}`).join(', ')
  if (kind === 'questions') return count(members.length, 'question')
  if (kind === 'windows') return count(members.length, 'window')
  if (kind === 'objectives') return count(members.length, 'objective')
  if (kind === 'closing') return count(members.length, 'band') + ' of closing words'
  if (kind === 'classes') return members.length === 1 ? 'a class' : `${members.length} classes`
  return `${members.length} of ${placeOf(path, naming)}`
}
const andMore = (members: readonly Member[]) => (members.length > 3 ? ` and ${members.length - 3} more` : '')

/** Where a list stands that is not the running order itself: the pool that questions go into. */
const ofList = (path: Path, naming: Naming) =>
  path.at(-1) === 'questions'
    ? ` ${rowName(
        allRows(naming.quiz.content).find((row) => row.id === path.at(-2)),
        naming,
      )}`
    : ''

/** What an edit did, line by line, in words for people. */
export function editInWords(edit: Edit, naming: Naming): string[] {
  switch (edit.do) {
    case 'set':
      return [`Set ${placeOf(edit.path, naming)}${fromTo(edit.was, edit.value)}`]
    case 'add': {
      const into = ofList(edit.to, naming)
      return [`Put in ${membersOf(edit.to, edit.members, naming)}${into && ` into${into}`}`]
    }
    case 'remove': {
      const outOf = ofList(edit.from, naming)
      return [`Took out ${membersOf(edit.from, edit.was, naming)}${outOf && ` of${outOf}`}`]
    }
    case 'move':
      return [
        edit.from.at(-1) === 'sections'
          ? `Moved ${placeOf(['sections', edit.id, 'title'], naming).replace('the title of ', '')}`
          : `Moved ${rowName(
              allRows(naming.quiz.content).find((row) => row.id === edit.id),
              naming,
            )}`,
      ]
    case 'all':
      return edit.edits.flatMap((each) => editInWords(each, naming))
  }
}

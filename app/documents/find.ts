import type { FoundThing } from '~~/server/domain/find/find'
import type { Memory } from './device'

/** A line of Find or do: a thing that was found, a page, or something to do. */
export interface Line {
  key: string
  sort: FoundThing['sort'] | 'page' | 'do'
  name: string
  note: string
  to: string
}

const page = (name: string, to: string, note = ''): Line => ({ key: to, sort: 'page', name, note, to })
const act = (name: string, to: string, note = ''): Line => ({ key: `do ${to}`, sort: 'do', name, note, to })

const forStudents = [page('My quizzes', '/my'), page('About me', '/me', 'password, devices, calendar')]
const forTeachers = [
  act('New quiz', '/quizzes?new=1'),
  act('Write a question', '/bank/new?kind=choice'),
  act('Bring questions in', '/bank/import', 'from a file'),
  act('Write questions as text', '/bank/paste'),
  page('Today', '/today'),
  page('Bank', '/bank'),
  page('Objectives', '/bank/objectives'),
  page('Stimuli', '/bank/stimuli'),
  page('Questions alike', '/bank/near'),
  page('Banks of others', '/bank/outside'),
  page('Quizzes', '/quizzes'),
  page('Classes', '/classes'),
  page('About me', '/me', 'password, devices, calendar'),
]
const forAdmins = [
  page('School', '/school', 'people, terms, scales'),
  page('Letters', '/mail', 'what was sent'),
  page('Roster', '/roster', 'people and classes from a file'),
]
const ofQuiz = (id: string, title: string) => [
  page('Compose', `/quizzes/${id}/compose`, title),
  page('Rules', `/quizzes/${id}/rules`, title),
  page('Rehearse', `/quizzes/${id}/rehearse`, title),
  page('Trial run', `/quizzes/${id}/trial`, title),
  page('Fill from a blueprint', `/quizzes/${id}/fill`, title),
  page('Pass mark by judges', `/quizzes/${id}/pass-mark`, title),
  page('Marks', `/quizzes/${id}/marks`, title),
  page('Record', `/quizzes/${id}/record`, title),
]

/** The pages and acts that somebody has. @param quiz the one that is open on the page */
export function ownLines(
  person: { role: 'teacher' | 'student'; admin: boolean },
  quiz: { id: string; title: string } | null,
): Line[] {
  if (person.role === 'student') return forStudents
  return [...(quiz ? ofQuiz(quiz.id, quiz.title) : []), ...forTeachers, ...(person.admin ? forAdmins : [])]
}

const plain = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{Mn}/gu, '')
    .toLowerCase()

/** Lines in which each word begins some word of the name or the note; those whose name begins with what was typed first. */
export function matching(lines: readonly Line[], typed: string): Line[] {
  const words = plain(typed).split(/\s+/).filter(Boolean)
  const starts = plain(typed).trim()
  return lines
    .filter(({ name, note }) => {
      const parts = plain(`${name} ${note}`).split(/[^\p{L}\p{N}]+/u)
      return words.every((word) => parts.some((part) => part.startsWith(word)))
    })
    .sort((a, b) => Number(plain(b.name).startsWith(starts)) - Number(plain(a.name).startsWith(starts)))
}

const mostRecent = 8

/** What somebody went to lately from here, in this browser. */
export class Recent {
  constructor(
    private readonly memory: Memory,
    private readonly name: string,
  ) {}

  get lines(): Line[] {
    const kept = this.memory.read(this.name)
    return Array.isArray(kept) ? (kept as Line[]) : []
  }

  note(line: Line): void {
    this.memory.write(this.name, [line, ...this.lines.filter(({ key }) => key !== line.key)].slice(0, mostRecent))
  }
}

import type { Edit } from '../../../core/quiz'
import { safeHtml } from '../bank/material/clean-html'

/** Fields of a quiz that hold HTML from people: introductions, words of text rows and bands, what is read after handing in. */
const htmlFields = new Set(['intro', 'html', 'after'])

function cleanMember(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(cleanMember)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value).map(([name, each]) => [
      name,
      htmlFields.has(name) && typeof each === 'string' ? safeHtml(each) : cleanMember(each),
    ]),
  )
}

/** An edit with the HTML that it brings cleaned, as all else that people write is when it is kept. What is clean stays as it was sent. */
export function cleanEdit(edit: Edit): Edit {
  switch (edit.do) {
    case 'set':
      return {
        ...edit,
        value:
          typeof edit.value === 'string' && htmlFields.has(String(edit.path.at(-1)))
            ? safeHtml(edit.value)
            : cleanMember(edit.value),
      } as Edit
    case 'add':
      return { ...edit, members: edit.members.map(cleanMember) } as Edit
    case 'all':
      return { ...edit, edits: edit.edits.map(cleanEdit) }
    default:
      return edit
  }
}

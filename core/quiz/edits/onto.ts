import type { Quiz } from '../schema'
import { EditError, idOf, type Edit } from './edit'
import { inShort, listAt, valueAt } from './paths'
import { nearby } from './place'
import { step } from './step'

function expecting(quiz: Quiz, edit: Edit): Edit {
  switch (edit.do) {
    case 'set':
      return { ...edit, was: valueAt(quiz, edit.path) }
    case 'add':
      // Refuses a list that is gone, such as the rows of a section.
      listAt(quiz, edit.to)
      return edit
    case 'remove': {
      const here = listAt(quiz, edit.from).filter((each) => edit.was.some((known) => idOf(known) === idOf(each)))
      if (!here.length) throw new EditError('This is no longer there.')
      return { ...edit, was: here }
    }
    case 'move': {
      const home =
        edit.from.at(-1) === 'rows'
          ? quiz.content.sections.find((section) => section.rows.some((row) => row.id === edit.id))
          : undefined
      const from = home ? ['sections', home.id, 'rows'] : edit.from
      valueAt(quiz, inShort([...from, edit.id]))
      return { ...edit, from, was: nearby(listAt(quiz, from).map(idOf), edit.id) }
    }
    case 'all': {
      let result = quiz
      const edits = edit.edits.map((each) => {
        const anew = expecting(result, each)
        result = step(result, anew).quiz
        return anew
      })
      return { do: 'all', edits }
    }
  }
}

/**
 * An edit made anew on another quiz: it then expects what is there. Null where it has no meaning any more, because what
 * it changes is gone.
 */
export function onto(quiz: Quiz, edit: Edit): Edit | null {
  try {
    return expecting(quiz, edit)
  } catch (error) {
    if (error instanceof EditError) return null
    throw error
  }
}

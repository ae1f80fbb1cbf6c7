import { UnreadableFile, type BundleItem } from '../../../formats'
import { readMarkdown } from '../../../formats/markdown/read'
import { kindOf, previewPlaces, questionFaults, mapQuestionHtml, type SealedBody } from '../../../core/question'
import { cleanHtml } from '../bank/material/clean-html'
import { shown } from '../bank/questions/questions'
import { Problem } from '../problem'

export interface Looked {
  place: string
  problem: string | null
  notes: string[]
  folder: string[]
  question: { kind: string; stem: string; body: SealedBody; key: string; solution: unknown } | null
}

function itemsOf(text: string): BundleItem[] {
  try {
    return readMarkdown(text).items
  } catch (error) {
    if (error instanceof UnreadableFile) throw new Problem(422, 'file', error.message)
    throw error
  }
}

/** Plain text as the questions that it means, with what was not understood at its place. */
export function lookAt(text: string): Looked[] {
  return itemsOf(text).map(({ place, problem, notes, folder, question }) => {
    if (!question) return { place, problem, notes, folder, question: null }
    try {
      const clean = shown(mapQuestionHtml(question, cleanHtml))
      const kind = kindOf(clean.kind)
      const placed = previewPlaces(clean)
      const solution = kind.solution(clean.body)
      return {
        place,
        problem,
        notes: [...notes, ...questionFaults(clean)],
        folder,
        question: {
          kind: kind.label,
          stem: clean.stem,
          body: kind.seal(clean.body, placed),
          key: kind.keyText(clean.body),
          solution: solution === null ? null : kind.close(solution, placed),
        },
      }
    } catch (error) {
      if (error instanceof Problem) return { place, problem: error.sentence, notes, folder, question: null }
      throw error
    }
  })
}

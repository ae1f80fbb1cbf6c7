import { eachText } from '../../core/kit/each-text'
import type { Question } from '../../core/question'

/** Puts the addresses of kept pictures in place of their names ("demo:inlet"). */
export function withPictures(question: Question, addressOf: (name: string) => string): Question {
  return eachText(question, (text) => text.replace(/demo:([a-z-]+)/g, (_whole, name: string) => addressOf(name)))
}

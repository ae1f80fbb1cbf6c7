import type { Draft } from './draft'

/** Answers to several questions in one place, "Key: 1 B 2 D", for the questions between it and the key before it. */
export interface FinalKey {
  /** How many questions stand before it. */
  after: number
  answers: Map<number, string>
}

/** Adds answers to the key that is being read; questions since then begin another. */
export function addToFinalKey(keys: FinalKey[], after: number, answers: ReadonlyMap<number, string>): void {
  const last = keys.at(-1)
  const key = last?.after === after ? last : { after, answers: new Map<number, string>() }
  if (key !== last) keys.push(key)
  for (const [number, says] of answers) key.answers.set(number, says)
}

/** Gives a key to the questions that it names: by their own numbers where all have one, else by their order. */
function give(drafts: readonly Draft[], { answers }: FinalKey): void {
  const last = drafts.at(-1)
  if (!last) return
  const numbers = drafts.map(({ number }) => number)
  const byNumber = numbers.every((number) => number !== null) && new Set(numbers).size === numbers.length
  for (const [number, says] of answers) {
    const draft = byNumber ? drafts.find((each) => each.number === number) : drafts[number - 1]
    if (!draft) last.notes.add(`The key at the end names question ${number}, which is not here.`)
    else if (draft.key === null) Object.assign(draft, { key: says, keyAt: draft.parts.length })
    else if (draft.key.toLowerCase() !== says.toLowerCase())
      draft.problem = `Its own line says “${draft.key}”, and the key at the end says “${says}”. Remove one of them.`
  }
}

/**
 * @param all questions in the order in which they were begun: what `after` counts
 * @param kept those that are questions after all
 */
export function giveFinalKeys(all: readonly Draft[], kept: readonly Draft[], keys: readonly FinalKey[]): void {
  keys.forEach((key, i) => {
    const own = new Set(all.slice(keys[i - 1]?.after ?? 0, key.after))
    give(
      kept.filter((draft) => own.has(draft)),
      key,
    )
  })
}

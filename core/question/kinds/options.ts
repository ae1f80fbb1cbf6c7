import { z } from 'zod'
import { isBlank, plainText } from '../allowed-html'
import { html } from '../html-schema'
import type { PlacedOption } from './kind'
import { letter } from './letter'

const idPattern = /^[a-zA-Z0-9_-]{1,24}$/
/** Whether something can be called by a name. Answers are kept in records by it: it is none that every object has. */
export const isId = (name: string): boolean => idPattern.test(name) && !(name in {})
export const id = z.string().regex(idPattern).refine(isId, 'Another name has to be found for it.')

/** What options of every kind have in common. */
export const optionBase = z.strictObject({
  id,
  html,
  comment: html.default(''),
  /** Keeps its place when options are shuffled ("none of these"). */
  fixed: z.boolean().default(false),
})

/** How the options of a choice stand on a page. */
export const layout = z.enum(['list', 'columns', 'row'])

/** In an order that says nothing of the authored one. */
export function byId<T extends { id: string }>(members: readonly T[]): T[] {
  return [...members].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0))
}

/** @param name what one of them is called in a sentence */
export function optionFaults(options: { html: string }[], least: number, name = 'Option'): string[] {
  const faults: string[] = []
  if (options.length < least)
    faults.push(
      name === 'Option' ? `Give at least ${least} options.` : `Give at least ${least} entries: ${name.toLowerCase()}.`,
    )
  options.forEach((option, index) => {
    // As the editor calls them: options by letters, all else by numbers.
    const which = name === 'Option' ? letter(index) : index + 1
    if (isBlank(option.html)) faults.push(`${name} ${which} is empty. Write it or take it out.`)
  })
  const words = options.map((option) => option.html).filter((source) => !isBlank(source))
  if (new Set(words).size < words.length)
    faults.push(
      name === 'Option'
        ? 'Two options say the same. Change one of them.'
        : `Two entries say the same (${name.toLowerCase()}). Change one of them.`,
    )
  return faults
}

export function sealedOptions(
  options: { id: string; html: string }[],
  placed: PlacedOption[],
): { id: string; html: string }[] {
  const byId = new Map(options.map((option) => [option.id, option]))
  return placed.flatMap(({ id, option }) => {
    const written = byId.get(option)
    return written ? [{ id, html: written.html }] : []
  })
}

export function openIds(ids: string[], placed: PlacedOption[]): string[] {
  const authored = new Map(placed.map(({ id, option }) => [id, option]))
  return [...new Set(ids)].flatMap((id) => authored.get(id) ?? [])
}

export function closeIds(ids: string[], placed: PlacedOption[]): string[] {
  const opaque = new Map(placed.map(({ id, option }) => [option, id]))
  return ids.flatMap((id) => opaque.get(id) ?? [])
}

export function optionWords(options: { id: string; html: string }[], ids: string[]): string {
  return options
    .filter(({ id }) => ids.includes(id))
    .map((option) => plainText(option.html))
    .join(' · ')
}

/**
 * Ids of two lists share one on a paper; a mark before each keeps them apart. What is not known has none.
 * @returns the authored id of an opaque one
 */
export function openMarked(placed: readonly PlacedOption[], mark: string): (id: string) => string | undefined {
  const known = new Map(
    placed.filter(({ option }) => option.startsWith(mark)).map(({ id, option }) => [id, option.slice(mark.length)]),
  )
  return (id) => known.get(id)
}

/** @returns the opaque id of an authored one, of the list that has this mark */
export function closeMarked(placed: readonly PlacedOption[], mark: string): (id: string) => string | undefined {
  const known = new Map(placed.map(({ id, option }) => [option, id]))
  return (id) => known.get(mark + id)
}

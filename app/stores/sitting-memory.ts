import type { Response } from '~/components/paper/response'

/** What this browser keeps of a sitting until the server has it, and what is the student's alone: struck options, where they are. */
export interface Remembered {
  page: number
  /** The question they were at. */
  here: string | null
  lease: number
  seq: number
  pending: Record<string, { response: Response | null; flagged: boolean; seq: number }>
  struck: Record<string, string[]>
}

const key = (attempt: string) => `thistle:sitting:${attempt}`

export function remember(attempt: string, memory: Remembered): void {
  try {
    localStorage.setItem(key(attempt), JSON.stringify(memory))
  } catch {
    /* A full or forbidden store: the server still has all that it acknowledged. */
  }
}

export function recall(attempt: string): Remembered | null {
  try {
    return JSON.parse(localStorage.getItem(key(attempt)) ?? 'null') as Remembered | null
  } catch {
    return null
  }
}

export function forget(attempt: string): void {
  try {
    localStorage.removeItem(key(attempt))
  } catch {
    /* nothing to forget */
  }
}

/** This tab, as a device: a reload is the same one, another tab is another. */
export function thisDevice(): string {
  const name = 'thistle:device'
  const known = sessionStorage.getItem(name)
  if (known) return known
  const made = Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) =>
    byte.toString(16).padStart(2, '0'),
  ).join('')
  sessionStorage.setItem(name, made)
  return made
}

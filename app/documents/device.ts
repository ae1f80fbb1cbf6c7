import { stage } from './stage'

/** What an engine needs of the device that it runs on; tests give their own. */
export interface Timers {
  /** Does something after a while. @returns what calls it off */
  after(milliseconds: number, work: () => void): () => void
  now(): number
}

export const realTimers: Timers = {
  after(milliseconds, work) {
    const timer = setTimeout(work, milliseconds)
    return () => {
      clearTimeout(timer)
    }
  },
  now: () => Date.now(),
}

/** Values under names, kept over a reload. Full or forbidden storage loses nothing that the server has acknowledged. */
export interface Memory {
  read(name: string): unknown
  write(name: string, value: unknown): void
  forget(name: string): void
  /** Names that begin with something. */
  names(beginning: string): string[]
}

function quietly<T>(work: () => T, otherwise: T): T {
  try {
    return work()
  } catch {
    return otherwise
  }
}

/** The browser's memory: of all its tabs (local) or of one (session); in a rehearsal, that of a browser made up. */
export function browserMemory(real: () => Storage): Memory {
  const storage = () => stage?.storage ?? real()
  return {
    read: (name) => quietly(() => JSON.parse(storage().getItem(name) ?? 'null') as unknown, null),
    write(name, value) {
      quietly(() => {
        storage().setItem(name, JSON.stringify(value))
      }, undefined)
    },
    forget(name) {
      quietly(() => {
        storage().removeItem(name)
      }, undefined)
    },
    names: (beginning) => quietly(() => Object.keys(storage()).filter((name) => name.startsWith(beginning)), []),
  }
}

/** A word that nobody else will think of, of `length` letters and digits. */
export function newToken(length = 12): string {
  const letters = 'abcdefghijklmnopqrstuvwxyz0123456789'
  return Array.from(crypto.getRandomValues(new Uint8Array(length)), (byte) => letters[byte % 36]).join('')
}

/** This tab, as a device: a reload is the same one, another tab is another. @returns letters and digits */
export function thisDevice(): string {
  const memory = browserMemory(() => sessionStorage)
  const known = memory.read('thistle:tab')
  if (typeof known === 'string') return known
  const made = newToken(24)
  memory.write('thistle:tab', made)
  return made
}

import type { Asking } from '~/client/api'

/** What the page in a rehearsal's frame is answered; null while its connection is lost. Plain data: it crosses windows. */
export type StageReply = { status: number; reply: unknown } | null

/** What a page can be told that is shown in a rehearsal's frame. */
export interface FramedPage {
  /** The time is another: look again. */
  turn(): void
  go(path: string): void
  path(): string
  /** The paper that is open in it, where one is. */
  paper(): string | null
  /** The connection is back. */
  reconnect(): void
}

/** What the page around a frame gives to the page in it: the rehearsal answers in place of the server. */
export interface Stage {
  ask(path: string, options: Asking): Promise<StageReply>
  /** Stands for what the student's browser keeps. */
  storage: Storage
  /** Opens the editor of a question by its item. */
  edit(item: string): void
  enter(page: FramedPage): void
}

export type Stages = Map<string, Stage>
declare global {
  interface Window {
    /** Stages by the names of their frames. */
    thistleStages?: Stages
  }
}

/** The stage that this page stands on; null in real life. */
export const stage: Stage | null = found()

function found(): Stage | null {
  if (typeof window === 'undefined' || window.parent === window) return null
  try {
    return window.parent.thistleStages?.get(window.name) ?? null
  } catch {
    // Another site's page: the policy of ours keeps it from framing us, and it gives nothing.
    return null
  }
}

/** A browser's storage that is kept nowhere. */
export function emptyStorage(): Storage {
  const methods = {
    getItem(name: string) {
      return Object.hasOwn(this, name) ? (this as unknown as Record<string, string>)[name]! : null
    },
    setItem(name: string, value: string) {
      Object.assign(this, { [name]: String(value) })
    },
    removeItem(name: string) {
      Reflect.deleteProperty(this, name)
    },
  }
  return Object.create(methods) as Storage
}

import { ref } from 'vue'

/** Why a page waits: its session has ended, or somebody else has signed in with this browser. */
export type SessionEnd = { why: 'ended' } | { why: 'other'; name: string }

/** Null while the page's own session holds. */
export const sessionEnd = ref<SessionEnd | null>(null)

/** Id of the person whose page this is; null before anybody has signed in. Sent with each request. */
let owner: string | null = null
export const pageOwner = (): string | null => owner
export function setPageOwner(id: string | null): void {
  owner = id
}

let waiting: { goOn: () => void; giveUp: () => void }[] = []

/**
 * Waits until the person whose page this is has signed in again.
 * @returns false where they have left the page instead
 */
export function untilSignedIn(end: SessionEnd): Promise<boolean> {
  sessionEnd.value = end
  return new Promise((done) => {
    waiting.push({
      goOn: () => {
        done(true)
      },
      giveUp: () => {
        done(false)
      },
    })
  })
}

const settle = (how: 'goOn' | 'giveUp') => {
  const all = waiting
  waiting = []
  sessionEnd.value = null
  for (const each of all) each[how]()
}
/** The same person has signed in again: waiting requests are sent again. */
export const signedInAgain = () => {
  settle('goOn')
}
/** The person leaves the page: waiting requests fail. */
export const pageLeft = () => {
  settle('giveUp')
}

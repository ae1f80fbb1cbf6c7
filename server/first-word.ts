import { randomBytes } from 'node:crypto'
import { joinCode } from '../core/people'
import { addressSet } from './own-address'
import { samePassword } from './people/password'

const thisMachine = /^(localhost|127\.[\d.]+|\[?::1\]?)$/i

/** Whether somebody on another machine may reach this process: by its own port, a proxy, or an address that is set. */
export function isReachedFromElsewhere(env: NodeJS.ProcessEnv = process.env): boolean {
  if (!thisMachine.test(env.HOST ?? '') || env.THISTLE_PROXY === 'on') return true
  const address = addressSet()
  return address !== null && !thisMachine.test(URL.parse(address)?.hostname ?? '')
}

let word: string | undefined

/**
 * The word that whoever sets the school up types, so that nobody who merely finds the address becomes its administrator:
 * THISTLE_FIRST_WORD, or one made up, which the start command prints. Null where only this machine reaches the process.
 */
export function firstWord(): string | null {
  if (!isReachedFromElsewhere()) return null
  return (word ??= process.env.THISTLE_FIRST_WORD || joinCode(randomBytes(8)))
}

/** As it is compared: whatever capitals, spaces and hyphens somebody types. */
const plain = (text: string): string => text.toUpperCase().replace(/[^A-Z0-9]/g, '')

/** Whether what was typed is the first word; so it is where none is asked for. */
export function isFirstWord(typed: string): boolean {
  const wanted = firstWord()
  return wanted === null || samePassword(plain(typed), plain(wanted))
}

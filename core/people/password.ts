import { alikeName } from './names'

/** OWASP ASVS 4.0.3, 2.1.1 and 2.1.2: at least 12 characters, and 64 or more are taken. */
export const shortestPassword = 12
export const longestPassword = 128

/** ASVS 2.1.7 asks for the commonest to be refused; of those that are long enough, these patterns are most of what is met. */
const common =
  /^(?:password|passwort|letmein|welcome|qwerty|qwertz|azerty|iloveyou|admin|changeme|secret|monkey|dragon)+[\d\W_]*$/i
const runs = ['abcdefghijklmnopqrstuvwxyz', '01234567890', 'qwertyuiop', 'qwertzuiop', 'asdfghjkl', 'zxcvbnm']

/** Whether text is one piece over and over, or goes along the alphabet, the digits or a keyboard. */
function isPlain(text: string): boolean {
  if (/^(.{1,4})\1+.{0,3}$/u.test(text)) return true
  const both = runs.flatMap((run) => [run, [...run].reverse().join('')])
  const rest = both.reduce((left, run) => {
    for (let length = run.length; length >= 4; length--)
      for (let from = 0; from + length <= run.length; from++) left = left.replaceAll(run.slice(from, from + length), '')
    return left
  }, text)
  return rest.length < 4
}

/**
 * What is wrong with a new password, in a sentence; null for nothing. Any characters are taken, no sorts of them are
 * asked for, nothing is cut off (ASVS 4.0.3, 2.1.3, 2.1.4, 2.1.9).
 * @param person whose it is: their name and address are the first that is tried
 */
export function passwordFault(password: string, person: { name: string; email: string | null }): string | null {
  const characters = [...password.normalize('NFC')]
  if (characters.length < shortestPassword)
    return `A password has at least ${shortestPassword} characters. Three or four words are easy to remember.`
  if (characters.length > longestPassword) return `A password has at most ${longestPassword} characters.`
  const plain = password.toLowerCase()
  if (common.test(plain) || isPlain(plain)) return 'This is one of the first passwords that are tried. Take another.'
  const own = [...alikeName(person.name).split(' '), ...(person.email?.toLowerCase().split(/[@.]/) ?? [])].filter(
    (part) => part.length > 2,
  )
  const left = own.reduce((text, part) => text.replaceAll(part, ''), alikeName(password))
  return [...left.replace(/ /g, '')].length < 6 ? 'This is made of the name or address. Take another.' : null
}

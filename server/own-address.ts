import { staysHere } from './standins/mail/post'

/** Where this process is reached from its own machine. */
function here(): string {
  const host = process.env.HOST ?? '127.0.0.1'
  const own = host === '0.0.0.0' || host === '::' || host === '' ? 'localhost' : host
  return `http://${own.includes(':') ? `[${own}]` : own}:${process.env.PORT ?? 3400}`
}

/** The address that is set for links, without a slash at its end; null where none is. */
export const addressSet = (): string | null => process.env.THISTLE_ADDRESS?.trim().replace(/\/+$/, '') || null

/**
 * What keeps this process from serving, in a sentence: letters that leave need an address for their links, and none is
 * ever taken from a request. Null for nothing.
 */
export const addressFault = (): string | null =>
  !staysHere() && addressSet() === null
    ? 'THISTLE_SMTP names a mail server, but THISTLE_ADDRESS does not say where Thistle is reached. Set it, for example THISTLE_ADDRESS=https://quiz.school.example, so that links in messages work.'
    : null

/** Where Thistle is reached, for links: THISTLE_ADDRESS, else this machine. What a request says of it counts for nothing. */
export const ownAddress = (): string => addressSet() ?? here()

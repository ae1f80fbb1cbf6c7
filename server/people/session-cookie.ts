import { deleteCookie, getCookie, setCookie, type H3Event } from 'h3'
import type { Instant } from '../../core/kit/time'
import type { Db } from '../database/database'
import { rememberedFor } from './known-browsers'
import type { Person } from './people'
import { beginSession, endSession, lifetime, sessionPerson } from './sessions'
import { newToken } from './tokens'

/** The cookie whose token stands for a session. */
export const sessionCookie = 'thistle-session'
const browserCookie = 'thistle-browser'

/** "lax" lets a link in a mail arrive signed in. "secure" is for whoever serves it over TLS. */
const kept = (milliseconds: number) => ({
  httpOnly: true,
  sameSite: 'lax' as const,
  secure: process.env.THISTLE_SECURE_COOKIES === 'on',
  path: '/',
  maxAge: Math.floor(milliseconds / 1000),
})

/** Who is signed in; null where nobody is. */
export async function signedInPerson(event: H3Event, db: Db, now: Instant): Promise<Person | null> {
  const token = getCookie(event, sessionCookie)
  return token ? sessionPerson(db, token, now) : null
}

/** Signs somebody in: another session that this browser had is over. */
export async function signInto(event: H3Event, db: Db, person: string, now: Instant): Promise<void> {
  const before = getCookie(event, sessionCookie)
  if (before) await endSession(db, before)
  setCookie(event, sessionCookie, await beginSession(db, person, now), kept(lifetime))
}

/** Lasts as long as the session does, which is longer each time it is used. */
export function renewCookie(event: H3Event): void {
  const token = getCookie(event, sessionCookie)
  if (token) setCookie(event, sessionCookie, token, kept(lifetime))
}

export async function signOut(event: H3Event, db: Db): Promise<void> {
  const token = getCookie(event, sessionCookie)
  if (token) await endSession(db, token)
  deleteCookie(event, sessionCookie, { path: '/' })
}

/** What this browser is known by; it gets a name where it has none. */
export function knownBrowser(event: H3Event): string {
  const browser = getCookie(event, browserCookie) ?? newToken()
  setCookie(event, browserCookie, browser, kept(rememberedFor))
  return browser
}

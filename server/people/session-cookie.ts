import type { H3Event } from 'h3'
import type { Person } from './people'

declare module '#auth-utils' {
  interface User {
    id: string
    school: string
    role: 'teacher' | 'student'
  }
}

interface SessionUser {
  id: string
  school: string
  role: 'teacher' | 'student'
}

/** Opening a seal takes longer than a save, and the same cookie always opens to the same person. Forgotten after a minute. */
const opened = new Map<string, { user: SessionUser; until: number }>()
const most = 5000
const minute = 60_000

/** Who the session cookie says is signed in, or null. */
export async function sessionUser(event: H3Event): Promise<SessionUser | null> {
  const cookie = getCookie(event, 'nuxt-session')
  if (!cookie) return null
  const at = performance.now()
  const known = opened.get(cookie)
  if (known && known.until > at) return known.user
  const { user } = await getUserSession(event)
  if (!user) return null
  opened.delete(cookie)
  opened.set(cookie, { user, until: at + minute })
  if (opened.size > most) opened.delete(opened.keys().next().value!)
  return user
}

/** Seals who is signed in into the session cookie. */
export async function beginSession(event: H3Event, person: Person): Promise<void> {
  await replaceUserSession(event, { user: { id: person.id, school: person.school, role: person.role } })
}

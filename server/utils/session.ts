import type { H3Event } from 'h3'
import type { Person } from '../domain/people/people'

declare module '#auth-utils' {
  interface User { id: string, school: string, role: 'teacher' | 'student' }
}

/** Seals who is signed in into the session cookie. */
export async function beginSession(event: H3Event, person: Person): Promise<void> {
  await replaceUserSession(event, { user: { id: person.id, school: person.school, role: person.role } })
}

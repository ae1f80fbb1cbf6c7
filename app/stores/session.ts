import type { Instant } from '~~/core/kit/time'

export interface SignedIn {
  id: string
  name: string
  role: 'teacher' | 'student'
}
interface Session {
  person: SignedIn | null
  school: string
  zone: string
  now: Instant
}

/** Who is signed in, and the school's name and zone. */
export const useSession = defineStore('session', () => {
  const person = ref<SignedIn | null>(null)
  const school = ref('')
  const zone = ref('UTC')
  const asked = ref(false)

  function take(session: Session) {
    person.value = session.person
    school.value = session.school
    zone.value = session.zone
    asked.value = true
    setServerTime(session.now)
  }

  return {
    person,
    school,
    zone,
    asked,
    async load() {
      if (!asked.value) take(await api<Session>('session'))
    },
    async signIn(email: string, password: string) {
      take(await api<Session>('session', { method: 'POST', body: { email, password } }))
    },
    async signInAs(id: string) {
      take(await api<Session>('session/demo', { method: 'POST', body: { person: id } }))
    },
    async signOut() {
      await api('session', { method: 'DELETE' })
      person.value = null
    },
  }
})

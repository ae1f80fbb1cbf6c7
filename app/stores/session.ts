import { sessionRoutes } from '~/client/session'
import { setPageOwner } from '~/client/session-end'
import type { Reply } from '~/client/route'

type Session = Reply<typeof sessionRoutes.current>

/** Who is signed in, and the school's name and zone. */
export const useSession = defineStore('session', () => {
  const person = ref<Session['person']>(null)
  const school = ref('')
  const zone = ref('UTC')
  const asked = ref(false)

  function take(session: Session) {
    person.value = session.person
    setPageOwner(session.person?.id ?? null)
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
    /** Who has just come in some other way: by a link, a code, or a first start. */
    take,
    async load() {
      if (!asked.value) take(await sessionRoutes.current())
    },
    /**
     * Signs in again on a page whose session has ended.
     * @returns whether the same person signed in
     */
    async signInAgain(email: string, password: string): Promise<boolean> {
      const before = person.value?.id
      const session = await sessionRoutes.signIn({ body: { email, password } })
      if (session.person?.id !== before) return false
      take(session)
      return true
    },
    /** Whether the person whose page this is has signed in again elsewhere in this browser. */
    async isBack(): Promise<boolean> {
      const session = await sessionRoutes.current()
      return session.person !== null && session.person.id === person.value?.id
    },
    async signIn(email: string, password: string) {
      take(await sessionRoutes.signIn({ body: { email, password } }))
    },
    async signInAs(id: string) {
      take(await sessionRoutes.signInAs({ body: { person: id } }))
    },
    async signOut() {
      await sessionRoutes.signOut()
      person.value = null
      setPageOwner(null)
    },
  }
})

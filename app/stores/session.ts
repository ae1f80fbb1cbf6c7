import { sessionRoutes } from '~/client/session'
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
    async signIn(email: string, password: string) {
      take(await sessionRoutes.signIn({ body: { email, password } }))
    },
    async signInAs(id: string) {
      take(await sessionRoutes.signInAs({ body: { person: id } }))
    },
    async signOut() {
      await sessionRoutes.signOut()
      person.value = null
    },
  }
})

/** Pages of somebody who is not signed in yet. */
const outside = /^\/(sign-in|join|come-in|link|reminders|first-start)(\/|$)/
/** Pages of everybody who is. */
const shared = /^\/me(\/|$)/

/** Everybody signs in first; students and teachers each have their own pages. The server decides every right itself. */
export default defineNuxtRouteMiddleware(async (to) => {
  const session = useSession()
  try {
    await session.load()
  } catch (error) {
    // A sitting goes on without the server; everything else waits for it.
    if (to.path.startsWith('/sit/')) return
    throw createError({ statusCode: 503, statusMessage: sentenceOf(error), fatal: true })
  }
  const home = session.person?.role === 'student' ? '/my' : '/today'
  if (to.path === '/sign-in') return session.person ? navigateTo(home) : undefined
  if (outside.test(to.path)) return
  if (!session.person && !session.school) return navigateTo('/first-start')
  if (!session.person) return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  if (shared.test(to.path)) return
  const forStudents = /^\/(my|sit|review)(\/|$)/.test(to.path)
  if (to.path === '/' || forStudents !== (session.person.role === 'student')) return navigateTo(home)
})

import { route } from './route'

export const sessionRoutes = {
  demoPeople: route<typeof import('~~/server/api/session/demo.get')>('GET', 'session/demo'),
  signInAs: route<typeof import('~~/server/api/session/demo.post')>('POST', 'session/demo'),
  signOut: route<typeof import('~~/server/api/session/index.delete')>('DELETE', 'session'),
  current: route<typeof import('~~/server/api/session/index.get')>('GET', 'session'),
  signIn: route<typeof import('~~/server/api/session/index.post')>('POST', 'session'),
}

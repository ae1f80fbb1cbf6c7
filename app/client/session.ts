import { route } from './route'

export const sessionRoutes = {
  demoPeople: route<typeof import('~~/server/api/session/demo.get')>('GET', 'session/demo'),
  signInAs: route<typeof import('~~/server/api/session/demo.post')>('POST', 'session/demo'),
  signOut: route<typeof import('~~/server/api/session/index.delete')>('DELETE', 'session'),
  signOutEverywhere: route<typeof import('~~/server/api/session/everywhere.delete')>('DELETE', 'session/everywhere'),
  current: route<typeof import('~~/server/api/session/index.get')>('GET', 'session'),
  signIn: route<typeof import('~~/server/api/session/index.post')>('POST', 'session'),
  changePassword: route<typeof import('~~/server/api/session/password.put')>('PUT', 'session/password'),
  forgot: route<typeof import('~~/server/api/session/forgot.post')>('POST', 'session/forgot'),
  notices: route<typeof import('~~/server/api/session/notices.get')>('GET', 'session/notices'),
  readNotices: route<typeof import('~~/server/api/session/notices.delete')>('DELETE', 'session/notices'),
  lookAtPass: route<typeof import('~~/server/api/passes/[token].get')>('GET', 'passes/[token]'),
  usePass: route<typeof import('~~/server/api/passes/[token].post')>('POST', 'passes/[token]'),
}

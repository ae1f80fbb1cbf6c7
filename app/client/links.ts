import { route } from './route'

export const linkRoutes = {
  look: route<typeof import('~~/server/api/links/[token].get')>('GET', 'links/[token]'),
  comeIn: route<typeof import('~~/server/api/links/[token].post')>('POST', 'links/[token]'),
}

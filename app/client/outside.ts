import { route } from './route'

export const outsideRoutes = {
  askFor: route<typeof import('~~/server/api/outside/[bank]/ask.post')>('POST', 'outside/[bank]/ask'),
  sync: route<typeof import('~~/server/api/outside/[bank]/sync.post')>('POST', 'outside/[bank]/sync'),
  view: route<typeof import('~~/server/api/outside/index.get')>('GET', 'outside'),
}

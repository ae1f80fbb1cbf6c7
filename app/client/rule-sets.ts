import { route } from './route'

/** Rules to start from that a teacher keeps. */
export const ruleSetRoutes = {
  list: route<typeof import('~~/server/api/rule-sets/index.get')>('GET', 'rule-sets'),
  make: route<typeof import('~~/server/api/rule-sets/index.post')>('POST', 'rule-sets'),
  keep: route<typeof import('~~/server/api/rule-sets/[id].put')>('PUT', 'rule-sets/[id]'),
  drop: route<typeof import('~~/server/api/rule-sets/[id].delete')>('DELETE', 'rule-sets/[id]'),
}

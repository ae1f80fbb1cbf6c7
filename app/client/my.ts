import { route } from './route'

export const myRoutes = {
  makeCalendar: route<typeof import('~~/server/api/my/calendar/address.post')>('POST', 'my/calendar/address'),
  endCalendar: route<typeof import('~~/server/api/my/calendar/address.delete')>('DELETE', 'my/calendar/address'),
  before: route<typeof import('~~/server/api/my/quizzes/[id]/index.get')>('GET', 'my/quizzes/[id]'),
  start: route<typeof import('~~/server/api/my/quizzes/[id]/start.post')>('POST', 'my/quizzes/[id]/start'),
  done: route<typeof import('~~/server/api/my/quizzes/[id]/done.put')>('PUT', 'my/quizzes/[id]/done'),
  reminders: route<typeof import('~~/server/api/my/reminders.get')>('GET', 'my/reminders'),
  setReminders: route<typeof import('~~/server/api/my/reminders.put')>('PUT', 'my/reminders'),
  remindersAt: route<typeof import('~~/server/api/reminders/[word].get')>('GET', 'reminders/[word]'),
  setRemindersAt: route<typeof import('~~/server/api/reminders/[word].put')>('PUT', 'reminders/[word]'),
  list: route<typeof import('~~/server/api/my/quizzes/index.get')>('GET', 'my/quizzes'),
}

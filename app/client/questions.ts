import { route } from './route'

export const questionRoutes = {
  correction: route<typeof import('~~/server/api/questions/[id]/correction.get')>('GET', 'questions/[id]/correction'),
  takeCorrection: route<typeof import('~~/server/api/questions/[id]/correction.post')>(
    'POST',
    'questions/[id]/correction',
  ),
  differences: route<typeof import('~~/server/api/questions/[id]/differences.get')>(
    'GET',
    'questions/[id]/differences',
  ),
  reportFault: route<typeof import('~~/server/api/questions/[id]/fault.post')>('POST', 'questions/[id]/fault'),
  get: route<typeof import('~~/server/api/questions/[id]/index.get')>('GET', 'questions/[id]'),
  setKeeping: route<typeof import('~~/server/api/questions/[id]/keeping.put')>('PUT', 'questions/[id]/keeping'),
  record: route<typeof import('~~/server/api/questions/[id]/record.get')>('GET', 'questions/[id]/record'),
  answerRemark: route<typeof import('~~/server/api/questions/[id]/remarks/[remark].put')>(
    'PUT',
    'questions/[id]/remarks/[remark]',
  ),
  remarks: route<typeof import('~~/server/api/questions/[id]/remarks/index.get')>('GET', 'questions/[id]/remarks'),
  addRemark: route<typeof import('~~/server/api/questions/[id]/remarks/index.post')>('POST', 'questions/[id]/remarks'),
  setState: route<typeof import('~~/server/api/questions/[id]/state.put')>('PUT', 'questions/[id]/state'),
  take: route<typeof import('~~/server/api/questions/[id]/take.post')>('POST', 'questions/[id]/take'),
  revise: route<typeof import('~~/server/api/questions/[id]/versions.post')>('POST', 'questions/[id]/versions'),
  undoChange: route<typeof import('~~/server/api/questions/changes/[id].delete')>('DELETE', 'questions/changes/[id]'),
  changeMany: route<typeof import('~~/server/api/questions/changes/index.post')>('POST', 'questions/changes'),
  doubts: route<typeof import('~~/server/api/questions/doubts.get')>('GET', 'questions/doubts'),
  search: route<typeof import('~~/server/api/questions/index.get')>('GET', 'questions'),
  add: route<typeof import('~~/server/api/questions/index.post')>('POST', 'questions'),
  unseen: route<typeof import('~~/server/api/questions/unseen.post')>('POST', 'questions/unseen'),
  near: route<typeof import('~~/server/api/questions/near.get')>('GET', 'questions/near'),
  preview: route<typeof import('~~/server/api/questions/preview.post')>('POST', 'questions/preview'),
}

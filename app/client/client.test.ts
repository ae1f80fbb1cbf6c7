import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

const api = join(import.meta.dirname, '../../server/api')
const routes = (readdirSync(api, { recursive: true }) as string[])
  .filter((name) => name.endsWith('.ts') && !name.startsWith('[...]'))
  .map((name) => name.slice(0, -3))
const client = readdirSync(import.meta.dirname)
  .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && name !== 'route.ts')
  .map((name) => readFileSync(join(import.meta.dirname, name), 'utf8'))
  .join('\n')
const functions = [...client.matchAll(/import\('~~\/server\/api\/([^']+)'\)>\(\s*'(\w+)',\s*'([^']+)'/g)].map(
  ([, file, method, path]) => ({ file: file!, method: method!, path: path! }),
)
/** Routes whose reply is a file for the browser to keep, or that are asked by machines. */
const files = [
  'classes/[id]/file.get',
  'files/schema.get',
  'files/template.get',
  'health.get',
  'media/[id].get',
  'objectives/file.get',
  'people/[id]/data.get',
  'questions/file.post',
  'quizzes/[id]/file.post',
  'roster/file.get',
  'roster/template.get',
  'calendar/[token].get',
  'my/calendar/index.get',
  // A line that stays open (composables/quiz-live.ts).
  'quizzes/[id]/live.get',
]

describe('the client', () => {
  it('has one function for each route, and none besides', () => {
    expect(functions.length).toBeGreaterThan(60)
    expect([...functions.map(({ file }) => file), ...files].sort()).toEqual(routes.sort())
  })
  it.each(functions)('$file is asked by its own method and address', ({ file, method, path }) => {
    const [, address, verb] = /^(.*?)(?:\/index)?\.(\w+)$/.exec(file)!
    expect([path, method]).toEqual([address, verb!.toUpperCase()])
  })
})

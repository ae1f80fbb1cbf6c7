import { describe, expect, it } from 'vitest'
import { encode } from '../format'
import { listFromCsv } from './list-file'
import { readPasted } from './pasted'

const read = (text: string | Uint8Array) => {
  const { list, notes } = listFromCsv('class.csv', typeof text === 'string' ? encode(text) : text)
  return { people: readPasted(list).map(({ name, email, fault }) => [name, email, fault]), notes }
}

describe('a CSV file of one class', () => {
  it.each([
    ['headings, in whatever order', 'E-mail,Name\r\nada@x.example,Ada Brook\r\n,Ben Carr\r\n'],
    ['semicolons', 'Name;E-mail\r\nAda Brook;ada@x.example\r\nBen Carr;\r\n'],
    ['given and family names', 'First name,Surname,E-mail\nAda,Brook,ada@x.example\nBen,Carr,\n'],
    ['none at all', 'Ada Brook,ada@x.example\nBen Carr,\n'],
  ])('%s', (_what, text) => {
    expect(read(text).people).toEqual([
      ['Ada Brook', 'ada@x.example', null],
      ['Ben Carr', null, null],
    ])
  })
  it('in the encoding of an older spreadsheet', () => {
    const bytes = new Uint8Array([...encode('Name\r\nJos'), 0xe9, ...encode(' Vidal\r\n')])
    expect(read(bytes).people).toEqual([['José Vidal', null, null]])
  })
  it('leaves teachers out and tells it; a formula is told', () => {
    const { people, notes } = read('Name,Role\nAda Brook,student\nTom Teach,teacher\n=1+1,student\n')
    expect(people[0]).toEqual(['Ada Brook', null, null])
    expect(people).toHaveLength(1)
    expect(notes.join(' ')).toMatch(/1 row is of teachers/)
    expect(notes.join(' ')).toMatch(/line 4/)
  })
  it('that is no text is said so', () => {
    expect(() => read(new Uint8Array([0, 1, 2, 0]))).toThrow(/no text/)
  })
})

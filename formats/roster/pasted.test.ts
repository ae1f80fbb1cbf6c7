import { describe, expect, it } from 'vitest'
import { readAddress } from './address'
import { mostLines, readPasted } from './pasted'

// RFC 5322 §3.4.1 and RFC 5321 §4.5.3.1; the examples are made up.
describe('addresses', () => {
  it.each([
    ['petra.lund@gannet.example', 'petra.lund@gannet.example', ''],
    ['Petra Lund <Petra.Lund@Gannet.EXAMPLE>', 'petra.lund@gannet.example', 'Petra Lund'],
    ['"Lund, Petra" <petra@gannet.example>', 'petra@gannet.example', 'Lund, Petra'],
    ['petra+sail@mail.gannet.example', 'petra+sail@mail.gannet.example', ''],
    ["o'neil@gannet.example", "o'neil@gannet.example", ''],
    ['用户@例え.example', '用户@例え.example', ''],
  ])('%s', (text, address, name) => expect(readAddress(text)).toEqual({ address, name }))
  it.each([
    'petra',
    'petra@',
    '@gannet.example',
    'petra@localhost',
    'petra@@gannet.example',
    'petra lund@gannet.example',
    'petra@gannet..example',
    'petra@-gannet.example',
    `${'a'.repeat(65)}@gannet.example`,
    `petra@${'a'.repeat(64)}.example`,
    `petra@${'abcdefgh.'.repeat(25)}example`,
    'a@b.example, c@d.example',
  ])('%s is none', (text) => expect(readAddress(text)).toBeNull())
})

describe('a pasted list', () => {
  const read = (text: string) => readPasted(text).map(({ name, email, fault }) => [name, email, fault])
  it('has names, addresses or both, in whatever order they stand', () => {
    expect(
      read(
        [
          'Petra Lund',
          'Lund, Nell',
          'Oskar Brandt <oskar@x.example>',
          'ines.corrado@x.example',
          'Wyn Parrish\twyn@x.example',
          'hedda@x.example; Hedda Moe',
          'Jonas\tTarn\tjonas@x.example',
          'Alba Quist, alba@x.example',
          '',
          '李小龍',
        ].join('\r\n'),
      ),
    ).toEqual([
      ['Petra Lund', null, null],
      ['Nell Lund', null, null],
      ['Oskar Brandt', 'oskar@x.example', null],
      ['Ines Corrado', 'ines.corrado@x.example', null],
      ['Wyn Parrish', 'wyn@x.example', null],
      ['Hedda Moe', 'hedda@x.example', null],
      ['Jonas Tarn', 'jonas@x.example', null],
      ['Alba Quist', 'alba@x.example', null],
      ['李小龍', null, null],
    ])
  })
  it('tells what cannot be taken, at its line', () => {
    expect(
      readPasted('Ada, Ben, Carl\n\nada@x\n***\nPetra\nPETRA\na@x.example\nA@X.example').map(({ line, fault }) => [
        line,
        fault,
      ]),
    ).toEqual([
      [1, expect.stringMatching(/one person a line/)],
      [3, expect.stringMatching(/cannot be read/)],
      [4, 'A name has letters in it.'],
      [5, null],
      [6, expect.stringMatching(/in the list already/)],
      [7, null],
      [8, expect.stringMatching(/in the list already/)],
    ])
  })
  it('is read up to a bound, which is told', () => {
    const lines = readPasted(Array.from({ length: mostLines + 5 }, (_, i) => `Name ${i}`).join('\n'))
    expect(lines).toHaveLength(mostLines)
    expect(lines.at(-1)!.fault).toMatch(/2000 lines/)
  })
})

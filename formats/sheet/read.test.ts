import { utils, write, type CellObject, type WorkSheet } from '@e965/xlsx'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { expect, it } from 'vitest'
import { UnreadableFile } from '../bundle'
import { readSheet, sheetTable } from './read'

/** A file of one sheet, by its cells. */
function file(cells: WorkSheet, bookType: 'xlsx' | 'ods' = 'xlsx'): Uint8Array {
  const book = utils.book_new()
  utils.book_append_sheet(book, cells, 'Questions')
  return new Uint8Array(write(book, { type: 'array', bookType }) as ArrayBuffer)
}
const sheet = (rows: unknown[][], origin = 'A1') => utils.sheet_add_aoa(utils.aoa_to_sheet([]), rows, { origin })
const head = ['kind', 'question', 'option_a', 'option_b', 'right']

for (const type of ['xlsx', 'ods'] as const) {
  it(`${type}: a table that begins further down and to the right keeps its places`, () => {
    const cells = sheet([head, ['choice', 'Which side is port?', 'Left', 'Right', 'a']], 'C4')
    const { header, rows } = sheetTable(file(cells, type))
    expect(header.filter(Boolean)).toEqual(head)
    expect(rows).toHaveLength(1)
    expect(rows[0]!.place).toBe('row 5')
    expect(rows[0]!.cells.question).toBe('Which side is port?')
    expect(rows[0]!.named('right')).toBe('Cell G5')
    expect(rows[0]!.named('tolerance')).toBe('Row 5, tolerance')
  })

  it.each(['&lt;p&gt;', 'AT&amp;T &#65; &amp;amp;', 'a & b < c', '<b>x</b>'])(
    `${type}: escapes that stand in a text are words: %s`,
    (words) => {
      const cells = sheet([head, ['choice', words, 'Yes', `No ${words}`, 'a']])
      const [row] = sheetTable(file(cells, type)).rows
      expect([row!.cells.question, row!.cells.option_b]).toEqual([words, `No ${words}`])
    },
  )

  it(`${type}: blank rows between are passed over, and what follows keeps its row`, () => {
    const cells = sheet([head, [], ['choice', 'One?', 'Yes', 'No', 'a'], [], [], ['choice', 'Two?', 'Yes', 'No', 'b']])
    expect(sheetTable(file(cells, type)).rows.map(({ place }) => place)).toEqual(['row 3', 'row 6'])
  })

  it(`${type}: a fault is said at its cell`, () => {
    const { items } = readSheet(file(sheet([head, ['choice', 'One?', 'Yes', 'No', 'c']]), type))
    expect(JSON.stringify(items)).toContain('Cell E2')
  })

  it(`${type}: a cell under no name of a column is told`, () => {
    const cells = sheet([head, ['choice', 'One?', 'Yes', 'No', 'a', 'a remark']])
    expect(sheetTable(file(cells, type)).rows[0]!.notes).toEqual([
      'Cell F2 stands under no name of a column; it is left out.',
    ])
  })

  it(`${type}: an empty sheet is a sentence`, () => {
    expect(() => sheetTable(file(sheet([]), type))).toThrow('The first sheet of this file is empty.')
  })

  it(`${type}: numbers come as they are kept, a formula as its last result, an error as nothing`, () => {
    const cells = sheet([['kind', 'question', 'right', 'tolerance', 'points', 'tags']])
    const put = (at: string, cell: CellObject) => (cells[at] = cell)
    put('A2', { t: 's', v: 'number' })
    put('B2', { t: 's', v: 'Half of 2.5?' })
    put('C2', { t: 'n', v: 1.25, z: '0' })
    put('D2', { t: 'n', v: 0.5, f: '1/2' })
    put('E2', { t: 'e', v: 0x07 })
    put('F2', { t: 'b', v: true })
    cells['!ref'] = 'A1:F2'
    expect(sheetTable(file(cells, type)).rows[0]!.cells).toMatchObject({
      right: '1.25',
      tolerance: '0.5',
      points: '',
      tags: 'true',
    })
  })
}

it('a sheet that says it goes on for 300 million cells costs no more than what stands in it', () => {
  const cells = sheet([head, ['choice', 'One?', 'Yes', 'No', 'a']])
  const parts = unzipSync(file(cells))
  const name = 'xl/worksheets/sheet1.xml'
  const claimed = strFromU8(parts[name]!).replace(/<dimension ref="[^"]*"/, '<dimension ref="A1:XFD20000"')
  expect(claimed).toContain('XFD20000')
  const began = performance.now()
  expect(sheetTable(zipSync({ ...parts, [name]: strToU8(claimed) })).rows).toHaveLength(1)
  expect(performance.now() - began).toBeLessThan(5_000)
})

it('rows beyond what is read are refused, never cut off without a word', () => {
  const cells = sheet([head, ['choice', 'One?', 'Yes', 'No', 'a']])
  utils.sheet_add_aoa(cells, [['choice', 'Last?', 'Yes', 'No', 'a']], { origin: 'A20200' })
  expect(() => sheetTable(file(cells))).toThrow('goes down to row 20200; 20,100 are read')
})

it('an archive that would grow beyond bounds is refused before it grows', () => {
  const bomb = zipSync({ 'xl/worksheets/sheet1.xml': new Uint8Array(60 * 1024 * 1024) }, { level: 9 })
  expect(() => readSheet(bomb)).toThrow('would grow beyond all measure')
})

it('an archive that lies about its sizes cannot outgrow what it claims', () => {
  const lying = zipSync({ 'xl/workbook.xml': new Uint8Array(60 * 1024 * 1024) }, { level: 9 })
  const view = new DataView(lying.buffer)
  // Where the size stands after each of the two signatures: the file's own head, and the directory.
  for (const [signature, size] of [
    [[0x50, 0x4b, 3, 4], 22],
    [[0x50, 0x4b, 1, 2], 24],
  ] as const) {
    const at = Buffer.from(lying.buffer).indexOf(Buffer.from(signature))
    expect(at).toBeGreaterThanOrEqual(0)
    view.setUint32(at + size, 1000, true)
  }
  expect(() => readSheet(lying)).toThrow(UnreadableFile)
})

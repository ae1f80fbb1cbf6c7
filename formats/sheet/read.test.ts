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

  it(`${type}: cells are read as they are shown, a formula as its last result`, () => {
    const cells = sheet([['kind', 'question', 'right', 'tolerance', 'points', 'tags', 'source', 'comment', 'folder']])
    const put = (at: string, cell: CellObject) => (cells[at] = cell)
    put('A2', { t: 's', v: 'number' })
    put('B2', { t: 's', v: 'Half of 6.2?' })
    put('C2', { t: 'n', v: 3.1, z: '0.00' })
    put('D2', { t: 'n', v: 0.02, z: '0%' })
    put('E2', { t: 'n', v: 0.5, f: '1/2' })
    put('F2', { t: 'b', v: true })
    put('G2', { t: 'n', v: 1852, z: '#,##0' })
    put('H2', { t: 'n', v: 0.5, z: '# ?/?' })
    put('I2', { t: 'n', v: 1 / 3 })
    cells['!ref'] = 'A1:I2'
    expect(sheetTable(file(cells, type)).rows[0]!.cells).toMatchObject({
      right: '3.10',
      tolerance: '2%',
      points: '0.5',
      tags: 'true',
      source: '1852',
      comment: '1/2',
      folder: '0.3333333333333333',
    })
  })

  it(`${type}: further sheets are told`, () => {
    const book = utils.book_new()
    utils.book_append_sheet(book, sheet([head, ['choice', 'One?', 'Yes', 'No', 'a']]), 'Questions')
    utils.book_append_sheet(book, sheet([['more']]), 'Spring term')
    const bytes = new Uint8Array(write(book, { type: 'array', bookType: type }) as ArrayBuffer)
    expect(sheetTable(bytes).rows[0]!.notes).toEqual([
      'The file has further sheets (“Spring term”). Only the first is read.',
    ])
  })
}

// What an ODS says of an error is its formula, which is not read.
it('xlsx: an error in a cell is told there, and its row is not read', () => {
  const cells = sheet([head, ['choice', 'One?', 'Yes', 'No', 'a'], ['choice', 'Two?', 'Yes', 'No', 'b']])
  cells.E2 = { t: 'e', v: 0x07 } as CellObject
  const { items } = readSheet(file(cells))
  expect(items[0]!.problem).toMatch(/^Cell E2 shows .+\. Correct it in the spreadsheet/)
  expect(items[1]!.question).not.toBe(null)
})

it('xlsx: dates and times are words as they are shown, hidden rows are told', () => {
  const cells = sheet([head, ['text', 'When?', '', '', 'x'], ['text', 'At what time?', '', '', 'x']])
  cells.E2 = { t: 'n', v: 43000, z: 'yyyy-mm-dd' } as CellObject
  cells.E3 = { t: 'n', v: 0.4375, z: 'h:mm' } as CellObject
  cells['!rows'] = [{}, {}, { hidden: true }]
  const { rows } = sheetTable(file(cells))
  expect(rows.map((row) => row.cells.right)).toEqual(['2017-09-22', '10:30'])
  expect(rows.map((row) => row.notes)).toEqual([[], ['Row 3 is hidden in the spreadsheet. It is read all the same.']])
})

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

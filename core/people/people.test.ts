import { describe, expect, it } from 'vitest'
import { cleanName, joinCode, nameFault, namesakes, passwordFault, shownCode, typedCode } from '.'

describe('names in any script', () => {
  it.each([
    ['  Petra \t Lund ', 'Petra Lund'],
    ['Zoe\u0308 Quist', 'Zo\u00EB Quist'],
    ['نور الهدى', 'نور الهدى'],
    ['李 小龍', '李 小龍'],
    ['𠮷田 太郎', '𠮷田 太郎'],
    ["O'Neil-Ó Dálaigh", "O'Neil-Ó Dálaigh"],
    ['Ann\u202Egnivlis', 'Anngnivlis'],
    ['नी\u200Dल', 'नी\u200Dल'],
    ['Ada\u0000\u200B', 'Ada'],
  ])('%j', (written, kept) => {
    expect(cleanName(written)).toBe(kept)
    expect(nameFault(kept)).toBeNull()
  })
  it.each([
    ['', 'Give a name.'],
    ['…—', 'A name has letters in it.'],
    ['𠮷'.repeat(161), 'A name has at most 160 characters.'],
  ])('%s is told', (name, fault) => expect(nameFault(name)).toBe(fault))
  it('letters of four bytes count once', () => expect(nameFault('𠮷'.repeat(160))).toBeNull())
  it('two of one name are found, whatever case and accents', () => {
    const people = ['Zoë Quist', 'Zoe QUIST', 'Zoe Quest', 'Ada', 'Ada '].map((name, i) => ({ id: `${i}`, name }))
    expect([...namesakes(people)]).toEqual(['0', '1', '3', '4'])
  })
})

// OWASP ASVS 4.0.3, chapter 2.1.
describe('passwords', () => {
  const petra = { name: 'Petra Lund', email: 'petra.lund@gannet.example' }
  it.each([
    ['2.1.1: eleven characters', 'abqtrxz kmp', /at least 12/],
    ['2.1.2: 129 characters', 'Lorem4'.repeat(21) + 'abc', /at most 128/],
    ['2.1.7: a common one', 'password1234', /first passwords/],
    ['2.1.7: another', 'Welcome2026!', /first passwords/],
    ['a piece over and over', 'abcabcabcabc', /first passwords/],
    ['one letter', 'aaaaaaaaaaaaaa', /first passwords/],
    ['along the keyboard', 'qwertyuiop12345', /first passwords/],
    ['backwards', 'zyxwvutsrqpo9876', /first passwords/],
    ['the own name', 'PetraLund2026', /name or address/],
    ['the own address', 'gannetexample', /name or address/],
  ])('%s is refused', (_what, password, fault) => expect(passwordFault(password, petra)).toMatch(fault))
  it.each([
    ['2.1.9: no sorts of characters are asked for', 'three quiet harbour'],
    ['2.1.4: any script', 'тихая гавань ночью'],
    ['2.1.4: pictures', '🌊🌊⛵️ to the island'],
    ['2.1.2: 64 characters', 'k4 '.repeat(3) + 'deep water runs past the mole at noon, and turns at half'],
  ])('%s', (_what, password) => expect(passwordFault(password, petra)).toBeNull())
})

describe('codes of classes', () => {
  it('are shown in two pieces and read however they are typed', () => {
    const code = joinCode(Uint8Array.from([0, 1, 2, 3, 4, 5, 6, 7]))
    expect(code).toBe('BCDFG892')
    expect(shownCode(code)).toBe('BCDFG 892')
    for (const typed of ['bcdfg892', ' BCDFG 892 ', 'bcd-fg.892']) expect(typedCode(typed)).toBe(code)
    for (const typed of ['', 'BCDFG89', 'BCDFG8922', 'ACDFG892', 'BCDFG891', 'BCDF8G92'])
      expect(typedCode(typed)).toBeNull()
  })
  it('each sign comes as often as any other, within a tenth', () => {
    const counts = new Map<string, number>()
    for (let byte = 0; byte < 256; byte++) {
      const sign = joinCode(new Uint8Array(8).fill(byte))[0]!
      counts.set(sign, (counts.get(sign) ?? 0) + 1)
    }
    expect(counts.size).toBe(15)
    expect(Math.max(...counts.values()) / Math.min(...counts.values())).toBeLessThan(1.1)
  })
})
